import { expect, kept, openBuild, test } from './support';

test('drivers are wired from a list of every way, and each change says what it does in the same box', async ({
  page,
  server,
}) => {
  const library = await server.drivers();
  const perch = library.find((driver) => driver.document.name === 'Perch 165/2+2');
  if (!perch) throw new Error('no driver with two coils');
  const build = await server.makeBuild('Wired', [
    {
      format: 'oak-drum/design',
      version: 2,
      name: 'Two coils',
      driver: perch.document,
      enclosure: { family: 'sealed', volume: '20 l' },
    },
  ]);
  await openBuild(page, server, build.id);
  await page.getByRole('tab', { name: 'Drivers' }).click();
  const mass = page.getByRole('textbox', { name: 'Added mass' });
  await mass.fill('8 g');
  await mass.press('Enter');
  const length = page.getByRole('textbox', { name: 'Cable length' });
  await length.fill('8 m');
  await length.press('Enter');
  const core = page.getByRole('textbox', { name: 'Cable core' });
  await core.fill('AWG 16');
  await core.press('Enter');

  await page.getByRole('button', { name: 'Wiring and changes …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Wiring and changes' });
  const changes = dialog.getByRole('region', { name: 'What each change does' });
  await expect(changes.getByRole('row', { name: /as on its sheet 33\.0/ })).toBeVisible();
  await expect(changes.getByRole('row', { name: /mass added 29\.9/ })).toBeVisible();
  await expect(changes.getByRole('row', { name: /on its cable/ })).toBeVisible();
  await expect(dialog.getByRole('img', { name: 'one driver, coils in series' })).toBeVisible();

  await dialog.getByRole('combobox', { name: 'How many drivers' }).selectOption('4');
  await dialog.getByRole('combobox', { name: 'Load' }).selectOption('4 to 8 Ω');
  const ways = dialog.getByRole('region', { name: 'Ways to wire' });
  await expect(ways.getByRole('button', { name: /^Use/ })).toHaveCount(2);
  await ways.getByRole('button', { name: 'Use 2 groups of 2 in series, coils in series' }).click();
  await expect(dialog.getByRole('img', { name: '2 groups of 2 in series, coils in series' })).toBeVisible();
  await expect(changes.getByRole('row', { name: /several drivers/ })).toContainText('62.');
  await page.keyboard.press('Escape');
  await expect
    .poll(async () => (await kept(server, build)).content.driver_array)
    .toMatchObject({ series: 2, parallel: 2, coils: 'series', added_mass: '8 g', cable_area: 'AWG 16' });
});
