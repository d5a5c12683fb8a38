// Pictures of the main views for the documentation: cargo xtask e2e --release -- --project=screenshots

import type { Build } from '../src/api/types';
import { expect, openBuild, test } from './support';

const FOLDER = new URL('../../docs/screenshots/', import.meta.url).pathname;

for (const theme of ['light', 'dark'] as const) {
  test(`main views, ${theme}`, async ({ page, server }) => {
    await page.addInitScript((name) => localStorage.setItem('oak-drum:theme', name), theme);
    const shoot = (name: string) => page.screenshot({ path: `${FOLDER}${name}-${theme}.png` });
    await page.goto(server.address);
    await expect(page.getByRole('heading', { name: 'Narrowboat nook' })).toBeVisible();
    await shoot('builds');
    const builds = await server.call<Build[]>('GET', '/builds');
    const nook = builds.find((build) => build.name === 'Narrowboat nook');
    await openBuild(page, server, nook?.id ?? '');
    await page.waitForTimeout(600);
    await shoot('workbench');
    await page.getByRole('button', { name: 'Show Long shelf in the lanes' }).click();
    await page.getByRole('button', { name: 'Work on Sealed, bench berth' }).click();
    await page.mouse.move(430, 300);
    await page.waitForTimeout(400);
    await shoot('workbench-sealed');
    await page.getByRole('button', { name: 'Work on Slot, all-round' }).click();
    await page.getByRole('button', { name: /^Kind of cabinet/ }).click();
    await expect(page.getByRole('list', { name: 'Schools' })).toContainText('QB3');
    await shoot('kind-of-cabinet');
    await page.keyboard.press('Escape');
    if (theme === 'light') {
      const dance = builds.find((build) => build.name === 'Barn dance');
      await openBuild(page, server, dance?.id ?? '');
      await page.getByRole('button', { name: 'Work on Barn horn' }).click();
      await page.waitForTimeout(900);
      await shoot('workbench-horn');
      await openBuild(page, server, nook?.id ?? '');
      await page.getByRole('button', { name: 'Work on Twin radiators' }).click();
      await page.waitForTimeout(900);
      await shoot('workbench-radiators');
      await page.getByRole('button', { name: 'Work on Slot, all-round' }).click();
    }
    await page
      .getByRole('button', { name: /^Driver / })
      .first()
      .click();
    await expect(page.getByRole('dialog')).toContainText('Otter');
    await shoot('choose-driver');
    await page.getByRole('button', { name: 'Type in a driver' }).click();
    for (const [label, value] of [
      ['Name', 'Kitchen find 10 in'],
      ['Re', '3.6 ohm'],
      ['Fs', '27 Hz'],
      ['Qms', '4.8'],
      ['Qes', '0.44'],
      ['Vas', '2.1 cuft'],
      ['Sd', '54 sq in'],
      ['Xmax', '9 mm'],
    ] as const) {
      await page.getByRole('textbox', { name: label, exact: true }).fill(value);
      await page.keyboard.press('Tab');
    }
    await page.waitForTimeout(300);
    await shoot('type-in-driver');
    await page.goto(`${server.address}/drivers`);
    await expect(page.getByRole('heading', { name: 'Drivers' })).toBeVisible();
    await page.waitForTimeout(300);
    await shoot('drivers');
  });
}
