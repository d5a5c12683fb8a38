import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
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

const chain = (page: Page): Locator => page.getByRole('list', { name: 'Signal chain' });
const lane = (page: Page, name: string): Locator => page.getByRole('region', { name, exact: true });

/** A build of two demo variants on the signal stage. */
async function openSignal(page: Page, server: Server, name: string): Promise<string> {
  const build = await server.makeBuild(name, undefined, BRIEF);
  await openBuild(page, server, build.id);
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Signal' }).click();
  await expect(chain(page)).toContainText('160 W into 4 Ω');
  return build.id;
}

const filtersOf = async (server: Server, id: string) =>
  (await server.open(id)).variants[0]?.content.signal?.filters ?? [];

async function addFilter(page: Page, kind: string): Promise<void> {
  await page.getByRole('button', { name: 'Filter: Add a filter' }).click();
  await page.getByRole('menuitem', { name: kind, exact: true }).click();
}

test('a filter moves every lane at once, by its handle, its fields and keys, and is kept', async ({
  page,
  server,
}) => {
  const id = await openSignal(page, server, 'Filters');
  await expect(lane(page, 'Drive')).toHaveCount(0);
  await addFilter(page, 'Parametric band');
  await expect(chain(page)).toContainText('1 Parametric band');
  await expect(page.locator('[data-conditions]')).toContainText('through its filters');
  await expect(lane(page, 'Drive')).toBeVisible();
  const handle = page.getByRole('slider', { name: '1 Parametric band, handle' });
  await expect(handle).toHaveAttribute('aria-valuetext', '50 Hz, −3 dB, Q 1.4');

  // Keys move its gain and frequency, the wheel its Q, a drag both at once.
  await handle.focus();
  await page.keyboard.press('ArrowDown');
  await expect(handle).toHaveAttribute('aria-valuetext', '50 Hz, −3.5 dB, Q 1.4');
  await page.keyboard.press('ArrowRight');
  await expect(handle).toHaveAttribute('aria-valuetext', '50.5 Hz, −3.5 dB, Q 1.4');
  await handle.hover();
  await page.mouse.wheel(0, -100);
  await expect(handle).toHaveAttribute('aria-valuetext', '50.5 Hz, −3.5 dB, Q 1.5');
  const from = await handle.boundingBox();
  if (!from) throw new Error('no handle');
  await page.mouse.move(from.x + 12, from.y + 12);
  await page.mouse.down();
  await page.mouse.move(from.x + 72, from.y - 3, { steps: 5 });
  await page.mouse.up();
  await expect(handle).not.toHaveAttribute('aria-valuetext', /^50\.5 Hz/);
  const said = await handle.getAttribute('aria-valuetext');
  await expect.poll(async () => (await filtersOf(server, id))[0]?.frequency).toBe(said?.split(',')[0]);

  // A field does the same, and one step back undoes one step.
  await page.getByRole('textbox', { name: 'Frequency', exact: true }).fill('33 Hz');
  await page.keyboard.press('Enter');
  await expect(handle).toHaveAttribute('aria-valuetext', /^33 Hz/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(handle).toHaveAttribute('aria-valuetext', said ?? '');
  await page.getByRole('button', { name: 'Bypass' }).click();
  await expect(handle).toHaveCount(0);
  await expect(lane(page, 'Drive')).toHaveCount(0);
  await expect.poll(async () => (await filtersOf(server, id))[0]?.bypassed).toBe(true);
  await page.getByRole('button', { name: 'Remove this filter' }).click();
  await expect.poll(() => filtersOf(server, id)).toEqual([]);
});

test('on the bench there are no filters, and a boost below the tuning says what it costs', async ({
  page,
  server,
}) => {
  await openSignal(page, server, 'Boost');
  await addFilter(page, 'Parametric band');
  await page.getByRole('textbox', { name: 'Frequency', exact: true }).fill('20 Hz');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Gain', exact: true }).fill('6 dB');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Boosts below the tuning of \d+ Hz: at \d+ Hz by [56]\.\d dB/)).toBeVisible();
  await expect(chain(page)).toContainText('boosts below the tuning');
  await page.getByRole('radiogroup', { name: 'Conditions' }).getByText('On the bench').click();
  await expect(page.locator('[data-conditions]')).toHaveText('2.83 V, half space');
  await expect(lane(page, 'Drive')).toHaveCount(0);
});

test('what protects the cone is offered, put in, and then no more is needed', async ({ page, server }) => {
  const id = await openSignal(page, server, 'Protect');
  const help = page.getByRole('region', { name: 'Filters that would help' });
  await expect(help).toContainText(
    /High-pass \d+\.\d Hz, 24 dB\/octave: the lowest that keeps the cone within/,
  );
  await help.getByRole('button', { name: 'Add: Protect the cone' }).click();
  await expect(help).toContainText('No high-pass is needed');
  await expect
    .poll(async () => (await filtersOf(server, id))[0])
    .toMatchObject({ kind: 'high_pass', order: 4 });
  await violated(page, 'signal stage with a filter');
});

test('the amplifier that is chosen is the one of strip, limits and verdicts', async ({ page, server }) => {
  const id = await openSignal(page, server, 'Amplifier');
  await page.getByText('The amplifier of the brief; take a usual kind …').click();
  await page.getByRole('button', { name: 'Use Small class D, 50 W' }).click();
  await expect(chain(page)).toContainText('50 W into 4 Ω');
  await expect(page.locator('[data-conditions]')).toContainText('50 W into 4 Ω (14.1 V)');
  await expect
    .poll(async () => (await server.open(id)).variants[0]?.content.signal?.amplifier)
    .toMatchObject({ power_4: '50 W', minimum_load: '4 ohm', output_resistance: '0.08 ohm' });
  const minimum = page.getByRole('textbox', { name: 'Minimum load', exact: true });
  await minimum.fill('8 ohm');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Amplifier' })).toContainText('Load: does not suit');
  await expect(page.locator('[data-figure="brief-load"]')).toContainText("below the amplifier's 8 Ω");
  // A value that cannot be is named where it stands.
  await minimum.fill('900 ohm');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('64');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'As in the brief' }).click();
  await expect(chain(page)).toContainText('160 W into 4 Ω');
});

