import { expect, openBuild, test } from './support';

test('the boards of a kit make the box of a variant, with the volume they leave', async ({
  page,
  server,
}) => {
  const { id } = await server.importDemo('narrowboat-nook', 'Kit');
  await openBuild(page, server, id);
  await page.keyboard.press('Alt+Shift+K');
  const window = page.getByRole('dialog', { name: 'Box from a kit' });
  const boards = window.getByRole('textbox', { name: 'Boards of the kit' });
  await boards.fill('Front and back 400 x 600 x 18 mm\nSides (2) 200 x 500 x 18\nLid 364 x 314 x 18');
  await expect(window.getByRole('alert')).toContainText('do not go together');
  await boards.fill(
    'Front and back 400 x 600 x 18 mm\nSides (2) 314 x 600 x 18\nTop and bottom 364 x 314 x 18\nfeet',
  );
  await expect(window.getByText('Not understood: "feet"')).toBeVisible();
  await expect(window.getByText('400 mm × 600 mm × 350 mm outside')).toBeVisible();
  await expect(window.getByText(/64\.46 l between the boards/)).toBeVisible();
  await window.getByRole('button', { name: 'As a variant' }).click();
  await expect(page.getByRole('button', { name: /^Work on .*, kit$/ })).toBeVisible();
  await page
    .getByRole('link', { name: 'Box' })
    .or(page.getByRole('tab', { name: 'Box' }))
    .first()
    .click();
  await expect(page.getByText(/Outside 400 mm wide, 600 mm high, 350 mm deep/).first()).toBeAttached();
});
