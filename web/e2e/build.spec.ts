import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { violated } from './axe';
import { expect, openBuild, test } from './support';

const sheet = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).click();

async function openStage(page: Page) {
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Build' }).click();
  await expect(page.getByRole('radio', { name: 'Parts', exact: true })).toBeVisible();
}

async function downloaded(page: Page, button: string): Promise<Buffer> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: button }).click();
  return readFileSync(await (await download).path());
}

test('the boards are cut as their joints say, drawn with their holes, and leave as a list', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Boards');
  await openBuild(page, server, build.id);
  await openStage(page);
  await sheet(page, 'Panels');
  const board = (name: string) => page.getByRole('row', { name: new RegExp(`\\b${name}\\b`) }).first();
  await expect(board('top')).toContainText('600 mm');
  await page.getByRole('button', { name: 'front' }).click();
  const drawing = page.getByRole('region', { name: /^Panel \d+: front$/ });
  await expect(
    drawing.getByRole('img', { name: 'front as seen from outside, 600 mm by 360 mm' }),
  ).toBeVisible();
  await expect(drawing.getByRole('row', { name: /^driver/ })).toContainText('through');
  await expect(drawing.getByRole('row', { name: /^left/ })).toContainText('reaches over it');
  await violated(page, 'panels');

  // Other boards reach over: the front is as much smaller as two boards are thick.
  await page.getByRole('radio', { name: 'Top and bottom' }).click();
  await expect(drawing.getByRole('row', { name: /^top/ })).toContainText('ends at its inner side');
  await expect(board('front')).toContainText('324 mm');
  await page.getByRole('radio', { name: 'None: mitred' }).click();
  await expect(board('front')).toContainText('45.0°');
  await expect
    .poll(async () => (await server.open(build.id)).variants[0]?.content.body?.overlap)
    .toBe('mitred');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(board('front')).toContainText('square');

  // In rabbets the side is longer by what it stands in; one edge alone may be joined otherwise.
  await page.getByRole('radio', { name: 'Front and back' }).click();
  await page.getByRole('combobox', { name: 'Joints of the outside' }).selectOption('rabbet');
  await expect(drawing.getByRole('row', { name: /^left.*9 mm/ })).toBeVisible();
  await page.getByRole('combobox', { name: 'Joint with the left' }).selectOption('butt');
  await expect(drawing.getByRole('row', { name: /^left.*9 mm/ })).toHaveCount(0);
  await expect
    .poll(async () => (await server.open(build.id)).variants[0]?.content.body?.joints)
    .toEqual([{ between: ['front', 'left'], joinery: 'butt' }]);

  const table = (await downloaded(page, 'Cut list (CSV)')).toString().split('\n');
  expect(table[0]).toBe('number,name,count,width_mm,height_mm,thickness_mm,material,bevels,holes');
  expect(table.find((row) => row.includes(',front,'))).toMatch(/driver dia \d/);
  expect((await downloaded(page, 'DXF')).toString()).toContain('LWPOLYLINE');
});

test('parts are bought by packs, at the workshop’s own prices, and cost what the chip says', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Parts', undefined, { lowest: '35 Hz', budget: 400 });
  await openBuild(page, server, build.id);
  await openStage(page);
  const chip = page.getByRole('button', { name: /Cost of the parts/ });
  const together = page.getByText(/^Together/);
  const cost = async () => (await together.textContent())?.replace(/\D/g, '') ?? '';
  await expect(together).toBeVisible();
  await expect(chip).toContainText(await cost());
  await violated(page, 'parts');

  const price = page.getByRole('textbox', { name: 'Price of a pack: Wood glue, PVA' });
  await price.fill('55');
  await price.press('Enter');
  await expect(page.getByRole('row', { name: /Wood glue/ })).toContainText('55');
  await expect.poll(async () => (await chip.textContent())?.includes(await cost())).toBe(true);
  const stock = page.getByRole('textbox', { name: 'In stock: Wood glue, PVA' });
  await stock.fill('1000');
  await stock.press('Enter');
  await expect(page.getByRole('row', { name: /Wood glue/ })).toContainText('none');
  await page.getByRole('checkbox', { name: /Rubber feet bought/ }).check();
  await page.getByRole('checkbox', { name: 'Only what is still to be bought' }).check();
  await expect(page.getByRole('row', { name: /Rubber feet|Wood glue/ })).toHaveCount(0);
  const prices = (await downloaded(page, 'Prices (CSV)')).toString();
  expect(prices).toMatch(/^glue\.pva,55,1000,no$/m);

  // What the list says of the glue outlives a reload.
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Price of a pack: Wood glue, PVA' })).toHaveValue('55');
});

