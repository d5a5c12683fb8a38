import { expect, openBuild, test } from './support';

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
  await expect(dialog.getByRole('textbox', { name: 'Outside volume' })).toHaveValue('18 l');
  const lowest = dialog.getByRole('textbox', { name: 'Lowest note' });
  await lowest.fill('E0');
  await lowest.press('Enter');
  await dialog.getByRole('button', { name: 'Save the brief' }).click();
  await expect(said(/The brief/)).toContainText('short');
  await expect(said(/Lowest note/)).toContainText('7.7 Hz too high');
  await expect(said(/Size/)).toContainText('l too large');
  await said(/Size/).click();
  await expect(page.getByRole('dialog', { name: /^Size/ })).toContainText('or a driver with less Vas');
  await page.keyboard.press('Escape');

  // It is judged as it is drawn: less air, or a shorter port for a higher tuning, make it smaller.
  const write = async (name: string, text: string) => {
    await page.getByRole('textbox', { name }).fill(text);
    await page.getByRole('textbox', { name }).press('Enter');
  };
  const litres = async () => Number(/([\d.]+) l/.exec((await said(/Size/).textContent()) ?? '')?.[1]);
  const before = await litres();
  await write('Volume Vb', '20 l');
  await expect.poll(litres).toBeLessThan(0.8 * before);
  const smaller = await litres();
  await write('Tuning Fb', '60 Hz');
  await expect.poll(litres).toBeLessThan(smaller);

  // What contradicts itself is told at its field.
  await said(/The brief/).click();
  const crossover = dialog.getByRole('textbox', { name: 'Crossover' });
  await crossover.fill('20 Hz');
  await crossover.press('Enter');
  await dialog.getByRole('button', { name: 'Save the brief' }).click();
  await expect(dialog.getByRole('alert').first()).toContainText(/20\.6/);
  await dialog.getByRole('button', { name: 'Back' }).click();

  await page.reload();
  await expect(said(/Lowest note/)).toContainText(/\d Hz too high/);
});

test('a pair of cabinets is 6 dB louder and costs nearly twice as much', async ({ page, server }) => {
  const { id } = await server.importDemo('narrowboat-nook', 'A pair');
  await openBuild(page, server, id);
  const figures = page.getByRole('list', { name: 'Figures' });
  const number = async (name: RegExp) => {
    const text = await figures.getByRole('button', { name }).innerText();
    return Number(/\d+(\.\d+)?/.exec(text)?.[0]);
  };
  const [loud, cost] = [await number(/Loudness/), await number(/Cost/)];
  await figures.getByRole('button', { name: /The brief/ }).click();
  const dialog = page.getByRole('dialog', { name: 'The brief' });
  await dialog.getByRole('textbox', { name: 'Cabinets' }).fill('2');
  await dialog.getByRole('button', { name: 'Save the brief' }).click();
  await expect(page.getByText(/^2 cabinets, each with 160 W into 4 Ω/)).toBeVisible();
  await expect.poll(async () => (await number(/Loudness/)) - loud).toBeCloseTo(6, 0);
  // Whole sheets and packs go further for two.
  await expect.poll(() => number(/Cost/)).toBeGreaterThan(1.5 * cost);
  expect(await number(/Cost/)).toBeLessThanOrEqual(2 * cost);
});

test('a brief that was changed asks before it is thrown away, and Escape in a field leaves the field', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Second look');
  await openBuild(page, server, build.id);
  await page.keyboard.press('Alt+b');
  const dialog = page.getByRole('dialog', { name: 'The brief' });
  const lowest = dialog.getByRole('textbox', { name: 'Lowest note' });
  await lowest.fill('31 Hz');
  await lowest.press('Enter');
  await lowest.press('Escape');
  await expect(lowest).not.toBeFocused();
  await expect(dialog).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog.getByRole('alert')).toContainText('not saved yet');
  await dialog.getByRole('button', { name: 'Keep editing' }).click();
  await expect(lowest).toHaveValue('31 Hz');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await dialog.getByRole('button', { name: 'Discard' }).click();
  await expect(dialog).toBeHidden();
  expect((await server.open(build.id)).brief?.lowest ?? null).not.toBe('31 Hz');
});

test('an earlier brief is looked up and used again', async ({ page, server }) => {
  const build = await server.makeBuild('Second thoughts', undefined, { lowest: '30 Hz', width: '60 cm' });
  await openBuild(page, server, build.id);
  await page.keyboard.press('Alt+b');
  const dialog = page.getByRole('dialog', { name: 'The brief' });
  await dialog.getByRole('textbox', { name: 'Lowest note' }).fill('41 Hz');
  await dialog.getByRole('button', { name: 'Save the brief' }).click();
  const asked = async () => (await server.open(build.id)).brief?.lowest;
  await expect.poll(asked).toBe('41 Hz');
  await expect(dialog).toBeHidden();
  await page.keyboard.press('Alt+b');
  await dialog.getByRole('button', { name: 'Earlier briefs' }).click();
  const history = page.getByRole('dialog', { name: 'History of the brief' });
  await expect(history).toContainText('30 Hz → 41 Hz');
  await history.getByRole('button', { name: /^Use this brief/ }).click();
  await expect.poll(asked).toBe('30 Hz');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(asked).toBe('41 Hz');
});
