import { expect, figure, kept, openBuild, test } from './support';

const WRONG: [string, string, string][] = [
  ['Volume Vb', '0 l', '0 l is outside 0.1 l to 10000 l'],
  ['Volume Vb', '-44 l', '-44 l is outside'],
  ['Volume Vb', 'NaN', '"NaN" is not a number; 0.1 l to 10000 l is allowed'],
  ['Volume Vb', '1e9 l', '1e9 l is outside'],
  ['Volume Vb', '40 Hz', '"Hz" is a unit of frequency, not of volume'],
  ['Volume Vb', '', 'nothing was written'],
  ['Tuning Fb', '29 mm', '"mm" is a unit of length, not of frequency'],
  ['Slot height', '1,000 mm', 'may mark thousands or decimals'],
  ['Ports', '99', '99 is outside 1 to 16'],
  ['Leakage (QL)', '0.5', '0.5 is outside 1 to 1000'],
];

test('what cannot be is refused beside the field, with the range, and changes nothing', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Bad values');
  await openBuild(page, server, build.id);
  await page.getByText(/^Advanced: /).click();
  for (const [name, text, told] of WRONG) {
    const box = page.getByRole('textbox', { name, exact: true });
    await box.fill(text);
    await box.press('Enter');
    await expect(box, text).toHaveAttribute('aria-invalid', 'true');
    await expect(page.getByRole('alert').filter({ hasText: told }), text).toBeVisible();
    await box.press('Escape');
    await expect(box).not.toHaveAttribute('aria-invalid', 'true');
  }
  expect((await kept(server, build)).revision).toBe(1);
});

test('a tuning that the port cannot reach is told by the server at its field; the last curves stay', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Too high');
  await openBuild(page, server, build.id);
  await page.getByRole('textbox', { name: 'Tuning Fb' }).fill('300 Hz');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('alert').filter({ hasText: 'higher than these ports reach' }).first(),
  ).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Tuning Fb' })).toHaveAttribute('aria-invalid', 'true');
  await expect(figure(page, 'fb')).toContainText('29 Hz');
  await expect(page.getByText('What you see are the curves before the last change')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('a data sheet with slips says which value and why', async ({ page, server }) => {
  await page.goto(`${server.address}/drivers`);
  await page.getByRole('button', { name: 'Type in a driver' }).click();
  const field = (name: string) => page.getByRole('textbox', { name, exact: true });
  for (const [name, text] of [
    ['Name', 'Slip'],
    ['Re', '0 ohm'],
    ['Fs', '1e9 Hz'],
    ['Sd', '346 mm'],
  ] as const) {
    await field(name).fill(text);
    await page.keyboard.press('Tab');
  }
  await expect(page.getByText('0 ohm is outside 0.1 ohm to 100 ohm')).toBeVisible();
  await expect(page.getByText('1e9 Hz is outside 5 Hz to 2000 Hz')).toBeVisible();
  await expect(page.getByText('"mm" is a unit of length, not of area')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add to the library' })).toBeDisabled();
});
