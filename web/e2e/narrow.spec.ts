// Small screens, large text, and other units.

import type { Page } from '@playwright/test';
import { expect, expectFigures, openBuild, type Server, test } from './support';

const PAGES = ['/', '/start?from=woofer', '/start?from=wish', '/drivers', '/jobs', '/help/figures'];
const OF_A_BUILD = [
  '',
  '/box',
  '/signal',
  '/find',
  '/measure',
  '/measure?show=compare',
  '/measure?show=learned',
  '?open=brief',
  '?open=family',
  '?open=sweep',
  '?open=compare',
  '?open=scale',
  '?open=spread',
];

/** What is wider than the screen and no table. */
async function sideways(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const wide = [document.documentElement, ...document.querySelectorAll('main, [role="dialog"] > div')];
    const scrolls = (one: Element) =>
      one.scrollWidth > one.clientWidth + 1 && !one.querySelector(':scope > table');
    return wide
      .filter((one) => one.clientWidth > 0 && scrolls(one))
      .map((one) => `${one.tagName} ${one.scrollWidth}`);
  });
}

async function walk(page: Page, server: Server, build: string) {
  for (const path of [...PAGES, ...OF_A_BUILD.map((ending) => `/builds/${build}${ending}`)]) {
    await page.goto(server.address + path);
    // What lies under a window is hidden from readers.
    await expect(page.getByRole(path.includes('?open=') ? 'dialog' : 'main')).toBeVisible();
    if (path.endsWith(build)) await expectFigures(page);
    await page.waitForLoadState('networkidle');
    expect(await sideways(page), path).toEqual([]);
  }
}

test('at 320 px nothing but tables goes sideways', async ({ page, server }) => {
  test.setTimeout(240_000);
  await page.setViewportSize({ width: 320, height: 640 });
  const build = await server.makeBuild('Narrow', undefined, { lowest: '30 Hz' });
  await walk(page, server, build.id);
});

test('text that is twice as large is still read, and follows the reader’s browser', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Large text', undefined, { lowest: '30 Hz' });
  await openBuild(page, server, build.id);
  const size = () =>
    page
      .getByRole('list', { name: 'Figures' })
      .evaluate((list) => Number.parseFloat(getComputedStyle(list).fontSize));
  const usual = await size();
  // As a reader sets it for all pages.
  await page.evaluate(() => document.documentElement.style.setProperty('font-size', '175%'));
  expect((await size()) / usual).toBeCloseTo(2, 1);
  expect(await sideways(page)).toEqual([]);
  await expect(page.getByRole('textbox', { name: 'Volume Vb' })).toBeVisible();
});

test('who thinks in inches and cubic feet reads fractions and feet, and no thousandths', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Inches', undefined, { lowest: '30 Hz' });
  await openBuild(page, server, build.id);
  await page.getByRole('button', { name: 'Units' }).click();
  const dialog = page.getByRole('dialog', { name: 'Units' });
  for (const [name, unit] of [
    ['Length', 'in'],
    ['Volume', 'cuft'],
  ] as const) {
    await dialog.getByRole('combobox', { name }).first().selectOption(unit);
  }
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Box' }).click();
  const text = await page.getByRole('main').innerText();
  expect(text).toMatch(/\d+ \d+\/\d+ in\b/);
  expect(text).toMatch(/\d cu ft|\d cuft/);
  // A size in inches is a fraction, not the decimals of a converted millimetre.
  expect(text.match(/\d+\.\d{3,} in\b/g) ?? []).toEqual([]);
  expect(text.match(/\d mm\b/g) ?? []).toEqual([]);
});
