// Pictures of the main views for the documentation: cargo xtask e2e -- --project=screenshots

import type { Build } from '../src/schema/types';
import { expect, openBuild, test } from './support';

const MEASURED = [
  'Driver in free air',
  'Driver with a mass on the cone',
  'Box with its port shut',
  'Finished box',
  'Close to the cone',
  'In the mouth of the port',
];

const FOLDER = new URL('../../docs/screenshots/', import.meta.url).pathname;

for (const theme of ['light', 'dark'] as const) {
  test(`main views, ${theme}`, async ({ page, server }) => {
    test.setTimeout(240_000);
    await page.addInitScript((name) => localStorage.setItem('oak-drum:theme', name), theme);
    const shoot = (name: string) => page.screenshot({ path: `${FOLDER}${name}-${theme}.png` });
    await page.goto(server.address);
    await expect(page.getByRole('heading', { name: 'Narrowboat nook' })).toBeVisible();
    if (theme === 'light') {
      // The small pictures of boxes are painted once nothing else is to be done.
      for (const picture of await page.locator('li canvas').all()) await expect(picture).toBeVisible();
      await shoot('builds');
      await page.goto(`${server.address}/start?from=woofer`);
      await page
        .getByRole('textbox', { name: 'Data sheet' })
        .fill(
          'Curlew 250/4\nFs 28 Hz\nRe 3,6 Ohm\nQms 5,4\nQes 0,38\nVas 63,3 Ltr\nSd 346 cm²\nXmax 11,5 mm\nRMS power 300 W',
        );
      await page.getByRole('button', { name: 'Use this woofer' }).click();
      await expect(page.getByRole('button', { name: 'Make this box' })).toBeVisible();
      await page.waitForTimeout(300);
      await shoot('start');
    }
    const builds = await server.call<Build[]>('GET', '/builds');
    const nook = builds.find((build) => build.name === 'Narrowboat nook');
    await openBuild(page, server, nook?.id ?? '');
    await page.waitForTimeout(600);
    await shoot('workbench');
    await page.getByRole('button', { name: 'Show Long shelf in the lanes' }).click();
    await page.getByRole('button', { name: 'Work on Sealed, bench berth' }).click();
    await page.mouse.move(430, 300);
    await page.waitForTimeout(400);
    if (theme === 'light') {
      await page.getByRole('button', { name: 'Work on Slot, all-round' }).click();
      await page.getByRole('link', { name: 'Box' }).click();
      await expect(page.getByRole('group', { name: 'Side section of the box' })).toBeVisible();
      await page.waitForTimeout(500);
      await shoot('box');
      await page.getByRole('link', { name: 'Signal' }).click();
      await page.getByRole('button', { name: 'Add: Protect the cone' }).click();
      await expect(page.getByRole('slider', { name: '1 High-pass, handle' })).toBeVisible();
      await page.waitForTimeout(600);
      await shoot('signal');
      await page.getByRole('button', { name: 'Undo' }).click();
      await page.getByRole('link', { name: 'Place' }).click();
      await expect(page.getByRole('img', { name: /^Level at/ })).toBeVisible();
      await page.waitForTimeout(600);
      await shoot('place');
      await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Build' }).click();
      await page.getByRole('radio', { name: 'Steps', exact: true }).click();
      await page.waitForTimeout(500);
      await shoot('build');
      await page.getByRole('link', { name: 'Curves' }).click();
    }
    await page.getByRole('button', { name: 'Work on Slot, all-round' }).click();
    await page.getByRole('button', { name: /^Kind of cabinet/ }).click();
    await expect(page.getByRole('list', { name: 'Starting points' })).toContainText('QB3');
    await expect(page.getByRole('radio', { name: 'Sealed' })).toContainText('short');
    if (theme === 'light') await shoot('kind-of-cabinet');
    await page.keyboard.press('Escape');
    if (theme === 'light') {
      await page.getByRole('button', { name: 'Work on Sealed, bench berth' }).click();
      await page.locator('[data-figure="brief-lowest"]').click();
      await expect(page.getByRole('region', { name: 'Ways to fix it' })).toContainText('→');
      await page.waitForTimeout(400);
      await shoot('mending');
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Work on Slot, all-round' }).click();
      await page.getByRole('button', { name: 'Slow motion' }).click();
      await page.getByRole('button', { name: 'At the tuning' }).click();
      await expect(page.getByRole('region', { name: 'Slow motion' })).toContainText('does the work');
      await page.waitForTimeout(900);
      await shoot('slow-motion');
      await page.getByRole('region', { name: 'Slow motion' }).getByRole('button', { name: 'Close' }).click();
    }
    if (theme === 'light') {
      const dance = builds.find((build) => build.name === 'Barn dance');
      await openBuild(page, server, dance?.id ?? '');
      await page.getByRole('button', { name: 'Work on Barn horn, folded' }).click();
      await page.waitForTimeout(900);
      await shoot('workbench-horn');
      await page.getByRole('link', { name: 'Box' }).click();
      await page.getByRole('tab', { name: 'Driver and ports' }).click();
      await expect(page.getByRole('region', { name: 'The folded path' })).toContainText('Built so');
      await page.waitForTimeout(500);
      await shoot('fold');
      await openBuild(page, server, nook?.id ?? '');
      await page.getByRole('link', { name: 'Box' }).click();
      await page.getByRole('button', { name: 'Work on Long shelf' }).click();
      await page.getByRole('radio', { name: '3-D' }).click();
      await page.waitForTimeout(3500);
      await shoot('turned');
      await page.getByRole('link', { name: 'Curves' }).click();
      await page.getByRole('button', { name: 'Work on Slot, all-round' }).click();
      await page.getByRole('button', { name: /^The brief/ }).click();
      await expect(page.getByRole('dialog')).toContainText('Bass guitar cabinet');
      await shoot('brief');
      await page.keyboard.press('Escape');
    }
    if (theme === 'light') {
      const organ = builds.find((build) => build.name === 'Pit organ');
      await openBuild(page, server, organ?.id ?? '');
      await page.getByRole('button', { name: 'Show Thirty-two foot in the lanes' }).click();
      await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Measure' }).click();
      await page.getByRole('radio', { name: 'Everything' }).click();
      for (const name of MEASURED) {
        const step = page.getByRole('article', { name, exact: true });
        await step.getByRole('button', { name: 'Measure', exact: true }).click();
        await expect(step.getByRole('button', { name: 'Measure again' })).toBeVisible();
      }
      await page.getByRole('radio', { name: 'Findings' }).click();
      await expect(page.getByText('near fields, cone and port')).toBeVisible();
      await expect(page.getByText('Working out the newest measurement…')).toHaveCount(0);
      await page.waitForTimeout(600);
      await shoot('measure');
      await page.goto(`${server.address}/builds/${nook?.id}/find`);
      await expect(page.getByText(/^\d+ drivers looked at\.$/)).toBeVisible({ timeout: 90_000 });
      await page.locator('[data-found] button').first().click();
      await expect(page.getByRole('region', { name: /in every cabinet$/ })).toContainText('asked');
      await page.waitForTimeout(600);
      await shoot('find');
      await page.goto(`${server.address}/drivers`);
      for (const name of ['Heron 250/4', 'Mole 250/4', 'Coot 250/4', 'Hound 300/4'])
        await page.getByLabel(`Compare ${name}`).check();
      await page.getByRole('button', { name: 'Compare 4' }).click();
      await expect(page.getByRole('row', { name: /^Mole/ })).toContainText('Hz');
      await page.waitForTimeout(900);
      await shoot('compare');
    }
    await page.goto(`${server.address}/drivers`);
    await expect(page.getByRole('heading', { name: 'Drivers' })).toBeVisible();
    await page.waitForTimeout(300);
    if (theme === 'light') await shoot('drivers');
  });
}
