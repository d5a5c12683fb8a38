// Whatever is registered is walked through: every stage of the work and every window over it, by address and by key, printed, looked at
// by axe in both themes, and left again by Back or Escape.

import { expect } from '@playwright/test';
import { ACTIONS } from '../src/actions';
import { WINDOWS } from '../src/actions/action';
import { STAGES } from '../src/stages';
import { violated } from './axe';
import { openBuild, test } from './support';

const DIALOG = '[role="dialog"]';
/** Playwright's name of a shortcut. */
const press = (keys: string) =>
  keys
    .split('+')
    .map((key) => ({ alt: 'Alt', shift: 'Shift', mod: 'Control' })[key] ?? key)
    .join('+');

for (const stage of STAGES) {
  test(`the stage ${stage.name} opens by address and key, prints, and is left by Back`, async ({
    page,
    server,
  }) => {
    const build = await server.makeBuild(`Walk ${stage.name}`, undefined, { lowest: '30 Hz' });
    await openBuild(page, server, build.id);
    const start = page.url();
    await page.keyboard.press(press(stage.keys));
    const bar = page.getByRole('navigation', { name: 'Stages' });
    if ('window' in stage.opens) {
      await expect(page.getByRole('dialog')).toBeVisible();
    } else {
      await expect(bar.locator('[aria-current="page"]')).toContainText(stage.name);
      await expect(page).toHaveTitle(new RegExp(`Walk ${stage.name}`));
      await page.emulateMedia({ media: 'print' });
      await expect(page.getByRole('main')).toBeVisible();
      await expect(bar).toBeHidden();
      await page.emulateMedia({ media: 'screen' });
    }
    const there = page.url();
    await page.reload();
    expect(page.url()).toBe(there);
    if (there === start) return;
    await page.goBack();
    await expect(page).toHaveURL(start);
    await expect(page.getByRole('dialog')).toHaveCount(0);
  });
}

test('every window opens by its address, is clean in both themes, and is left by Escape', async ({
  page,
  server,
}) => {
  test.setTimeout(180_000);
  const build = await server.makeBuild('Windows', undefined, { lowest: '30 Hz' });
  await openBuild(page, server, build.id);
  // A driver is carried to a new cabinet by hand only.
  for (const name of WINDOWS.filter((name) => name !== 'new-cabinet')) {
    await page.goto(`${server.address}/builds/${build.id}?open=${name}`);
    await expect(page.getByRole('dialog'), name).toBeVisible();
    await expect(page.getByRole('dialog').getByRole('heading').first(), name).toBeVisible();
    await violated(page, name, DIALOG);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog'), name).toHaveCount(0);
    expect(new URL(page.url()).searchParams.has('open'), name).toBe(false);
  }
});

test('every window that has a key opens by it, closes by Back and gives the focus back', async ({
  page,
  server,
}) => {
  test.setTimeout(120_000);
  const build = await server.makeBuild('Keys of windows', undefined, { lowest: '30 Hz' });
  await openBuild(page, server, build.id);
  const opens = ACTIONS.filter(({ id }) => WINDOWS.some((name) => id === `open-${name}`));
  expect(opens.length).toBeGreaterThan(7);
  for (const { id, keys } of opens) {
    const rule = page.getByRole('slider', { name: 'Volume Vb, rule' });
    await rule.focus();
    await page.keyboard.press(press(keys[0] ?? ''));
    await expect(page.getByRole('dialog'), id).toBeVisible();
    expect(new URL(page.url()).searchParams.get('open'), id).toBe(id.replace('open-', ''));
    await page.goBack();
    await expect(page.getByRole('dialog'), id).toHaveCount(0);
    await expect(rule, id).toBeFocused();
  }
});