test('passive parts by the textbook say what they really do, heat up, and take the values that are sold', async ({
  page,
  server,
}) => {
  const id = await openSignal(page, server, 'Parts');
  await page.getByRole('button', { name: 'Parts: Add passive parts' }).click();
  await page.getByRole('menuitem', { name: /^Coil and capacitor: Butterworth/ }).click();
  await expect(page.getByRole('region', { name: 'Part 1' })).toContainText(/W of heat/);
  const parts = async () => (await server.open(id)).variants[0]?.content.signal?.parts ?? [];
  await expect.poll(async () => (await parts()).length).toBe(2);
  await page
    .getByRole('button', { name: /\(E12\)$/ })
    .first()
    .click();
  await expect.poll(async () => (await parts())[0]?.inductance).toMatch(/^(10|12|15) mH$/);
  await page.getByRole('radiogroup', { name: 'Wiring of the part' }).getByText('Trap').click();
  await page.getByRole('textbox', { name: 'C', exact: true }).fill('220 uF');
  await page.keyboard.press('Enter');
  await expect(chain(page)).toContainText('Trap');
  await page.getByRole('button', { name: 'Remove this part' }).click();
  await expect.poll(async () => (await parts()).length).toBe(1);
});

test('filters leave as biquads that say how near they are, as a table and a document', async ({
  page,
  server,
}) => {
  await openSignal(page, server, 'Biquads');
  await addFilter(page, 'High-pass');
  await page.getByRole('button', { name: 'Biquads for a processor …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Biquads for a processor' });
  await expect(dialog.getByRole('row')).toHaveCount(3);
  await expect(dialog).toContainText(/These lie within .* of what is drawn/);
  await violated(page, 'biquads', '[role="dialog"]');
  const download = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'CSV' }).click();
  const text = readFileSync(await (await download).path(), 'utf8');
  expect(text.split('\n')[0]).toBe('filter,b0,b1,b2,a1,a2');
  expect(text).toContain('High-pass 20 Hz, Butterworth, 24 dB/octave');
  await dialog.getByRole('combobox', { name: 'Sample rate' }).selectOption('96000');
  const saved = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'JSON' }).click();
  expect(JSON.parse(readFileSync(await (await saved).path(), 'utf8')).sample_rate).toBe(96000);
});