test('boards lie on sheets with every cut, and a longer search is kept', async ({ page, server }) => {
  const build = await server.makeBuild('Sheets');
  await openBuild(page, server, build.id);
  await openStage(page);
  await sheet(page, 'Sheets');
  await expect(page.getByRole('img', { name: /^Sheet of .* with \d+ boards$/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /cross-cut|rip/ }).first()).toContainText('mm');
  await violated(page, 'sheets');
  await page.getByRole('button', { name: 'Search longer' }).click();
  await expect(page.getByText(/, searched/).first()).toBeVisible({ timeout: 30_000 });
  expect((await downloaded(page, 'SVG')).toString()).toContain('<svg');

  await page.getByRole('button', { name: 'Sheets and saw…' }).click();
  const kerf = page.getByRole('textbox', { name: 'Kerf' });
  await kerf.fill('30 mm');
  await kerf.press('Enter');
  await expect(page.getByText(/30 mm is outside/).first()).toBeVisible();
  await kerf.fill('2 mm');
  await kerf.press('Enter');
  await page.getByRole('button', { name: 'Add a sheet or offcut' }).click();
  await page.getByRole('textbox', { name: 'At hand of sheet 1' }).fill('1');
  await page.getByRole('textbox', { name: 'At hand of sheet 1' }).press('Enter');
  await violated(page, 'workshop');
  await sheet(page, 'Sheets');
  await expect(page.getByText(/0 sheets, 0,/)).toBeVisible();
});

test('steps are ticked, what is measured flows back, and what was printed grows old', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Steps');
  await openBuild(page, server, build.id);
  await openStage(page);
  await sheet(page, 'Steps');
  await violated(page, 'steps');
  expect((await downloaded(page, 'This sheet (PDF)')).subarray(0, 5).toString()).toBe('%PDF-');
  await page.getByRole('checkbox', { name: 'Look at what arrived done' }).check();
  await expect(page.getByText(/^1 of \d+ done/)).toBeVisible();

  // A board that is thinner than drawn: every size follows, and the pages say so.
  await page.getByRole('button', { name: /^Measure the MDF/ }).click();
  const measured = page.getByRole('textbox', { name: 'Measured thickness, measured' });
  await measured.fill('17.4 mm');
  await measured.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'is out of date' })).toContainText('17.4');
  await expect
    .poll(async () => (await server.open(build.id)).variants[0]?.content.measured?.boards?.[0]?.measured)
    .toBe('17.4 mm');
  await sheet(page, 'Panels');
  await expect(page.getByRole('row', { name: /\bfront\b/ }).first()).toContainText('17.4 mm');

  // A check that failed is put down in the log, with its fix.
  await sheet(page, 'Steps');
  await page.getByRole('button', { name: 'Test circle in scrap' }).click();
  await page.getByRole('button', { name: 'The check failed…' }).click();
  await expect(page.getByRole('textbox', { name: 'Fix' })).toHaveValue(/Correct the radius/);
  await violated(page, 'log');
  // A picture of it is kept with the entry and comes back after a reload.
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Add a photo…' }).click();
  await (await chooser).setFiles('../docs/screenshots/box-light.png');
  const photo = page.getByRole('article').getByRole('img');
  await expect(photo).toHaveAttribute('src', /\/photos\/[0-9a-f]{64}$/);
  await expect
    .poll(() => photo.evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBeGreaterThan(100);
  await page.getByRole('textbox', { name: 'Hours' }).fill('2');
  await page.getByRole('textbox', { name: 'Hours' }).press('Enter');
  await expect(page.getByText(/2\.0 h of/)).toBeVisible();
  await page.getByRole('searchbox', { name: 'Search the log' }).fill('no such thing');
  await expect(page.getByRole('article')).toHaveCount(0);
  await page.getByRole('searchbox', { name: 'Search the log' }).fill('scrap');
  await expect(page.getByRole('article')).toHaveCount(1);
});

test('the calendar moves with the free hours and leaves as a file', async ({ page, server }) => {
  const build = await server.makeBuild('Calendar');
  await openBuild(page, server, build.id);
  await openStage(page);
  await sheet(page, 'Calendar');
  await violated(page, 'calendar');
  const days = page.getByRole('region', { name: 'Calendar' }).getByRole('heading');
  const before = await days.count();
  await page.getByRole('spinbutton', { name: 'Free hours on Mon' }).fill('10');
  await expect.poll(() => days.count()).toBeLessThan(before + 1);
  expect((await downloaded(page, 'Calendar (.ics)')).toString()).toContain('BEGIN:VEVENT');
  await page.getByLabel('Begin').fill('2199-12-01');
  await expect(days.first()).toContainText(/Dec/);
});

test('a terminal without a hole gets one, and a kit is compared with own wood', async ({ page, server }) => {
  const build = await server.makeBuild('Holes and kit');
  await openBuild(page, server, build.id);
  await openStage(page);
  await sheet(page, 'Holes');
  await page.getByRole('button', { name: 'Put it in' }).click();
  await expect(page.getByRole('row', { name: /terminal cup/ })).toContainText('76 mm');
  await expect(page.getByRole('button', { name: 'Put it in' })).toHaveCount(0);
  await expect(page.getByText('A hole of 76 mm across for the terminal cup in the back')).toBeVisible();
  await expect
    .poll(async () => (await server.open(build.id)).variants[0]?.content.body?.items?.[0]?.name)
    .toBe('terminal cup');

  await sheet(page, 'Panels');
  await expect(page.getByText(/^Cut to whole millimetres, .* net volume/)).toBeVisible();

  await sheet(page, 'Workshop');
  await page.getByRole('textbox', { name: 'Kit costs' }).fill('120');
  await page.keyboard.press('Enter');
  await sheet(page, 'Parts');
  const kit = page.getByRole('region', { name: 'Kit or own wood' });
  await expect(kit.getByRole('row', { name: /From the kit/ })).toContainText('120');
  await expect(kit).toContainText('The kit saves: cut the boards');
});
