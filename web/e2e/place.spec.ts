import type { Locator, Page } from '@playwright/test';
import type { RawListeningPlace } from '../src/schema/types';
import { violated } from './axe';
import { expect, openBuild, type Server, test } from './support';

const BRIEF = {
  lowest: '30 Hz',
  loudness: '95 dB',
  distance: '2 m',
  amplifier_power: '160 W',
  amplifier_load: '4 ohm',
  crossover: '80 Hz',
} as const;

const lane = (page: Page, name: string): Locator => page.getByRole('region', { name, exact: true });
const item = (page: Page, name: string): Locator => page.getByRole('slider', { name, exact: true });
const panel = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).click();

/** A build of two demo variants on the place stage. */
async function openPlace(page: Page, server: Server, name: string): Promise<string> {
  const build = await server.makeBuild(name, undefined, BRIEF);
  await openBuild(page, server, build.id);
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Place' }).click();
  await expect(page.getByRole('heading', { name: 'Where is it listened to?' })).toBeVisible();
  return build.id;
}

async function placesOf(server: Server, id: string): Promise<RawListeningPlace[]> {
  const answer = await fetch(`${server.address}/api/v1/builds/${id}`);
  const { documents } = (await answer.json()) as {
    documents: { kind: string; content: RawListeningPlace }[];
  };
  return documents.filter(({ kind }) => kind === 'place').map(({ content }) => content);
}

test('a room adds what is heard at the seats; things are moved by hand, keys and fields, undone and kept', async ({
  page,
  server,
}) => {
  const id = await openPlace(page, server, 'Room');
  await page.getByRole('button', { name: /^A room/ }).click();
  await expect(lane(page, 'At the seats')).toBeVisible();
  await expect(lane(page, 'SPL')).toBeVisible();
  const cabinet = item(page, 'Cabinet 1');
  await expect(cabinet).toHaveAttribute('aria-valuetext', '0.50 m from the left, 4.60 m up the plan');

  // Keys, then a drag that snaps to the wall, then a field.
  await cabinet.focus();
  await page.keyboard.press('ArrowRight');
  await expect(cabinet).toHaveAttribute('aria-valuetext', '0.55 m from the left, 4.60 m up the plan');
  await page.keyboard.press('PageUp');
  await expect(page.getByRole('textbox', { name: 'Turned' })).toHaveValue('-165 deg');
  const box = await cabinet.boundingBox();
  if (!box) throw new Error('no cabinet');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 200, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  const across = page.getByRole('textbox', { name: 'From the left' });
  await expect(across).not.toHaveValue('0.55 m');
  expect(Number((await across.inputValue()).replace(' m', ''))).toBeLessThan(0.5);
  await across.fill('2 m');
  await page.keyboard.press('Enter');
  await expect(cabinet).toHaveAttribute('aria-valuetext', /^2\.00 m/);
  await expect.poll(async () => (await placesOf(server, id))[0]?.cabinets?.[0]?.across).toBe('2 m');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cabinet).not.toHaveAttribute('aria-valuetext', /^2\.00 m/);
  await page.getByRole('button', { name: 'Redo' }).click();

  // A seat is added, named, and heard as a line of its own.
  await page.getByRole('button', { name: 'Add a seat' }).click();
  await page.getByRole('textbox', { name: 'Name of the seat' }).fill('Window');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /^Window/ })).toContainText('dB');
  // It is there after a reload, and the free curve is the same as without a place.
  await page.reload();
  await expect(item(page, 'Window')).toBeVisible();
  const level = lane(page, 'SPL').locator('[data-readout]').first();
  const before = (await level.count()) ? await level.textContent() : null;
  await page.getByRole('combobox', { name: 'Heard in' }).selectOption('no place');
  await expect(page.getByRole('button', { name: 'Living room' })).toBeVisible();
  if (before) await expect(level).toHaveText(before);
  expect(await placesOf(server, id)).toHaveLength(1);
});

test('walls that move bring in what stood outside, and what cannot be is refused with its range', async ({
  page,
  server,
}) => {
  await openPlace(page, server, 'Walls');
  await page.getByRole('button', { name: /^A room/ }).click();
  await panel(page, 'Walls');
  const width = page.getByRole('textbox', { name: 'Width' });
  await width.fill('2 m');
  await page.keyboard.press('Enter');
  await expect(item(page, 'Right')).toHaveAttribute('aria-valuetext', /^1\.70 m/);
  await width.fill('90 m');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('60 m');
  await page.keyboard.press('Escape');
  await expect(page.getByText(/reverberation 0\.\d+ s/)).toBeVisible();
  await panel(page, 'Standing waves');
  await expect(page.getByRole('table')).toContainText('0 · 1 · 0');
  await panel(page, 'Methods');
  await expect(page.getByText(/would spread by/)).toBeVisible();
});

