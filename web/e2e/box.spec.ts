import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { Build } from '../src/api/types';
import { expect, openBuild, type Server, test } from './support';

/** The box of a demo variant, in a build of its own that the test may change. */
async function openBox(page: Page, server: Server, name: string): Promise<string> {
  const builds = await server.call<Build[]>('GET', '/builds');
  const found = builds.find((build) => build.name === name);
  const copy = await server.call<object>('GET', `/builds/${found?.id}/build.json`);
  const made = await server.call<Build>('POST', '/builds/import', { ...copy, name: `${name}, box` });
  await openBuild(page, server, made.id);
  await page.getByRole('link', { name: 'Box' }).click();
  await expect(page.getByRole('group', { name: 'Side section of the box' })).toBeVisible();
  return made.id;
}

const tab = (page: Page, name: string) => page.getByRole('tab', { name }).click();

test('the box follows the volume, and a box that is set changes the tuning until the design is made for it', async ({
  page,
  server,
}) => {
  const id = await openBox(page, server, 'Barn dance');
  const room = page.getByRole('region', { name: 'Room of the box' });
  await expect(room).toContainText('The box holds what the design asks for.');
  await page.getByRole('textbox', { name: 'Depth', exact: true }).fill('40 cm');
  await page.keyboard.press('Enter');
  await expect(room).toContainText('less than the design asks for');
  const fits = page.getByRole('region', { name: 'What the box does to the tuning' });
  await expect(fits).toContainText('instead of 38.0 Hz');
  await fits.getByRole('button', { name: /^Design for this box/ }).click();
  await expect(room).toContainText('The box holds what the design asks for.');
  await expect
    .poll(async () => String((await server.open(id)).variants[0]?.document.enclosure.volume))
    .not.toBe('150 l');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(room).toContainText('less than the design asks for');
});

test('a port that does not fit is said, and a way out that the program finds makes a box that does', async ({
  page,
  server,
}) => {
  await openBox(page, server, 'Narrowboat nook');
  await tab(page, 'Driver and ports');
  await expect(page.getByText('Everything fits')).toBeVisible();
  await page.getByRole('radiogroup', { name: 'Turns of the port' }).getByText('None').click();
  await expect(page.getByRole('list', { name: 'What does not fit' })).toContainText('The port does not fit');
  const ways = page.getByRole('region', { name: 'Ways out' });
  await expect(ways.getByRole('listitem').first()).toContainText('turned up once at the back');
  await ways
    .getByRole('button', { name: /^Try as a variant/ })
    .first()
    .click();
  await expect(page.getByText('Everything fits')).toBeVisible();
  await expect(page.locator('[data-figure="brief-fits"]')).toContainText('it fits');
});

test('a standing wave is seen in the section, its fill weighed, and what it does checked both ways', async ({
  page,
  server,
}) => {
  await openBox(page, server, 'Barn dance');
  await tab(page, 'Standing waves');
  const wave = page.getByRole('button', { name: 'up', exact: true });
  await wave.click();
  await expect(wave).toHaveAttribute('aria-pressed', 'true');
  const section = page.getByRole('group', { name: 'Side section of the box' });
  expect(await section.locator('rect[opacity]').count()).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'A layer of fill' }).click();
  await expect(page.getByRole('region', { name: 'Layers of fill' })).toContainText(/Weighs \d+ g/);
  const ring = page.getByRole('region', { name: 'Ring check' });
  await expect(ring).toContainText(/wave/);
  await ring.getByRole('button', { name: 'Check in three directions' }).click();
  await expect(ring).toContainText('spectral elements', { timeout: 30_000 });
});

test('braces are proposed, put in, and the boards ring higher', async ({ page, server }) => {
  await openBox(page, server, 'Narrowboat nook');
  await page.getByRole('button', { name: 'Work on Sealed, bench berth' }).click();
  await tab(page, 'Boards');
  await page.getByRole('button', { name: 'Propose braces and compare materials' }).click();
  await expect(page.getByRole('row', { name: /^Birch plywood/ })).toContainText('Hz');
  await page.getByRole('button', { name: 'A brace', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Braces' })).toContainText('Brace 1');
  await page.getByRole('textbox', { name: 'Middle, from below' }).fill('120 mm');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Brace', exact: true }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Take out brace 1' }).click();
  await expect(page.getByRole('region', { name: 'Braces' })).not.toContainText('Brace 1');
});

test('every view is drawn and handed out', async ({ page, server }) => {
  await openBox(page, server, 'Barn dance');
  for (const view of ['Front', 'Plan', 'Boards apart', 'Side section']) {
    await page.getByRole('radio', { name: view }).click();
    await expect(page.getByRole('group', { name: `${view} of the box` })).toBeVisible();
  }
  for (const [format, begins] of [
    ['SVG', '<svg'],
    ['DXF', '0'],
  ] as const) {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: format, exact: true }).click();
    const text = readFileSync(await (await download).path(), 'utf8');
    expect(text.trimStart().startsWith(begins)).toBe(true);
    expect(text).toContain(format === 'SVG' ? 'polygon' : 'LWPOLYLINE');
  }
});

test('shapes other than a box are drawn, and one that cannot be is refused in words', async ({
  page,
  server,
}) => {
  await openBox(page, server, 'Barn dance');
  for (const [shape, within] of [
    ['wedge', 'Depth at the top'],
    ['prism', 'Sides'],
    ['pipe', 'Double front'],
    ['rounded', 'Radius'],
  ] as const) {
    await page.getByRole('combobox', { name: 'Shape' }).selectOption(shape);
    await expect(page.getByText(within)).toBeVisible();
    await expect(page.getByRole('region', { name: 'Room of the box' })).toContainText(
      'room between the boards',
    );
  }
  await page.getByRole('combobox', { name: 'Shape' }).selectOption('step');
  await page.getByRole('textbox', { name: 'Step, from the top' }).fill('3 m');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'cannot be built' })).toBeVisible();
});

test('driver and braces are moved by their grips in the section of the workbench', async ({
  page,
  server,
}) => {
  await openBox(page, server, 'Pit organ');
  await page.getByRole('link', { name: 'Curves' }).click();
  const driver = page.getByRole('slider', { name: /^Height of the driver/ });
  const before = await driver.getAttribute('aria-valuetext');
  await driver.focus();
  await page.keyboard.press('ArrowUp');
  await expect(driver).not.toHaveAttribute('aria-valuetext', before ?? '');
  await expect(page.getByRole('slider', { name: /^Place of brace 1/ })).toBeVisible();
});