test('a filter that was measured is read from a file, looked at, and plays', async ({ page, server }) => {
  const id = await openSignal(page, server, 'Measured');
  await page.getByRole('button', { name: 'Filter: Add a filter' }).click();
  await page.getByRole('menuitem', { name: 'As measured, from a file …' }).click();
  const dialog = page.getByRole('dialog', { name: 'A measured filter' });
  const choose = async (name: string, text: string) => {
    const chooser = page.waitForEvent('filechooser');
    await dialog.getByRole('button', { name: 'Choose a file …' }).click();
    await (await chooser).setFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  };
  await choose('notes.txt', 'bought a longer cable');
  await expect(dialog.getByRole('alert')).toContainText('no rows of frequency and magnitude');
  await choose('receiver.txt', 'Hz;dB;Grad\n5;0,0;0\n80;-3,0;-90\n160;-12,1;-150\n500;-40;-175\n');
  await expect(dialog).toContainText('4 rows, 5 to 500 Hz; semicolons between, decimal comma');
  await expect(dialog.getByRole('figure', { name: 'The measured filter' })).toBeVisible();
  await violated(page, 'measured filter', '[role="dialog"]');
  await dialog.getByRole('button', { name: 'Add it as a filter' }).click();
  await expect(chain(page)).toContainText('1 As measured');
  await expect.poll(async () => (await filtersOf(server, id))[0]?.trace?.length).toBe(4);
  await expect(lane(page, 'Drive')).toBeVisible();
});

