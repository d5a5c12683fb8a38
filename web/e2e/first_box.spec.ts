import { expect, figure, openBuild, test } from './support';

test('a woofer of one’s own becomes a tuned box that outlives browser and server', async ({
  browser,
  page,
  server,
}) => {
  await page.goto(server.address);
  await page.getByRole('textbox', { name: 'Name of a new build' }).fill('Kitchen sub');
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByRole('button', { name: 'Choose a driver' }).click();
  await page.getByRole('button', { name: 'Type in a driver' }).click();

  const sheet = [
    ['Name', 'Kitchen find'],
    ['Re', '3.6'],
    ['Fs', '27 Hz'],
    ['Qms', '4.8'],
    ['Qes', '0,44'],
    ['Vas', '2.1 cuft'],
    ['Sd', '54 sq in'],
    ['Xmax', '0.9 cm'],
  ] as const;
  const submit = page.getByRole('button', { name: 'Add to the library and use' });
  for (const [label, value] of sheet) {
    if (label === 'Sd') await expect(submit).toBeDisabled();
    await page.getByRole('textbox', { name: label, exact: true }).fill(value);
    await page.keyboard.press('Tab');
  }
  await expect(page.getByRole('textbox', { name: 'Qts' })).toHaveValue('0.4031');
  await submit.click();
  const cabinets = page.getByRole('dialog', { name: 'Kind of cabinet' });
  await expect(cabinets).toContainText('EBP 61 Hz lies between sealed (under 50) and ported (over 100)');
  await cabinets.getByRole('button', { name: 'Start: Flat', exact: true }).click();

  await expect(figure(page, 'fb')).toBeVisible();
  await page.getByRole('textbox', { name: 'Volume Vb' }).fill('1.75 cuft');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Tuning Fb' }).fill('25');
  await page.keyboard.press('Enter');
  await expect(figure(page, 'fb')).toContainText('25 Hz');
  const length = await figure(page, 'port').innerText();
  await expect(page.getByRole('status')).toContainText('Saved');

  const address = page.url();
  await page.context().close();
  await server.kill();
  await server.start();

  const again = await (await browser.newContext()).newPage();
  await again.goto(address);
  await expect(again.getByRole('textbox', { name: 'Volume Vb' })).toHaveValue('1.75 cuft');
  await expect(again.getByRole('textbox', { name: 'Tuning Fb' })).toHaveValue('25 Hz');
  await expect(again.getByRole('button', { name: /Driver Kitchen find/ })).toBeVisible();
  await expect(figure(again, 'port')).toHaveText(length, { useInnerText: true });
  expect((await server.drivers()).map((driver) => driver.document.name)).toContain('Kitchen find');
  await again.context().close();
});

test('a driver is chosen from the library for the active variant, and its values can be changed there', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Choosing');
  await openBuild(page, server, build.id);
  await page
    .getByRole('button', { name: /^Driver Heron/ })
    .first()
    .click();
  await page.getByRole('searchbox').fill('mole');
  await page.getByRole('button', { name: 'Use Mole 250/4' }).click();
  await expect(page.getByRole('button', { name: /^Driver Mole 250\/4/ })).toBeVisible();

  await page
    .getByRole('button', { name: /^Driver Mole/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Change the values of Mole 250/4 here' }).click();
  const before = await page.getByRole('textbox', { name: 'Xmax' }).inputValue();
  await page.getByRole('textbox', { name: 'Xmax' }).fill('5 mm');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Use in this variant' }).click();
  await expect(figure(page, 'cone')).toContainText('of 5 mm');
  const library = (await server.drivers()).find((driver) => driver.document.name === 'Mole 250/4');
  expect(`${library?.document.xmax}`).toBe(before);
});
