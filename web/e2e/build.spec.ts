import { readFileSync } from 'node:fs';
import { violated } from './axe';
import { expect, openBuild, test } from './support';

test('the boards are cut as their joints say, drawn with their holes, and leave as a list', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Boards');
  await openBuild(page, server, build.id);
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Build' }).click();
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

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Cut list (CSV)' }).click();
  const table = readFileSync(await (await download).path(), 'utf8').split('\n');
  expect(table[0]).toBe('number,name,count,width_mm,height_mm,thickness_mm,material,bevels,holes');
  expect(table.find((row) => row.includes(',front,'))).toMatch(/driver dia \d/);
});
