import type { Page } from '@playwright/test';
import type { Build } from '../src/schema/types';
import { expect, expectFigures, test } from './support';

const found = (page: Page) => page.getByRole('row').filter({ has: page.locator('th[scope=row]') });

/** From a fresh build over a template brief to a driver that was found and its tuned cabinet. */
test('a template’s brief leads to a driver and a variant that keeps what its row says', async ({
  page,
  server,
}) => {
  await page.goto(server.address);
  await page.getByRole('textbox', { name: 'Name of a new build' }).fill('Film corner');
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByRole('button', { name: 'Write the brief' }).click();
  const dialog = page.getByRole('dialog', { name: 'The brief' });
  await dialog.getByRole('button', { name: /^Home, music/ }).click();
  await dialog.getByRole('button', { name: 'Save and find drivers' }).click();
  await expect(page.getByText(/^\d+ drivers looked at\.$/)).toBeVisible();
  await expect(page.getByText(/\d+ of \d+ cabinets reach everything/)).toBeVisible();
  const first = found(page).first();
  await expect(first).toContainText('meets everything');
  const words = (await first.innerText()).replaceAll('\u00a0', ' ');
  const clean = /([\d.]+) dB/.exec(words)?.[1] ?? 'no level';
  const name = (await first.getByRole('rowheader').locator('b').innerText()).trim();
  await first.getByRole('button', { name: /^Try this design/ }).click();
  await expectFigures(page);
  const figures = page.getByRole('list', { name: 'Figures' });
  await expect(figures.getByRole('button', { name: /The brief/ })).toContainText('all met');
  await expect(figures.getByRole('button', { name: /^Loudness/ })).toContainText(`${clean} dB`);
  await expect(page.getByRole('textbox', { name: 'Name of the variant' })).toHaveValue(
    new RegExp(`^${name}`),
  );
});

test('what holds a driver back is told, and why it is not among the best', async ({ page, server }) => {
  await page.goto(server.address);
  await page.getByRole('link', { name: /^Pit organ/ }).click();
  await expectFigures(page);
  await page.getByRole('button', { name: 'Variant', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Found for the brief' }).click();
  await expect(page.getByText(/^\d+ drivers looked at\.$/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Kind of cabinet' }).selectOption('sealed');
  const rows = found(page);
  await expect(rows.first()).toContainText('Sealed');
  await expect(rows.filter({ hasText: 'Ported' })).toHaveCount(0);
  await expect(rows.last()).toContainText(/short|too high|sag|hump/);

  const why = page.getByRole('textbox', { name: 'Why not' });
  await why.fill('wren 130/4');
  await why.press('Enter');
  const closer = page.getByRole('region', { name: 'Wren 130/4 in every cabinet' });
  await expect(closer).toContainText('dB short');
  await expect(closer.getByRole('listitem').filter({ has: page.getByRole('heading') })).toHaveCount(5);

  // The trade-off is walked with the keys alone.
  const plane = page.getByRole('slider', { name: /^Best trade-offs/ });
  await plane.focus();
  await page.keyboard.press('ArrowRight');
  await expect(plane).toHaveAttribute('aria-valuetext', /\d l, [\d.]+ Hz, [\d.]+ dB/);
  const before = await plane.getAttribute('aria-valuetext');
  await page.keyboard.press('ArrowRight');
  await expect(plane).not.toHaveAttribute('aria-valuetext', before ?? '');
});

test('a search is begun again for more drivers, and says when its brief is no longer the build’s', async ({
  page,
  server,
}) => {
  // Two searches that draw folded horns, beside whatever else the machine does.
  test.setTimeout(150_000);
  const finished = page.getByText(/^\d+ drivers looked at\.$/);
  const builds = await server.call<Build[]>('GET', '/builds');
  const dance = builds.find((build) => build.name === 'Barn dance');
  await page.goto(`${server.address}/builds/${dance?.id}/find`);
  await expect(finished).toBeVisible({ timeout: 60_000 });
  await page.getByRole('combobox', { name: 'How many drivers in a cabinet' }).selectOption('2');
  await page.getByRole('button', { name: 'Search again' }).click();
  await expect(finished).toBeVisible({ timeout: 60_000 });
  await found(page)
    .first()
    .getByRole('button', { name: /^Try this design/ })
    .click();
  await expectFigures(page);
  const opened = await server.open(dance?.id ?? '');
  const { driver_array } = opened.variants.at(-1)?.content ?? {};
  expect(Number(driver_array?.series ?? 1) * Number(driver_array?.parallel ?? 1)).toBe(2);

  await page.keyboard.press('Alt+Shift+J');
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
  const job = page.getByRole('row').filter({ hasText: 'Drivers for a brief: Barn dance' });
  await expect(job).toHaveCount(1);
  // Its boxes are drawn once all drivers were looked at.
  await expect(job).toContainText('Finished', { timeout: 60_000 });
  await page.goBack();

  await page.getByRole('button', { name: /The brief/ }).click();
  const dialog = page.getByRole('dialog', { name: 'The brief' });
  await dialog.getByRole('textbox', { name: 'Lowest note' }).fill('40 Hz');
  await dialog.getByRole('textbox', { name: 'Lowest note' }).press('Enter');
  await dialog.getByRole('button', { name: 'Save and find drivers' }).click();
  await expect(page.getByText('The brief was changed after this search')).toBeVisible();
});

test('drivers are compared in the same box and each in its own', async ({ page, server }) => {
  await page.goto(`${server.address}/drivers`);
  const compare = page.getByRole('button', { name: /^Compare( \d)?$/ });
  await expect(compare).toBeDisabled();
  for (const name of ['Heron 250/4', 'Mole 250/4', 'Coot 250/4'])
    await page.getByLabel(`Compare ${name}`).check();
  await compare.click();
  await expect(page.getByRole('heading', { name: '3 drivers, all else equal' })).toBeVisible();
  const row = page.getByRole('row', { name: /^Mole 250\/4/ });
  await expect(row).toContainText('Hz');
  const same = row.getByRole('cell').first();
  const before = await same.innerText();
  const volume = page.getByRole('textbox', { name: 'Volume of the same box' });
  await volume.fill('20 l');
  await volume.press('Enter');
  await expect(same).not.toHaveText(before);
  await expect(same).toHaveText('20');
  await page.getByRole('combobox', { name: 'Kind of cabinet' }).selectOption('sealed');
  await expect(page.getByRole('textbox', { name: 'Tuning of the same box' })).toHaveCount(0);
  await page.getByRole('radio', { name: 'Each in its own' }).click();
  await expect(page.getByRole('region', { name: 'SPL' })).toContainText('Coot 250/4');
});
