import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, openBuild, test } from './support';

async function choose(page: Page, button: string, name: string, mimeType: string, text: string | Buffer) {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: button }).click();
  await (await chooser).setFiles({ name, mimeType, buffer: Buffer.from(text) });
}

test('drivers come in by table: all rows, or none with a report for each bad one', async ({
  page,
  server,
}) => {
  await page.goto(`${server.address}/drivers`);
  const count = (await server.drivers()).length;
  const header = 'name,re (ohm),fs (Hz),qms,qes,vas (l),sd (cm2)\n';
  const table = `${header}Newt 200,3.4,31,5,0.4,35,214\nBroken 200,0,31,5,0.4,35,214\nBent 200,3.4,wide,5,0.4,35,214\n`;
  await choose(page, 'Import CSV', 'drivers.csv', 'text/csv', table);
  const report = page.getByRole('region', { name: 'Import' });
  await expect(report).toContainText('Nothing was imported: 2 values in 3 rows');
  await expect(report.getByRole('row', { name: /3 Broken 200 re/ })).toContainText('0.1 ohm to 100 ohm');
  await expect(report.getByRole('row', { name: /4 Bent 200 fs/ })).toContainText('"wide" is not a number');
  expect((await server.drivers()).length).toBe(count);

  await choose(page, 'Import CSV', 'drivers.csv', 'text/csv', `${header}Newt 200,3.4,31,5,0.4,35,214\n`);
  await expect(report).toContainText('1 drivers were imported');
  await expect(page.getByRole('row', { name: /Newt 200/ })).toBeVisible();

  await choose(page, 'Import CSV', 'cat.csv', 'text/csv', Buffer.from([0, 255, 254, 0, 17]));
  await expect(page.getByRole('alert')).toContainText('The table cannot be read');
});

test('a driver is changed in the library, archived and brought back', async ({ page, server }) => {
  await page.goto(`${server.address}/drivers`);
  await page.getByRole('searchbox').fill('gander');
  await page.getByRole('button', { name: 'Open Gander 300/8' }).click();
  await page.getByRole('textbox', { name: 'Notes' }).fill('Broken in.');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('row', { name: /Gander/ })).toContainText('Broken in.');
  await page.getByRole('button', { name: 'Open Gander 300/8' }).click();
  await page.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByRole('row', { name: /Gander/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
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
  expect(JSON.parse(design)).toEqual(build.variants[0]?.document);
  expect((await save('Response table (CSV)')).split('\n')[0]).toContain('frequency_hz,level_db');

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
    ['{"format": "oak-drum/driver", "version": 1}', 'oak-drum/build'],
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
  await expect(page.locator('[data-figure="f3"]')).toBeVisible();
  await page.getByRole('link', { name: 'Builds' }).click();
  await page.getByRole('button', { name: 'Archive Loft organ' }).click();
  await expect(page.getByRole('heading', { name: 'Loft organ' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByRole('heading', { name: 'Loft organ' })).toHaveCount(1);
});
