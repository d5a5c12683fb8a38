import { expect, figure, kept, openBuild, test } from './support';

test('with the server gone one goes on, and what was changed is kept when it is back', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Power cut');
  await openBuild(page, server, build.id);
  await expect(page.getByRole('textbox', { name: 'Volume Vb' })).toBeVisible();
  await server.kill();
  const volume = page.getByRole('textbox', { name: 'Volume Vb' });
  await volume.fill('52 l');
  await volume.press('Enter');
  await expect(page.getByRole('status')).toContainText('Not saved yet');
  await volume.fill('53 l');
  await volume.press('Enter');
  await server.start();
  await expect(page.getByRole('status')).toContainText('Saved');
  expect((await kept(server, build)).content.enclosure.volume).toBe('53 l');
  await expect(figure(page, 'f3')).toBeVisible();
});

test('what could not be sent survives closing the page', async ({ page, server }) => {
  const build = await server.makeBuild('Closed lid');
  await openBuild(page, server, build.id);
  await page.route('**/api/v1/documents/**', (route) => route.abort());
  const volume = page.getByRole('textbox', { name: 'Volume Vb' });
  await volume.fill('47 l');
  await volume.press('Enter');
  await expect(page.getByRole('status')).toContainText('Not saved yet');
  await page.goto('about:blank');
  await page.unroute('**/api/v1/documents/**');
  await openBuild(page, server, build.id);
  await expect(volume).toHaveValue('47 l');
  await expect.poll(async () => (await kept(server, build)).content.enclosure.volume).toBe('47 l');
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
  await page.getByRole('menuitem', { name: 'Move right' }).click();
  await expect(page.getByRole('status')).toContainText('Not saved yet');
  await page.goto('about:blank');
  await page.unroute(order);
  await openBuild(page, server, build.id);
  await expect(page.getByRole('button', { name: /^Work on/ }).first()).toContainText('Sealed');
  const names = async () => (await server.open(build.id)).variants.map(({ content }) => content.name);
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
  // What was given up is kept as a state before the other one is again the last.
  await expect.poll(async () => (await kept(server, build)).revision).toBe(4);

  await second.getByRole('textbox', { name: 'Volume Vb' }).fill('51 l');
  await second.keyboard.press('Enter');
  await expect.poll(async () => (await kept(server, build)).content.enclosure.volume).toBe('51 l');
  await page.getByRole('textbox', { name: 'Volume Vb' }).fill('61 l');
  await page.keyboard.press('Enter');
  await dialog.getByRole('button', { name: 'Keep what is here' }).click();
  await expect.poll(async () => (await kept(server, build)).content.enclosure.volume).toBe('61 l');
  const id = build.variants[0]?.id;
  const revisions = await server.call<{ content: { enclosure: { volume: string } } }[]>(
    'GET',
    `/documents/${id}/revisions`,
  );
  expect(revisions.map((revision) => revision.content.enclosure.volume)).toEqual([
    '61 l',
    '51 l',
    '50 l',
    '60 l',
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

test('two tabs keep their unsent edits apart, and what a closed one left is sent by the next', async ({
  context,
  page,
  server,
}) => {
  const build = await server.makeBuild('Two tabs');
  await openBuild(page, server, build.id);
  const variants = '**/api/v1/documents/**';
  await context.route(variants, (route) => route.abort());
  const volume = page.getByRole('textbox', { name: 'Volume Vb' });
  await volume.fill('47 l');
  await volume.press('Enter');
  await expect(page.getByRole('status')).toContainText('Not saved yet');

  const second = await context.newPage();
  await openBuild(second, server, build.id);
  const other = second.getByRole('textbox', { name: 'Volume Vb' });
  await expect(other).toHaveValue('44 l');
  await expect(volume).toHaveValue('47 l');
  await page.close();
  await context.unroute(variants);
  await second.reload();
  await expect(other).toHaveValue('47 l');
  await expect.poll(async () => (await kept(server, build)).content.enclosure.volume).toBe('47 l');
  await expect(second.getByRole('status')).toContainText('Saved');
});

test('what was changed can be undone after a reload, the brief and the name too', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Long memory');
  await openBuild(page, server, build.id);
  const volume = page.getByRole('textbox', { name: 'Volume Vb' });
  await volume.fill('52 l');
  await volume.press('Enter');
  const name = page.getByRole('textbox', { name: 'Name of the build' });
  await name.fill('Short memory');
  await name.press('Enter');
  await expect.poll(async () => (await server.open(build.id)).name).toBe('Short memory');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: name');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(name).toHaveValue('Long memory');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(volume).toHaveValue('44 l');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect.poll(async () => (await kept(server, build)).content.enclosure.volume).toBe('52 l');
  await expect.poll(async () => (await server.open(build.id)).name).toBe('Long memory');
});

test('with no room left in the browser it says so, and saves all the same', async ({ page, server }) => {
  await page.addInitScript(() => {
    const put = Storage.prototype.setItem;
    Storage.prototype.setItem = function (key: string, text: string) {
      if (key.startsWith('oak-drum:unsent:')) throw new DOMException('full', 'QuotaExceededError');
      put.call(this, key, text);
    };
  });
  const build = await server.makeBuild('Full cellar');
  await openBuild(page, server, build.id);
  const variants = '**/api/v1/documents/**';
  await page.route(variants, (route) => route.abort());
  const volume = page.getByRole('textbox', { name: 'Volume Vb' });
  await volume.fill('47 l');
  await volume.press('Enter');
  await expect(page.getByRole('status')).toContainText('no room left');
  await page.unroute(variants);
  await expect(page.getByRole('status')).toContainText('Saved');
  expect((await kept(server, build)).content.enclosure.volume).toBe('47 l');
});

test('a choice that is put off decides nothing, and takes later edits with it', async ({
  context,
  page,
  server,
}) => {
  const build = await server.makeBuild('Put off');
  await openBuild(page, server, build.id);
  const second = await context.newPage();
  await openBuild(second, server, build.id);
  for (const [where, litres, revision] of [
    [second, '50 l', 2],
    [page, '60 l', 2],
  ] as const) {
    await where.getByRole('textbox', { name: 'Volume Vb' }).fill(litres);
    await where.keyboard.press('Enter');
    await expect.poll(async () => (await kept(server, build)).revision).toBe(revision);
  }
  const dialog = page.getByRole('dialog', { name: 'Changed in another window' });
  await expect(dialog).toContainText('60 l');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('status')).toContainText('changed in another window');
  expect((await kept(server, build)).content.enclosure.volume).toBe('50 l');
  await page.getByRole('textbox', { name: 'Volume Vb' }).fill('61 l');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Choose …' }).click();
  await expect(dialog).toContainText('61 l');
  await dialog.getByRole('button', { name: 'Keep what is here' }).click();
  await expect.poll(async () => (await kept(server, build)).content.enclosure.volume).toBe('61 l');
  await expect(page.getByRole('status')).toContainText('Saved');
});

test('a name that was changed in two windows is asked about like a variant', async ({
  context,
  page,
  server,
}) => {
  const build = await server.makeBuild('Twice named');
  await openBuild(page, server, build.id);
  const second = await context.newPage();
  await openBuild(second, server, build.id);
  for (const [where, name] of [
    [second, 'Named there'],
    [page, 'Named here'],
  ] as const) {
    await where.getByRole('textbox', { name: 'Name of the build' }).fill(name);
    await where.keyboard.press('Enter');
    await expect.poll(async () => (await server.open(build.id)).name).toBe('Named there');
  }
  const dialog = page.getByRole('dialog', { name: 'Changed in another window' });
  await expect(dialog).toContainText('Named here');
  await expect(dialog).toContainText('Named there');
  await dialog.getByRole('button', { name: 'Keep what is here' }).click();
  await expect.poll(async () => (await server.open(build.id)).name).toBe('Named here');
});

test('an archived variant is brought back from the message that says so', async ({ page, server }) => {
  const build = await server.makeBuild('Second thoughts');
  await openBuild(page, server, build.id);
  const cards = page.getByRole('region', { name: 'Variants' }).getByRole('button', { name: /^Work on/ });
  await expect(cards).toHaveCount(2);
  await page.keyboard.press('Alt+Backspace');
  await expect(cards).toHaveCount(1);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'is archived' })
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(cards).toHaveCount(2);
  await expect.poll(async () => (await server.open(build.id)).variants.length).toBe(2);
});

test('Back closes what is open, and an address leads to its variant and window', async ({ page, server }) => {
  const build = await server.makeBuild('By address');
  await openBuild(page, server, build.id);
  await page.keyboard.press('Alt+x');
  const dialog = page.getByRole('dialog', { name: 'Variants compared' });
  await expect(dialog).toBeVisible();
  await expect(page).toHaveURL(/open=compare/);
  const address = page.url();
  await page.goBack();
  await expect(dialog).toBeHidden();
  const opened = await server.open(build.id);
  const last = opened.variants.at(-1);
  await page.goto(address.replace(/variant=[^&]*/, `variant=${last?.id}`));
  await expect(dialog).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('textbox', { name: 'Name of the variant' })).toHaveValue(
    last?.content.name ?? '',
  );
});
