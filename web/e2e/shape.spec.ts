import { expect, expectFigures, figure, openBuild, test } from './support';

test('a horn is drawn: its points are pulled, stepped and typed, and its bends follow', async ({
  page,
  server,
}) => {
  const { id } = await server.importDemo('barn-dance', 'Drawn horn');
  await openBuild(page, server, id);
  await page.getByRole('button', { name: 'Work on Barn horn, folded' }).click();
  await page.getByRole('tab', { name: 'Shape' }).click();
  const curve = page.getByRole('group', { name: 'Area along the path' });
  const mouth = curve.getByRole('slider', { name: /^Point \d+ of the path/ }).last();
  const before = (await mouth.getAttribute('aria-valuetext')) ?? '';
  await mouth.focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(mouth).not.toHaveAttribute('aria-valuetext', before);
  await expect(page.getByRole('status')).toContainText('Saved');
  const stepped = (await mouth.getAttribute('aria-valuetext')) ?? '';
  const grip = await mouth.boundingBox();
  if (!grip) throw new Error('no grip');
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(grip.x + grip.width / 2 - 25, grip.y + grip.height / 2 + 8, { steps: 4 });
  await page.mouse.up();
  await expect(mouth).not.toHaveAttribute('aria-valuetext', stepped);
  const area = page.getByRole('textbox', { name: 'Area at the point' });
  await area.fill('2500 cm2');
  await area.press('Enter');
  await expect(mouth).toHaveAttribute('aria-valuetext', /2500 cm²/);
  const count = await curve.getByRole('slider', { name: /^Point/ }).count();
  await page.getByRole('button', { name: 'Point', exact: true }).click();
  await expect(curve.getByRole('slider', { name: /^Point/ })).toHaveCount(count + 1);
  const bend = curve.getByRole('slider', { name: 'Bend of segment 1' });
  const was = (await bend.getAttribute('aria-valuetext')) ?? '';
  await bend.focus();
  for (let step = 0; step < 3; step += 1) await page.keyboard.press('ArrowUp');
  await expect(bend).not.toHaveAttribute('aria-valuetext', was);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(bend).toHaveAttribute('aria-valuetext', was);
});

test('somebody else’s plan is scaled, and is then what was said of it', async ({ page, server }) => {
  const build = await server.makeBuild('Scaled', undefined, {
    lowest: '30 Hz',
    width: '30 cm',
    height: '40 cm',
    depth: '35 cm',
  });
  await openBuild(page, server, build.id);
  await page.keyboard.press('Alt+Shift+x');
  const dialog = page.getByRole('dialog', { name: 'Scale the box' });
  const factor = dialog.getByRole('textbox', { name: 'Factor' });
  await factor.fill('9');
  await expect(dialog.getByRole('alert')).toContainText('0.2 to 5');
  await factor.fill('0,9');
  const tuning = dialog.getByRole('row', { name: /^Tuning/ });
  await expect(tuning).toContainText('29 Hz');
  await expect(dialog.getByRole('button', { name: 'As a variant' })).toBeEnabled();
  const scaled = (await tuning.getByRole('cell').last().innerText()).trim();
  await dialog.getByRole('radio', { name: 'Into the place of the brief' }).click();
  await expect(dialog).toContainText('× 0.');
  await dialog.getByRole('radio', { name: 'By a factor' }).click();
  await expect(tuning.getByRole('cell').last()).toHaveText(scaled);
  await dialog.getByRole('button', { name: 'As a variant' }).click();
  await expectFigures(page);
  await expect(page.getByRole('textbox', { name: 'Name of the variant' })).toHaveValue(/× 0\.900$/);
  await expect(figure(page, 'fb')).toContainText(scaled);
});

test('the guide is found by its names and read', async ({ page, server }) => {
  await page.goto(server.address);
  await page.getByRole('button', { name: 'Find a command' }).click();
  await page.getByRole('combobox', { name: 'Commands' }).fill('wedge');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'A wedge under a seat' })).toBeVisible();
  await page.getByRole('link', { name: 'What each figure means' }).click();
  await expect(page.getByRole('row', { name: /^F3, F6, F10/ })).toBeVisible();
  await page.getByRole('link', { name: 'A first box' }).click();
  for (const picture of await page.getByRole('article').getByRole('img').all())
    await expect
      .poll(() => picture.evaluate((image) => (image as HTMLImageElement).naturalWidth))
      .toBeGreaterThan(100);
});