test('presets are kept by name, used, undone, archived and brought back, and travel with the build', async ({
  page,
  server,
}) => {
  const id = await openSignal(page, server, 'Presets');
  await page.getByRole('button', { name: 'Presets …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Presets' });
  await dialog.getByRole('button', { name: 'Rock', exact: true }).click();
  await expect(dialog.getByRole('list', { name: 'Presets' })).toContainText(
    'High-pass 25 Hz, Low shelf 40 Hz',
  );
  await violated(page, 'presets', '[role="dialog"]');
  await dialog.getByRole('button', { name: 'Use Rock' }).click();
  await expect(chain(page)).toContainText('2 Low shelf');
  await expect.poll(async () => (await filtersOf(server, id)).length).toBe(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(chain(page)).not.toContainText('Low shelf');
  await addFilter(page, 'Low-pass');
  await page.getByRole('button', { name: 'Presets …' }).click();
  await dialog.getByRole('textbox', { name: 'Save the filters of this variant as' }).fill('Mooring at night');
  await dialog.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(dialog.getByRole('listitem')).toHaveCount(2);
  await dialog.getByRole('button', { name: 'Archive Rock' }).click();
  await expect(dialog.getByRole('listitem')).toHaveCount(1);
  await dialog.getByRole('button', { name: 'Bring back Rock' }).click();
  await expect(dialog.getByRole('listitem')).toHaveCount(2);
  const names = async () => {
    const file = await server.call<{ presets?: { name: string }[] }>('GET', `/builds/${id}/build.json`);
    return (file.presets ?? []).map(({ name }) => name).sort();
  };
  await expect.poll(names).toEqual(['Mooring at night', 'Rock']);
  await page.reload();
  await page.getByRole('button', { name: 'Presets …' }).click();
  await expect(dialog.getByRole('listitem')).toHaveCount(2);
});

test('an amplifier of a usual kind takes room in the box, brings its filters, and one for later is judged', async ({
  page,
  server,
}) => {
  const id = await openSignal(page, server, 'Amplifier');
  const signal = async () => (await server.open(id)).variants[0]?.content.signal;
  await page.getByText('The amplifier of the brief; take a usual kind …').click();
  await page.getByRole('button', { name: 'Use Plate, 150 W' }).click();
  await expect(chain(page)).toContainText('150 W into 4 Ω');
  await expect(page.getByRole('textbox', { name: 'Depth' })).toHaveValue('90 mm');
  await expect(page.getByRole('region', { name: 'Amplifier' }).getByText(/^In the box:/)).toBeVisible();
  await page.getByRole('checkbox', { name: 'its back is open: give it a chamber' }).check();
  await expect.poll(async () => (await signal())?.amplifier?.mounting?.open_back).toBe(true);
  await page.getByText('Built-in filters').click();
  await page.getByRole('button', { name: 'Subsonic filter' }).click();
  const built = page.getByRole('list', { name: 'Built-in filters' }).getByRole('listitem');
  await expect(built).toHaveCount(1);
  await expect(page.locator('[data-conditions]')).toContainText('through its filters');
  await page.getByRole('button', { name: 'An amplifier for later …' }).click();
  const later = page.getByRole('region', { name: 'Later amplifier' });
  await expect(later).toContainText('where the amplifier is what limits it');
  await later.getByRole('textbox', { name: 'Later, Into 4 Ω' }).fill('50 W');
  await page.keyboard.press('Enter');
  await expect(later).toContainText('−4.8 dB');
  await violated(page, 'amplifier', 'section[aria-label="Amplifier"]');
  expect((await signal())?.later_amplifier?.power_4).toBe('50 W');
});

test('sub and mains are added up, and the delay and polarity that are best are set', async ({
  page,
  server,
}) => {
  const id = await openSignal(page, server, 'Mains');
  await addFilter(page, 'Low-pass');
  await page.getByRole('button', { name: 'Crossover to the mains …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Crossover to the mains' });
  await dialog.getByRole('button', { name: 'Describe the mains' }).click();
  await expect(dialog.getByRole('figure', { name: /^Sub and mains around 80 Hz/ })).toBeVisible();
  await dialog
    .getByRole('combobox', { name: 'High-pass of the mains' })
    .selectOption({ label: 'Linkwitz-Riley, 24 dB/octave' });
  // Measured ones take the place of those that are stated.
  const chooser = page.waitForEvent('filechooser');
  await dialog.getByRole('button', { name: 'Their response from a file …' }).click();
  const rows = [20, 40, 80, 160, 320, 500].map((frequency) => `${frequency} ${frequency < 60 ? 75 : 85} 0`);
  await (await chooser).setFiles({
    name: 'mains.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(rows.join('\n')),
  });
  await expect(dialog.getByText('As measured')).toBeVisible();
  await expect(dialog.getByRole('textbox', { name: 'Mains F3', exact: true })).toHaveCount(0);
  await dialog.getByRole('button', { name: 'As stated' }).click();
  await dialog.getByRole('textbox', { name: 'Sub distance', exact: true }).fill('1 m');
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('status')).toContainText('apart instead of');
  await violated(page, 'crossover', '[role="dialog"]');
  await dialog.getByRole('button', { name: 'Set it on the sub' }).click();
  await expect(dialog.getByRole('status')).toContainText('no setting of the sub does better');
  const filters = await filtersOf(server, id);
  expect(filters.slice(1).every(({ kind }) => kind === 'delay' || kind === 'invert')).toBe(true);
  await expect.poll(async () => (await filtersOf(server, id)).length).toBeGreaterThan(1);
});
