import { expect, openBuild, test } from './support';

test('figures stand as the brief uses a variant or on the bench, and say so wherever they are shown', async ({
  page,
  server,
}) => {
  const nook = await server.importDemo('narrowboat-nook', 'Nook in conditions');
  await openBuild(page, server, nook.id);
  const words = page.locator('[data-conditions]');
  const card = page.getByRole('button', { name: 'Work on Slot, all-round' });
  const drive = page.getByRole('textbox', { name: 'Drive' });
  await expect(words).toHaveText('160 W into 4 Ω (25.3 V), against a wall');
  await expect(card).toContainText('114 dB');
  await expect(drive).toHaveValue('25.3 V');
  const judged = page.getByRole('list', { name: 'Figures' }).getByRole('button', { name: /asked SPL/ });
  const before = await judged.allTextContents();
  expect(before).toHaveLength(2);

  await page.getByRole('radio', { name: 'On the bench' }).click();
  await expect(words).toHaveText('2.83 V, half space');
  await expect(card).toContainText('89 dB');
  // There is nothing to set there, and what the brief asks is still judged as the brief uses it.
  await expect(drive).toBeHidden();
  expect(await judged.allTextContents()).toEqual(before);

  // Windows, tables and files are in the conditions that are shown.
  await page.getByRole('button', { name: 'Lanes', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Values as a table …' }).click();
  await expect(page.getByRole('dialog', { name: 'Values of the lanes' })).toContainText('2.83 V, half space');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Alt+q');
  const sheet = page.getByRole('dialog', { name: /worked out/ });
  await expect(sheet).toContainText('2.83 V, half space');
  await expect(sheet).toContainText('89.4 dB');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'More for Slot, all-round' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Response table (CSV)' }).click();
  expect((await download).url()).toContain('basis=bench');

  // It stays so, and a key turns it back.
  await page.reload();
  await expect(words).toHaveText('2.83 V, half space');
  await page.keyboard.press('Alt+r');
  await expect(words).toHaveText('160 W into 4 Ω (25.3 V), against a wall');

  // A drive of its own is the variant's, and the others keep theirs.
  await drive.fill('40 W');
  await drive.press('Enter');
  await expect(words).toContainText('Slot, all-round: 40 W into 4 Ω (12.6 V), against a wall; Sealed');
  await drive.fill('');
  await drive.press('Enter');
  await expect(words).toHaveText('160 W into 4 Ω (25.3 V), against a wall');
});
