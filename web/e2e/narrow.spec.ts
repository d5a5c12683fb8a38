// Small screens, large text, and other units.

import type { Page } from '@playwright/test';
import { expect, expectFigures, openBuild, type Server, test } from './support';

const PAGES = ['/', '/start?from=woofer', '/start?from=wish', '/drivers', '/jobs', '/help/figures'];
const OF_A_BUILD = [
  '',
  '/box',
  '/signal',
  '/place',
  '/find',
  '/build',
  '/build?show=panels',
  '/build?show=sheets',
  '/build?show=holes',
  '/build?show=steps',
  '/build?show=calendar',
  '/build?show=workshop',
  '/measure',
  '/measure?show=compare',
  '/measure?show=learned',
  '?open=brief',
  '?open=driver',
  '?open=family',
  '?open=sweep',
  '?open=compare',
  '?open=scale',
  '?open=spread',
  '?open=kit',
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

/** Lengths, volumes, masses and areas that who thinks in inches would have to convert. */
async function metric(page: Page): Promise<string[]> {
  const read = await page.evaluate(() => {
    const root = document.querySelector('[role="dialog"]') ?? document.querySelector('main') ?? document.body;
    const fields = [...root.querySelectorAll('input')].map(({ value }) => value);
    const words = [...root.querySelectorAll('option, svg text')].map(({ textContent }) => textContent);
    return [(root as HTMLElement).innerText, ...fields, ...words].join('\n');
  });
  return read.match(/(?<![\w.,])[\d.,]+ ?(mm²|cm²|mm|cm|l|kg|g)(?![\w/²³·])/g) ?? [];
}

async function walk(page: Page, server: Server, build: string) {
  for (const path of [...PAGES, ...OF_A_BUILD.map((ending) => `/builds/${build}${ending}`)]) {
    await page.goto(server.address + path);
    // What lies under a window is hidden from readers.
    await expect(page.getByRole(path.includes('?open=') ? 'dialog' : 'main')).toBeVisible();
    if (path.endsWith(build)) await expectFigures(page);
    await page.waitForLoadState('networkidle');
    expect(await sideways(page), path).toEqual([]);
    expect(await metric(page), path).toEqual([]);
  }
}

test('at 320 px nothing but tables goes sideways, and in inches nothing is left in millimetres', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await page.setViewportSize({ width: 320, height: 640 });
  const units = { length: 'in', volume: 'cuft', area: 'in2', mass: 'oz' };
  await page.addInitScript(
    (state) => localStorage.setItem('oak-drum:units', state),
    JSON.stringify({ units, fields: {}, notes: false }),
  );
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

test('a phone shows what is short and the lowest note, and the other figures when asked', async ({
  page,
  server,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const build = await server.makeBuild('Phone', undefined, { lowest: '30 Hz', loudness: '130 dB' });
  await openBuild(page, server, build.id);
  const shown = () =>
    page.locator('[data-figure]:visible').evaluateAll((all) => all.map((one) => one.dataset.figure));
  const first = await shown();
  expect(first).toContain('brief-loudness');
  await page.getByRole('button', { name: /\d more figures/ }).click();
  const all = await shown();
  expect(all.length).toBeGreaterThan(first.length + 1);
  await page.getByRole('button', { name: 'Fewer figures' }).click();
  expect(await shown()).toEqual(first);
  // Where there is room all stand there at once.
  await page.setViewportSize({ width: 1280, height: 800 });
  expect(await shown()).toEqual(all);
  await expect(page.getByRole('button', { name: /more figures/ })).toBeHidden();
});
