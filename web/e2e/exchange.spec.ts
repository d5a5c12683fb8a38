import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, expectFigures, openBuild, test } from './support';

async function choose(page: Page, button: string, name: string, mimeType: string, text: string | Buffer) {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: button }).click();
  await (await chooser).setFiles({ name, mimeType, buffer: Buffer.from(text) });
}

test('a file of drivers is looked at first, and taken whole or without its bad rows', async ({
  page,
  server,
}) => {
  await page.goto(`${server.address}/drivers`);
  const count = (await server.drivers()).length;
  const header = 'Model;Res.;DCR;Qms;Qes;Vas cu ft;Sd cm2\n';
  const table = `${header}Newt 200;31,5;3,4;5;0,4;1,2;214\nBroken 200;31;0;5;0,4;1,2;214\nBent 200;wide;3,4;5;0,4;1,2;214\n`;
  await choose(page, 'Import', 'drivers.csv', 'text/csv', table);
  const dialog = page.getByRole('dialog', { name: 'Import drivers.csv' });
  await expect(dialog.getByText('3 rows, 0 can be taken')).toBeVisible();
  await dialog.getByRole('combobox', { name: 'What Res. means' }).selectOption({ label: 'Fs' });
  await expect(dialog.getByText('3 rows, 1 can be taken')).toBeVisible();
  await expect(dialog.getByRole('row', { name: /3 Broken 200 re/ })).toContainText('0.1 ohm to 100 ohm');
  await expect(dialog.getByRole('row', { name: /4 Bent 200 fs/ })).toContainText('not a number');
  await expect(dialog.getByRole('region', { name: /The first drivers/ })).toContainText('1,2 cuft');
  await expect(dialog.getByRole('button', { name: 'Import all' })).toBeDisabled();
  expect((await server.drivers()).length).toBe(count);
  await dialog.getByRole('button', { name: 'Skip the bad rows and import 1' }).click();
  await expect(page.getByText('1 driver was imported')).toBeVisible();
  await expect(page.getByRole('row', { name: /Newt 200/ })).toBeVisible();

  await choose(page, 'Import', 'drivers.csv', 'text/csv', table.split('\n').slice(0, 2).join('\n'));
  await dialog.getByRole('combobox', { name: 'What Res. means' }).selectOption({ label: 'Fs' });
  await dialog.getByText(/is there already|are there already/).click();
  await expect(dialog.getByText('Newt 200 is like Newt 200 of the library, by its name')).toBeVisible();
  await dialog.getByRole('button', { name: 'Back' }).click();

  await choose(page, 'Import', 'cat.csv', 'text/csv', Buffer.from([0, 255, 254, 0, 17]));
  await expect(page.getByRole('alert')).toContainText('not UTF-8');
});

