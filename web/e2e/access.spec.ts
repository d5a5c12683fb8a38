import type { Build } from '../src/schema/types';
import { violated } from './axe';
import { expect, openBuild, test } from './support';

const DIALOG = '[role="dialog"]';
const PANEL = '[role="tabpanel"]';

test('every view is free of violations in both themes', async ({ page, server }) => {
  test.setTimeout(240_000);
  const refused: string[] = [];
  page.on(
    'console',
    (message) => message.text().includes('Content Security Policy') && refused.push(message.text()),
  );
  const build = await server.makeBuild('Access');
  await page.goto(server.address);
  await expect(page.getByRole('heading', { name: 'Access' }).first()).toBeVisible();
  await violated(page, 'builds');
  await page.goto(`${server.address}/jobs`);
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
  await violated(page, 'jobs');
  await page.goto(`${server.address}/start?from=woofer`);
  await page
    .getByRole('textbox', { name: 'Data sheet' })
    .fill('Fs 28 Hz Re 3.6 ohm Qms 5.4 Qes 0.38 Vas 63 l');
  await expect(page.getByRole('group', { name: 'Still needed' })).toBeVisible();
  await violated(page, 'a data sheet');
  await page.getByRole('button', { name: /^Home, music/ }).click();
  await page.getByRole('radio', { name: 'From the library' }).click();
  await page.getByRole('button', { name: /^Use Heron 250\/4/ }).click();
  await expect(page.getByRole('button', { name: 'Make this box' })).toBeVisible();
  await violated(page, 'a recommendation');
  await openBuild(page, server, build.id);
  await violated(page, 'workbench, ported');
  await page.getByRole('link', { name: 'Box' }).click();
  for (const tab of ['Driver and ports', 'Standing waves', 'Boards', 'Sizes and volume']) {
    await page.getByRole('tab', { name: tab }).click();
    await violated(page, `box, ${tab}`, tab === 'Driver and ports' ? undefined : PANEL);
  }
  await page.getByRole('link', { name: 'Curves' }).click();
  await page.getByRole('textbox', { name: 'Volume Vb' }).fill('0 l');
  await page.keyboard.press('Enter');
  await violated(page, 'a refused value', PANEL);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Kind of cabinet/ }).click();
  await expect(page.getByRole('list', { name: 'Starting points' })).toContainText('Flat');
  // Once with all that lies under a dialog, which must be hidden from everybody.
  await violated(page, 'kinds of cabinet');
  await page.getByRole('radio', { name: 'Transmission line' }).click();
  await page.getByRole('button', { name: /^Replace this design: Tapered/ }).click();
  await expect(page.locator('[data-figure="way"]')).toBeVisible();
  await violated(page, 'workbench, line');
  for (const tab of ['Segment 1', 'Drivers', 'Signal and space']) {
    await page.getByRole('tab', { name: tab }).click();
    await violated(page, `values of ${tab}`, PANEL);
  }
  await page.getByRole('tab', { name: 'Drivers' }).click();
  await page.getByRole('button', { name: 'Wiring and changes …' }).click();
  await expect(page.getByRole('row', { name: /as on its sheet/ })).toBeVisible();
  await violated(page, 'wiring and changes', DIALOG);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^The brief/ }).click();
  await page.getByRole('button', { name: /^Car, under a seat/ }).click();
  await violated(page, 'the brief', DIALOG);
  await page.getByRole('button', { name: 'Save the brief' }).click();
  await expect(page.locator('[data-figure="brief-size"]')).toBeVisible();
  await violated(page, 'workbench, judged by a brief');
  await page
    .getByRole('button', { name: /^Driver Heron/ })
    .first()
    .click();
  await expect(page.getByRole('row', { name: /Heron/ }).first()).toBeVisible();
  await violated(page, 'choosing a driver', DIALOG);
  await page.getByRole('button', { name: 'Type in a driver' }).click();
  await violated(page, 'typing in a driver', DIALOG);
  await page.goto(`${server.address}/drivers`);
  await expect(page.getByRole('row', { name: /Heron/ }).first()).toBeVisible();
  await violated(page, 'drivers');
  await page.getByRole('button', { name: 'Filters …' }).click();
  await expect(page.getByRole('textbox', { name: 'Fs, at most' })).toBeVisible();
  await violated(page, 'bounds', DIALOG);
  await page.keyboard.press('Escape');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  const buffer = Buffer.from('name,fs (Hz)\nOne,30\n');
  await (await chooser).setFiles({ name: 'drivers.csv', mimeType: 'text/csv', buffer });
  await expect(page.getByText('1 row, 0 can be taken')).toBeVisible();
  await violated(page, 'import', DIALOG);
  await page.keyboard.press('Escape');
  for (const name of ['Heron 250/4', 'Mole 250/4']) await page.getByLabel(`Compare ${name}`).check();
  await page.getByRole('button', { name: 'Compare 2' }).click();
  await expect(page.getByRole('row', { name: /^Mole/ })).toContainText('Hz');
  await violated(page, 'drivers compared');
  await page.goto(`${server.address}/builds/${build.id}/find`);
  await expect(page.getByText(/drivers looked at\./)).toBeVisible();
  await page.locator('[data-found] button').first().click();
  await expect(page.getByRole('heading', { name: 'Trade-off' })).toBeVisible();
  await violated(page, 'drivers found');
  await page.keyboard.press('Alt+k');
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible();
  await violated(page, 'shortcuts', DIALOG);
  await page.goto(`${server.address}/nowhere`);
  await violated(page, 'not found');
  expect(refused).toEqual([]);
});

