import { expect, figure, kept, openBuild, test } from './support';

test('with the server gone one goes on, and what was changed is kept when it is back', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Power cut');
  await openBuild(page, server, build.id);
  await server.kill();
  const volume = page.getByRole('textbox', { name: 'Volume Vb' });
  await volume.fill('52 l');
  await volume.press('Enter');
  await expect(page.getByRole('status')).toContainText('Not saved yet');
  await volume.fill('53 l');
  await volume.press('Enter');
  await server.start();
  await expect(page.getByRole('status')).toContainText('Saved', { timeout: 15_000 });
  expect((await kept(server, build)).document.enclosure.volume).toBe('53 l');
  await expect(figure(page, 'f3')).toBeVisible();
});

test('what could not be sent survives closing the page', async ({ page, server }) => {
  const build = await server.makeBuild('Closed lid');
  await openBuild(page, server, build.id);
  await page.route('**/api/v1/variants/**', (route) => route.abort());
  const volume = page.getByRole('textbox', { name: 'Volume Vb' });
  await volume.fill('47 l');
  await volume.press('Enter');
  await expect(page.getByRole('status')).toContainText('Not saved yet');
  await page.goto('about:blank');
  await page.unroute('**/api/v1/variants/**');
  await openBuild(page, server, build.id);
  await expect(volume).toHaveValue('47 l');
  await expect.poll(async () => (await kept(server, build)).document.enclosure.volume).toBe('47 l');
});

test('an order that could not be sent is said to wait, and survives closing the page', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Moved in the dark');
  await openBuild(page, server, build.id);
  const order = '**/api/v1/builds/*/order';
  await page.route(order, (route) => route.abort());
  await page.getByRole('button', { name: 'More for Slot, all-round' }).click();
  await page.getByRole('menuitem', { name: 'Move on' }).click();
  await expect(page.getByRole('status')).toContainText('Not saved yet');
  await page.goto('about:blank');
  await page.unroute(order);
  await openBuild(page, server, build.id);
  await expect(page.getByRole('button', { name: /^Work on/ }).first()).toContainText('Sealed');
  const names = async () => (await server.open(build.id)).variants.map(({ document }) => document.name);
  await expect.poll(async () => (await names())[0]).toContain('Sealed');
  await expect(page.getByRole('status')).toContainText('Saved');
});

test('two windows on one variant: both states are shown and none is lost', async ({
  context,
  page,
  server,
}) => {
  const build = await server.makeBuild('Two windows');
  await openBuild(page, server, build.id);
  const other = await context.browser()?.newContext();
  const second = await other?.newPage();
  if (!second) throw new Error('no second window');
  await openBuild(second, server, build.id);
  await second.getByRole('textbox', { name: 'Volume Vb' }).fill('50 l');
  await second.keyboard.press('Enter');
  await expect.poll(async () => (await kept(server, build)).revision).toBe(2);

  await page.getByRole('textbox', { name: 'Volume Vb' }).fill('60 l');
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Changed in another window' });
  await expect(dialog).toContainText('60 l');
  await expect(dialog).toContainText('50 l');
  await dialog.getByRole('button', { name: 'Take the other' }).click();
  await expect(page.getByRole('textbox', { name: 'Volume Vb' })).toHaveValue('50 l');

  await second.getByRole('textbox', { name: 'Volume Vb' }).fill('51 l');
  await second.keyboard.press('Enter');
  await expect.poll(async () => (await kept(server, build)).document.enclosure.volume).toBe('51 l');
  await page.getByRole('textbox', { name: 'Volume Vb' }).fill('61 l');
  await page.keyboard.press('Enter');
  await dialog.getByRole('button', { name: 'Keep what is here' }).click();
  await expect.poll(async () => (await kept(server, build)).document.enclosure.volume).toBe('61 l');
  const id = build.variants[0]?.id;
  const revisions = await server.call<{ document: { enclosure: { volume: string } } }[]>(
    'GET',
    `/variants/${id}/revisions`,
  );
  expect(revisions.map((revision) => revision.document.enclosure.volume)).toEqual([
    '61 l',
    '51 l',
    '50 l',
    '44 l',
  ]);
  await other?.close();
});

test('variants are duplicated, archived and brought back, also with the keys alone', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Variants');
  await openBuild(page, server, build.id);
  const cards = page.getByRole('region', { name: 'Variants' }).getByRole('button', { name: /^Work on/ });
  await page.keyboard.press('Control+d');
  await expect(cards).toHaveCount(3);
  await expect(page.getByRole('textbox', { name: 'Name of the variant' })).toHaveValue('Slot, all-round 2');
  await page.keyboard.press('Alt+t');
  await expect(figure(page, 'fb')).toContainText('29.2 Hz');
  await page.keyboard.press('Alt+Backspace');
  await expect(cards).toHaveCount(2);
  await expect.poll(async () => (await server.open(build.id)).variants.length).toBe(2);
  await page.keyboard.press('Control+z');
  await expect(cards).toHaveCount(3);
  await expect.poll(async () => (await server.open(build.id)).variants.length).toBe(3);
  await page.keyboard.press('Alt+n');
  await expect(cards.first()).toHaveAttribute('aria-current', 'true');
  await page.keyboard.press('Alt+p');
  await expect(cards.last()).toHaveAttribute('aria-current', 'true');
  await page.keyboard.press('Alt+k');
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toContainText('Ctrl + Z');
});

test('the build is renamed in place', async ({ page, server }) => {
  const build = await server.makeBuild('Old name');
  await openBuild(page, server, build.id);
  await page.getByRole('textbox', { name: 'Name of the build' }).fill('New name');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await server.open(build.id)).name).toBe('New name');
});