test('the best places are looked for and taken, and the spread is then what was promised', async ({
  page,
  server,
}) => {
  await openPlace(page, server, 'Best');
  await page.getByRole('button', { name: /^A room/ }).click();
  await panel(page, 'Best places');
  await page.getByRole('button', { name: 'Find the best places' }).click();
  const first = page.getByRole('list', { name: 'Best places' }).getByRole('listitem').first();
  await expect(first).toContainText('1.');
  await expect(page.getByText(/places tried\./)).toBeVisible();
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  // A place that may not be stood in is not among those that are found.
  const tried = await page.getByText(/places tried\./).textContent();
  await page.getByRole('button', { name: 'Allow an area' }).click();
  await page.getByRole('textbox', { name: 'To the right' }).fill('1.5 m');
  await page.keyboard.press('Enter');
  await expect(page.getByText('search again')).toBeVisible();
  await page.getByRole('button', { name: 'Find the best places' }).click();
  await expect(page.getByText(/places tried\./)).not.toHaveText(tried ?? '');
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  const promised = /1\. (\d+\.\d) dB/.exec((await first.textContent()) ?? '')?.[1];
  await page.getByRole('button', { name: 'Use place 1' }).click();
  await panel(page, 'Seats');
  await expect(page.getByText(`The room spreads by ${promised} dB`)).toBeVisible();
});

test('a car says its lift and the open how long the battery lasts; ears and neighbours are told', async ({
  page,
  server,
}) => {
  await openPlace(page, server, 'Car and field');
  await page.getByRole('button', { name: /^A car/ }).click();
  await panel(page, 'Walls');
  await expect(page.getByRole('table')).toContainText('rule of thumb');
  await page.getByRole('radio', { name: 'From the side' }).click();
  await expect(item(page, 'Driver')).toHaveAttribute('aria-valuetext', /above the floor/);
  await page.getByRole('button', { name: 'More of places' }).click();
  await page.getByRole('menuitem', { name: 'New place outdoors' }).click();
  await page.getByRole('button', { name: 'More of places' }).click();
  await page.getByRole('menuitem', { name: 'Steer a pair to the front' }).click();
  await expect(item(page, 'Cabinet 2')).toHaveAttribute('aria-valuetext', /, -\d\.\d\d m up the plan/);
  await page.getByRole('button', { name: 'More of places' }).click();
  await page.getByRole('menuitem', { name: 'History of this place …' }).click();
  await page
    .getByRole('button', { name: /^Bring back: the state of/ })
    .first()
    .click();
  await expect(item(page, 'Cabinet 2')).toHaveCount(0);
  await panel(page, 'Battery');
  await expect(page.getByText(/ W drawn, /)).toBeVisible();
  await page.getByRole('textbox', { name: 'Idle' }).fill('40 W');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Peaks at clipping/)).toContainText('h');
  await panel(page, 'Ears');
  await expect(page.getByText(/may last/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Usual walls' }).selectOption({ index: 4 });
  await expect(page.getByText(/By mass law, rough/)).toBeVisible();
  // Both places are there to be chosen, and one is archived and brought back.
  await expect(page.getByRole('combobox', { name: 'Heard in' }).locator('option')).toHaveCount(3);
  await page.getByRole('button', { name: 'More of places' }).click();
  await page.getByRole('menuitem', { name: 'Archive this place' }).click();
  await page.getByRole('button', { name: 'Bring back Field' }).click();
  await expect(item(page, 'Front')).toBeVisible();
});

test('the brief may ask at the seats, and a preset is a condition', async ({ page, server }) => {
  await openPlace(page, server, 'At the seats');
  await page.getByRole('button', { name: /^A room/ }).click();
  const chip = page.getByRole('button', { name: /^Loudness, clean/ });
  await expect(chip).toContainText('2 m');
  await page.getByRole('checkbox', { name: /is meant at these seats/ }).check();
  await expect(chip).toContainText(/at the seats|short/);
  await expect(chip).not.toContainText('2 m');
});

test('a place that could not be sent is there after a reload, and is sent then', async ({ page, server }) => {
  const id = await openPlace(page, server, 'Unsent');
  await page.route('**/api/v1/documents/**', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await page.getByRole('button', { name: /^A car/ }).click();
  await expect(page.getByRole('status')).toContainText('Not saved yet');
  expect(await placesOf(server, id)).toHaveLength(0);
  await page.unroute('**/api/v1/documents/**');
  await page.reload();
  await expect(item(page, 'Driver')).toBeVisible();
  await expect.poll(async () => (await placesOf(server, id))[0]?.name).toBe('Car');
});

test('the place is whole for readers in both themes', async ({ page, server }) => {
  await openPlace(page, server, 'Readers');
  await page.getByRole('button', { name: /^A room/ }).click();
  await expect(lane(page, 'At the seats')).toBeVisible();
  await violated(page, 'the place');
  for (const name of ['Walls', 'Standing waves', 'Best places', 'Ears', 'Methods']) {
    await panel(page, name);
    await violated(page, name, 'section[aria-label="Place"]');
  }
});