test('what opens over the workbench is free of violations in both themes', async ({ page, server }) => {
  test.setTimeout(240_000);
  const builds = await server.call<Build[]>('GET', '/builds');
  const nook = builds.find((build) => build.name === 'Narrowboat nook');
  await openBuild(page, server, nook?.id ?? '');
  await page.getByRole('button', { name: 'Work on Sealed, bench berth' }).click();
  await page.locator('[data-figure="brief-lowest"]').click();
  await expect(page.getByRole('region', { name: 'Ways to fix it' })).toContainText('→');
  await violated(page, 'what fixes it');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Work on Slot, all-round' }).click();
  await page.getByRole('button', { name: 'Port: edit its size' }).click();
  await expect(page.getByRole('dialog', { name: 'Port' })).toBeVisible();
  await violated(page, 'a part of the drawing', DIALOG);
  await page.keyboard.press('Escape');
  for (const [keys, within, what] of [
    ['Alt+w', /44 l\s*now/, 'what if'],
    ['Alt+h', /19 of 20 such boxes/, 'how sure'],
    ['Alt+u', /Lengths/, 'units'],
    ['Alt+g', /Alignment/, 'glossary'],
    ['Control+k', /Undo/, 'palette'],
  ] as const) {
    await page.keyboard.press(keys);
    await expect(page.getByRole('dialog')).toContainText(within);
    await violated(page, what, DIALOG);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  await page.getByRole('button', { name: 'Lanes', exact: true }).click();
  await expect(page.getByRole('menuitem', { name: 'Values as a table …' })).toBeVisible();
  await violated(page, 'menu of the lanes', '[role="menu"]');
  await page.getByRole('menuitem', { name: 'Values as a table …' }).click();
  await violated(page, 'values as a table', DIALOG);
  await page.keyboard.press('Escape');
  for (const keys of ['Alt+s', 'Alt+e', 'Alt+3', 'Alt+m']) await page.keyboard.press(keys);
  await expect(page.getByRole('region', { name: 'Slow motion' })).toContainText('Hz');
  await violated(page, 'slow motion, a step, peaks and a folded lane');
  await page.setViewportSize({ width: 390, height: 844 });
  await violated(page, 'on a phone');
});

test('everything on the workbench is reached by Tab, and focus can be seen', async ({ page, server }) => {
  const build = await server.makeBuild('Tabbing');
  await openBuild(page, server, build.id);
  const names = new Set<string>();
  for (let press = 0; press < 90; press += 1) {
    await page.keyboard.press('Tab');
    const focused = await page.evaluate(() => {
      const element = document.activeElement;
      const tag = element?.tagName;
      const style = element ? getComputedStyle(element) : null;
      return {
        tag,
        name: element?.getAttribute('aria-label') ?? element?.textContent ?? '',
        outline: style?.outlineStyle,
      };
    });
    if (focused.tag !== 'BODY') expect(focused.outline, focused.name).not.toBe('none');
    names.add(focused.name);
  }
  for (const name of [
    'Builds',
    'Frequency cursor',
    'Name of the variant',
    'Box: edit the volume',
    'Volume Vb',
    'Volume Vb, rule',
    'Slot',
    'Work on Slot, all-round',
    'More for Slot, all-round',
  ]) {
    expect([...names], name).toContain(name);
  }
  await page.keyboard.press('Alt+l');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
});
