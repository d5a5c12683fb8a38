import { expect, test } from './support';

test('a brief from a template judges every variant, says what is short and by how much, and is kept', async ({
  page,
  server,
}) => {
  await page.goto(server.address);
  await page.getByRole('link', { name: /^Narrowboat nook/ }).click();
  const figures = page.getByRole('list', { name: 'Figures' });
  const said = (name: RegExp) => figures.getByRole('button', { name });
  await expect(said(/The brief/)).toContainText('all met');
  await expect(said(/Lowest note/)).toContainText('asked: 30.0 Hz');

  await said(/The brief/).click();
  const dialog = page.getByRole('dialog', { name: 'The brief' });
  await dialog.getByRole('button', { name: /Car, under a seat/ }).click();
  await expect(dialog.getByRole('textbox', { name: 'Free volume' })).toHaveValue('18 l');
  const lowest = dialog.getByRole('textbox', { name: 'Lowest note' });
  await lowest.fill('E0');
  await lowest.press('Enter');
  await dialog.getByRole('button', { name: 'Keep the brief' }).click();
  await expect(said(/The brief/)).toContainText('short');
  await expect(said(/Lowest note/)).toContainText('7.7 Hz too high');
  await expect(said(/Size/)).toContainText('l too large');
  await said(/Size/).click();
  await expect(page.getByRole('dialog', { name: /^Size/ })).toContainText('two as an isobaric pair');
  await page.keyboard.press('Escape');

  // A smaller box is judged as it is made; its port counts, and a low tuning makes that as large as the box.
  const write = async (name: string, text: string) => {
    await page.getByRole('textbox', { name }).fill(text);
    await page.getByRole('textbox', { name }).press('Enter');
  };
  await write('Volume Vb', '7 l');
  await expect(said(/Size/)).toContainText('7.0 l');
  await expect(said(/Size/)).toContainText('l too large');
  await write('Tuning Fb', '90 Hz');
  await expect(said(/Size/)).toContainText('to spare');

  // What contradicts itself is told at its field.
  await said(/The brief/).click();
  const width = dialog.getByRole('textbox', { name: 'Width' });
  await width.fill('40 cm');
  await width.press('Enter');
  await dialog.getByRole('button', { name: 'Keep the brief' }).click();
  await expect(dialog.getByRole('alert').first()).toContainText(/left out|leave one out|missing/);
  await dialog.getByRole('button', { name: 'Back' }).click();

  await page.reload();
  await expect(said(/Lowest note/)).toContainText('53.5 Hz too high');
});
