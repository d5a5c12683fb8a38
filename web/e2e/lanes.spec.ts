import { expect, openBuild, test } from './support';

test('two variants are overlaid and read at one cursor', async ({ page, server }) => {
  const build = await server.makeBuild('Overlay');
  await openBuild(page, server, build.id);
  const level = page.getByRole('region', { name: 'SPL' });
  await expect(level.getByRole('definition')).toHaveCount(2);
  for (const name of ['SPL', 'Cone travel', 'Air speed', 'Impedance', 'Group delay']) {
    await expect(page.getByRole('region', { name, exact: true })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Show Sealed, bench berth in the lanes' }).click();
  await expect(level.getByRole('definition')).toHaveCount(1);
  await page.getByRole('button', { name: 'Show Sealed, bench berth in the lanes' }).click();
  await expect(level.getByRole('definition')).toHaveCount(2);
  await page.reload();
  await expect(level.getByRole('definition')).toHaveCount(2);
});

test('the cursor goes by pointer and by keys, and the values follow', async ({ page, server }) => {
  const build = await server.makeBuild('Cursor');
  await openBuild(page, server, build.id);
  const cursor = page.getByRole('slider', { name: 'Frequency cursor' });
  await expect(cursor).toHaveAttribute('aria-valuetext', /^41(\.\d)? Hz, E1$/);
  const impedance = page.getByRole('region', { name: 'Impedance' }).getByRole('definition').first();
  const before = await impedance.innerText();
  await cursor.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(cursor).toHaveAttribute('aria-valuetext', /^3\d/);
  await expect(impedance).not.toHaveText(before, { useInnerText: true });
  await page.keyboard.press('Home');
  await expect(cursor).toHaveAttribute('aria-valuenow', '10');
  await page.keyboard.press('End');
  await expect(cursor).toHaveAttribute('aria-valuenow', '500');

  const travel = await page.getByRole('region', { name: 'Cone travel' }).boundingBox();
  if (!travel) throw new Error('no lane');
  await page.mouse.move(travel.x + 400, travel.y + 20);
  await expect(cursor).not.toHaveAttribute('aria-valuenow', '500');
});

test('the values on screen are those of the response table', async ({ page, server }) => {
  const build = await server.makeBuild('Table');
  await openBuild(page, server, build.id);
  const [variant] = build.variants;
  const text = await (await fetch(`${server.address}/api/v1/variants/${variant?.id}/response.csv`)).text();
  const [said = '', header = '', first = ''] = text.trim().split('\n');
  // In the same conditions, in the same words.
  await expect(page.locator('[data-conditions]')).toHaveText(said.replace('# ', ''));
  const column = header.split(',').indexOf('impedance_ohm');
  await page.getByRole('slider', { name: 'Frequency cursor' }).focus();
  await page.keyboard.press('Home');
  const shown = page.getByRole('region', { name: 'Impedance' }).getByRole('definition').first();
  await expect(shown).toContainText(Number(first.split(',')[column]).toFixed(1));
});
