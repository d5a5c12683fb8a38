import { violated } from './axe';
import { expect, openBuild, test } from './support';

test('a phone opens the steps by a code, ticks them without a connection too, and is sent away', async ({
  page,
  server,
  browser,
}) => {
  const build = await server.makeBuild('Phone');
  await openBuild(page, server, build.id);
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Build' }).click();
  await page.getByRole('radio', { name: 'Steps', exact: true }).click();
  await page.getByRole('button', { name: 'On a phone…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Steps on a phone' });
  await expect(dialog.getByText(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Make a code for a phone' }).click();
  await expect(dialog.getByRole('img', { name: 'Code that a phone opens the steps with' })).toBeVisible();
  await violated(page, 'code for a phone');
  const url = await dialog.getByText(/^https:/).innerText();

  // It does not know the certificate, as the program said.
  const context = await browser.newContext({
    ignoreHTTPSErrors: true,
    viewport: { width: 390, height: 760 },
    hasTouch: true,
  });
  const phone = await context.newPage();
  await phone.goto(url);
  await expect(phone.getByRole('heading', { name: 'Phone', exact: true })).toBeVisible();
  expect(phone.url()).not.toContain('#');
  await expect(dialog.getByText('A phone has opened the steps.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await violated(phone, 'steps on a phone');

  const arrived = phone.getByRole('checkbox', { name: 'Look at what arrived done' });
  await arrived.check();
  await expect(phone.getByText('Saved', { exact: true })).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Look at what arrived done' })).toBeChecked();

  // Behind the shed there is no connection.
  await context.setOffline(true);
  await phone.getByRole('checkbox', { name: 'Label every board done' }).check();
  await expect(phone.getByText('No connection: 1 tick waits here.')).toBeVisible();
  // Meanwhile another is ticked on the laptop; both stand.
  await page.getByRole('checkbox', { name: 'Test circle in scrap done' }).check();
  await context.setOffline(false);
  await expect(phone.getByText('Saved', { exact: true })).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Label every board done' })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: 'Test circle in scrap done' })).toBeChecked();
  await expect(page.getByText(/^3 of \d+ done/)).toBeVisible();

  await page.getByRole('button', { name: 'On a phone…' }).click();
  await dialog.getByRole('button', { name: /^Take back the code of/ }).click();
  await expect(dialog.getByRole('button', { name: /^Take back/ })).toHaveCount(0);
  await phone.getByRole('checkbox', { name: 'Mark the boards inside done' }).check();
  await expect(phone.getByText(/ask for a new one/)).toBeVisible();
  await context.close();
});