test('a driver is found by bounds, sorted, tagged, and its doubtful value mended', async ({
  page,
  server,
}) => {
  await page.goto(`${server.address}/drivers`);
  await page.getByRole('button', { name: 'Filters …' }).click();
  const bound = page.getByRole('textbox', { name: 'Sd, at least' });
  await bound.fill('500');
  await bound.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('row', { name: /Heron 250/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Fs Hz' }).click();
  await expect(page.getByRole('columnheader', { name: 'Fs Hz' })).toHaveAttribute('aria-sort', 'ascending');
  await expect(page.getByRole('row').nth(1)).toContainText('Ox 460');
  await page.getByRole('button', { name: 'Remove the filter on Sd' }).click();

  await page.getByRole('button', { name: 'Open Heron 250/4' }).click();
  const bl = page.getByRole('textbox', { name: 'Bl', exact: true });
  await bl.fill('20 T m');
  await bl.press('Enter');
  await expect(page.getByText('Bl is stated as 20 T m; the other values give 12.6 T m')).toBeVisible();
  await page.getByRole('button', { name: 'Take Bl 12.6 T m' }).click();
  await expect(page.getByText('Bl was 20 T m.')).toBeVisible();
  const tags = page.getByRole('textbox', { name: 'Tags' });
  await tags.fill('boat, quiet');
  await page.getByRole('button', { name: 'Save changes' }).click();
  await page.getByRole('combobox', { name: 'Tag' }).selectOption('boat');
  await expect(page.getByRole('row', { name: /Heron 250\/4/ })).toContainText('quiet');
  await expect(page.getByText('1 driver', { exact: true })).toBeVisible();
});

test('a driver is changed in the library, archived and brought back', async ({ page, server }) => {
  await page.goto(`${server.address}/drivers`);
  await page.getByRole('searchbox').fill('gander');
  await page.getByRole('button', { name: 'Open Gander 300/8' }).click();
  await page.getByRole('textbox', { name: 'Notes' }).fill('Broken in.');
  await page.getByRole('button', { name: 'Save changes' }).click();
  await expect(page.getByRole('row', { name: /Gander/ })).toContainText('Broken in.');
  await page.getByRole('button', { name: 'Open Gander 300/8' }).click();
  await page.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByRole('row', { name: /Gander/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByRole('row', { name: /Gander/ })).toHaveCount(1);
});

test('a variant goes out as a design file and its response as a table, and the file comes in again', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Files');
  await openBuild(page, server, build.id);
  const save = async (item: string) => {
    await page.getByRole('button', { name: 'More for Slot, all-round', exact: true }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: item }).click();
    return readFileSync(await (await download).path(), 'utf8');
  };
  const design = await save('Design file (JSON)');
  expect(JSON.parse(design)).toEqual(build.variants[0]?.content);
  const [said, header] = (await save('Response table (CSV)')).split('\n');
  expect(said).toMatch(/^# .* V\)?, half space$/);
  expect(header).toContain('frequency_hz,level_db');

  const renamed = design.replace('"Slot, all-round"', '"Came in"');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Variant', exact: true }).click();
  await page.getByRole('menuitem', { name: 'From a design file' }).click();
  await (await chooser).setFiles({
    name: 'd.json',
    mimeType: 'application/json',
    buffer: Buffer.from(renamed),
  });
  await expect(page.getByRole('button', { name: 'Work on Came in' })).toBeVisible();
});

test('files that are none are refused in words', async ({ page, server }) => {
  await page.goto(server.address);
  const files: [string, string][] = [
    ['not json at all', 'x.json is not JSON'],
    ['{"format": "oak-drum/driver", "version": 2}', 'oak-drum/build'],
    ['{"format": "oak-drum/build", "version": 9, "name": "Z", "variants": []}', 'written by a newer program'],
  ];
  for (const [text, told] of files) {
    await choose(page, 'Open a build file', 'x.json', 'application/json', text);
    await expect(page.getByRole('alert')).toContainText(told);
  }
});

test('a build file comes in, and a build is archived and brought back', async ({ page, server }) => {
  await page.goto(server.address);
  const demo = readFileSync(new URL('../../demo/builds/pit-organ.json', import.meta.url), 'utf8');
  const text = demo.replace('"Pit organ"', '"Loft organ"');
  await choose(page, 'Open a build file', 'b.json', 'application/json', text);
  await expectFigures(page);
  await page.getByRole('link', { name: 'Builds' }).click();
  await page.getByRole('button', { name: 'Archive Loft organ' }).click();
  await expect(page.getByRole('heading', { name: 'Loft organ' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByRole('heading', { name: 'Loft organ' })).toHaveCount(1);
  // The message goes; the archive stays.
  await page.getByRole('button', { name: 'Archive Loft organ' }).click();
  await expect(page.getByRole('heading', { name: 'Loft organ' })).toHaveCount(0);
  await page
    .getByRole('radio', { name: 'Archive' })
    .or(page.getByRole('button', { name: 'Archive', exact: true }))
    .click();
  await page.getByRole('button', { name: 'Bring back Loft organ' }).click();
  await expect(page.getByRole('heading', { name: 'Loft organ' })).toHaveCount(0);
  await page
    .getByRole('radio', { name: 'Current' })
    .or(page.getByRole('button', { name: 'Current' }))
    .click();
  await expect(page.getByRole('heading', { name: 'Loft organ' })).toHaveCount(1);
});
