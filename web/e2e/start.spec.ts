import { expect, expectFigures, figure, test } from './support';

const SHEET =
  'Curlew 250/4\nFs: 28Hz\nRe: 3,6 Ohm\nQms: 5,4\nQes: 0,38\nVas: 63,3 Ltr\nSd: 346 cm²\nXmax (p-p) 23 mm\nPower handling 300 W RMS, 600 W max';

test('a data sheet that is pasted becomes a box that does what was said of it', async ({ page, server }) => {
  await page.goto(server.address);
  await page.getByRole('link', { name: /I have a woofer/ }).click();
  await page.getByRole('textbox', { name: 'Data sheet' }).fill(SHEET);
  const found = page.getByRole('row').filter({ hasText: '63,3 Ltr' });
  await expect(found.getByRole('textbox', { name: 'Vas' })).toHaveValue('63.3 l');
  await expect(page.getByRole('row').filter({ hasText: 'half of what is given' })).toContainText('23 mm');
  await expect(page.getByRole('textbox', { name: 'Name of the woofer' })).toHaveValue('Curlew 250/4');
  await expect(page.getByText(/^Worked out from these: Qts 0\.355/)).toBeVisible();
  await page.getByRole('button', { name: 'Use this woofer' }).click();

  // A wish is there to begin with; another answer is another box.
  const box = page.getByRole('region', { name: 'The box' });
  const sentence = box.getByText(/^A .* (suits best|comes closest): /);
  await expect(sentence).toBeVisible();
  const before = await sentence.innerText();
  await page.getByRole('button', { name: /^Home, music/ }).click();
  await expect(sentence).not.toHaveText(before);
  await page.getByRole('button', { name: /^E1/ }).click();
  await expect(box).toHaveAttribute('aria-labelledby', 'the-box');
  await expect(box.locator('[aria-busy="false"]')).toBeVisible();
  const said = await sentence.innerText();
  const f3 = /F3 ([\d.]+) Hz/.exec(said)?.[1] ?? '';
  await box.getByRole('button', { name: 'Make this box' }).click();

  await expectFigures(page);
  await expect(figure(page, 'brief-lowest')).toContainText(`${f3} Hz`);
  await expect(figure(page, 'brief-fits')).toContainText('can be built');
  const drivers = await server.drivers();
  expect(drivers.some(({ document }) => document.name === 'Curlew 250/4')).toBe(true);
  // It was made of it: the next one begins anew.
  await page.goto(`${server.address}/start?from=woofer`);
  await expect(page.getByRole('textbox', { name: 'Data sheet' })).toHaveValue('');
});

test('a wish comes first, is kept over a reload, and takes a woofer of the library', async ({
  page,
  server,
}) => {
  await page.goto(server.address);
  await page.getByRole('link', { name: /I have a space and a wish/ }).click();
  await page.getByRole('button', { name: /^Bass guitar cabinet/ }).click();
  await page.getByRole('button', { name: /^100 dB/ }).click();
  const width = page.getByRole('textbox', { name: 'Width' });
  await width.fill('48 cm');
  await width.press('Enter');
  await page.reload();
  await expect(page.getByRole('button', { name: /^100 dB/ })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('textbox', { name: 'Width' })).toHaveValue('48 cm');
  await page.getByRole('radio', { name: 'From the library' }).click();
  await page.getByRole('button', { name: /^Use Heron 250\/4/ }).click();
  const box = page.getByRole('region', { name: 'The box' });
  await expect(box.getByRole('row').filter({ hasText: 'Ported' })).toBeVisible();
  await box.getByText('The other kinds, for those who like to build').click();
  await expect(box.getByRole('row').filter({ hasText: 'Transmission line' })).toBeVisible();
  await box.getByRole('button', { name: 'Make the sealed box' }).click();
  await expectFigures(page);
  await expect(page.getByRole('button', { name: 'Kind of cabinet: Sealed' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Name of the build' })).toHaveValue(/Heron 250\/4/);
});

test('what is no data sheet gives nothing, and what is missing is asked for', async ({ page, server }) => {
  await page.goto(`${server.address}/start?from=woofer`);
  const sheet = page.getByRole('textbox', { name: 'Data sheet' });
  await sheet.fill('Washing machine. Power 2200 W, depth 60 cm, weight 70 kg, level 52 dB');
  await expect(page.getByText(/^No values of a woofer were found/)).toBeVisible();
  await sheet.fill('Fs 28 Hz\nQts 0.36\nQms 5.4\nVas 63 l\nRe 3.6 ohm');
  const needed = page.getByRole('group', { name: 'Still needed' });
  await expect(page.getByRole('button', { name: 'Use this woofer' })).toBeDisabled();
  const area = needed.getByRole('textbox', { name: 'Sd' });
  await area.fill('346 cm2');
  await area.press('Enter');
  await page.getByRole('button', { name: 'Use this woofer' }).click();
  await expect(page.getByRole('region', { name: 'The woofer' })).toContainText('My woofer');
});
