import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { RawBrief, RawDesign } from '../src/schema/types';
import { expect, figure, kept, openBuild, type Server, test } from './support';

const BRIEF: RawBrief = {
  space: 'half',
  lowest: '27 Hz',
  crossover: '90 Hz',
  loudness: '98 dB',
  distance: '1 m',
  width: '60 cm',
  height: '50 cm',
  depth: '50 cm',
  amplifier_power: '160 W',
  amplifier_load: '4 ohm',
  air_noise: 'straight',
};

const briefed = (server: Server, name: string, brief: RawBrief = BRIEF) =>
  server.makeBuild(name, undefined, brief);

const card = (page: Page, name: string) => page.getByRole('button', { name: `Work on ${name}` });

test('a chip that is short opens to what fixes it, and a click makes the variant that does', async ({
  page,
  server,
}) => {
  const build = await briefed(server, 'Mending');
  await openBuild(page, server, build.id);
  const lowest = figure(page, 'brief-lowest');
  await expect(lowest).toContainText('too high');
  await lowest.click();
  const suggestions = page.getByRole('region', { name: 'Ways to fix it' });
  const first = suggestions.getByRole('listitem').first();
  await expect(first).toContainText('→');
  await expect(page.getByRole('region', { name: 'How is this worked out?' })).toContainText('Lref');
  const reached = ((await first.innerText()).match(/→ ([\d.]+ Hz)/) ?? [])[1] ?? 'none';
  await first.getByRole('button', { name: /^Try it: / }).click();
  await expect(lowest).toContainText(reached);
  await expect(lowest).toContainText('asked: 27.0 Hz');
  await expect(page.getByRole('textbox', { name: 'Name of the variant' })).toHaveValue(/^Slot, all-round, /);
  expect((await server.open(build.id)).variants).toHaveLength(3);
});

test('a brief that asks too much of the amplifier can be changed from its chip', async ({ page, server }) => {
  const build = await briefed(server, 'Power', {
    ...BRIEF,
    lowest: '45 Hz',
    loudness: '106 dB',
    amplifier_power: '60 W',
  });
  await openBuild(page, server, build.id);
  const loud = figure(page, 'brief-loudness');
  await expect(loud).toContainText('short');
  await loud.click();
  await page.getByRole('button', { name: /^Change the brief: .*power of the amplifier/ }).click();
  await expect(loud).toContainText('asked: 106 dB');
  const after = await server.open(build.id);
  expect(after.brief?.amplifier_power).not.toBe('60 W');
});

test('lanes are folded, moved, enlarged and zoomed, and stay so', async ({ page, server }) => {
  const build = await server.makeBuild('Lanes');
  await openBuild(page, server, build.id);
  const lane = (name: string) => page.getByRole('region', { name, exact: true });
  const height = async (name: string) => (await lane(name).boundingBox())?.height ?? 0;
  const choose = async (name: string, what: string) => {
    await lane(name).getByRole('button', { name }).click();
    await page.getByRole('menuitem', { name: what }).click();
  };
  await choose('Air speed', 'Fold away');
  await expect.poll(() => height('Air speed')).toBeLessThan(30);
  await choose('Group delay', 'Move up');
  await expect
    .poll(async () => (await lane('Group delay').boundingBox())?.y ?? 0)
    .toBeLessThan((await lane('Impedance').boundingBox())?.y ?? 0);
  await choose('SPL', 'Set the range …');
  await page.getByRole('textbox', { name: 'Lowest' }).fill('110');
  await page.getByRole('textbox', { name: 'Highest' }).fill('80');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('"110" to "80" is no range');
  await page.getByRole('textbox', { name: 'Lowest' }).fill('60');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await page.reload();
  await expect.poll(() => height('Air speed')).toBeLessThan(30);
  await choose('Impedance', 'Maximise');
  await expect.poll(() => height('Impedance')).toBeGreaterThan(300);
  await expect.poll(() => height('SPL')).toBeLessThan(30);
  await choose('Impedance', 'Back to all lanes');
  await page.keyboard.press('Alt+3');
  await expect.poll(() => height('Air speed')).toBeGreaterThan(50);

  await page.keyboard.press('Alt+i');
  await expect(page.getByRole('button', { name: 'Show all', exact: true })).toBeVisible();
  await page.keyboard.press('Alt+0');
  await expect(page.getByRole('button', { name: 'Show all', exact: true })).toHaveCount(0);
});

test('the lanes are taken away as numbers, as pictures and over time', async ({ page, server }) => {
  const build = await server.makeBuild('Away');
  await openBuild(page, server, build.id);
  const choose = async (what: string | RegExp, role: 'menuitem' | 'menuitemcheckbox' = 'menuitem') => {
    await page.getByRole('button', { name: 'Lanes', exact: true }).click();
    await page.getByRole(role, { name: what }).click();
  };
  await choose('Values as a table …');
  const table = page.getByRole('dialog', { name: 'Values of the lanes' });
  await expect(table.getByRole('row', { name: /^SPL, Slot, all-round/ })).toBeVisible();
  await expect(table.getByRole('row')).toHaveCount(13);
  await page.keyboard.press('Escape');

  const svg = page.waitForEvent('download');
  await choose('Picture (SVG)');
  const file = await (await svg).path();
  const text = readFileSync(file, 'utf8');
  expect(text).toContain('<svg');
  for (const words of ['Away', 'Slot, all-round', 'Impedance', 'E1']) expect(text).toContain(words);
  const png = page.waitForEvent('download');
  await choose('Picture (PNG)');
  expect(
    readFileSync(await (await png).path())
      .subarray(1, 4)
      .toString(),
  ).toBe('PNG');

  await choose(/^Burst at the cursor/, 'menuitemcheckbox');
  await expect(page.getByRole('region', { name: /^Burst, 41 Hz/ })).toBeVisible();
  await choose('Step over time', 'menuitemcheckbox');
  await expect(page.getByRole('img', { name: /^Step over time: Slot, all-round up to/ })).toBeVisible();
  await choose('Name peaks and dips', 'menuitemcheckbox');
  await expect(page.getByRole('region', { name: 'Impedance' })).toContainText(/Ω · 1\d(\.\d)? Hz/);
});

test('every page is printed as it is, without its navigation', async ({ page, server }) => {
  const build = await server.makeBuild('On paper');
  await page.emulateMedia({ media: 'print' });
  for (const [path, shown] of [
    ['/', page.getByRole('heading', { name: 'On paper' })],
    ['/drivers', page.getByRole('row').nth(3)],
    ['/jobs', page.getByRole('heading', { name: 'Jobs' })],
    [`/builds/${build.id}`, page.getByRole('list', { name: 'Figures' })],
    [`/builds/${build.id}/box`, page.getByRole('group', { name: /of the box$/ })],
  ] as const) {
    await page.goto(`${server.address}${path}`);
    await expect(shown).toBeVisible();
    await expect(page.getByRole('navigation', { name: 'Places' })).toBeHidden();
  }
});

test('a sheet is printed with the picture alone', async ({ page, server }) => {
  const build = await server.makeBuild('Printed');
  await openBuild(page, server, build.id);
  await page.evaluate(() => {
    window.print = () => undefined;
  });
  await page.getByRole('button', { name: 'Lanes', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Print …' }).click();
  await page.emulateMedia({ media: 'print' });
  await expect(page.locator('.print-sheet svg')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Figures' })).toBeHidden();
});

test('one value is turned to see what it does, and what is liked is taken', async ({ page, server }) => {
  const build = await server.makeBuild('Sweep');
  await openBuild(page, server, build.id);
  await page.getByRole('button', { name: 'What if …' }).click();
  const dialog = page.getByRole('dialog', { name: 'What if: one value varied' });
  await expect(dialog.getByRole('row', { name: /44 l now/ })).toBeVisible();
  await dialog.getByRole('combobox', { name: 'Value to vary' }).selectOption('tuning');
  await expect(dialog.getByRole('row', { name: /29 Hz now/ })).toBeVisible();
  const against = dialog.getByRole('region', { name: 'Figures against tuning' });
  await expect(against.getByRole('figure', { name: /^Port length: \d+ mm to \d+ mm/ })).toBeVisible();
  await dialog.getByRole('textbox', { name: 'from' }).fill('24 litres');
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('alert')).toContainText('litres');
  await dialog.getByRole('textbox', { name: 'from' }).fill('24 Hz');
  await page.keyboard.press('Enter');
  await dialog.getByRole('button', { name: 'Use 24 Hz' }).click();
  await expect(figure(page, 'fb')).toContainText('24 Hz');
  await expect.poll(async () => (await kept(server, build)).content.enclosure.tuning).toBe('24 Hz');
});

test('how sure a prediction is, is said in words and shown as a band', async ({ page, server }) => {
  const build = await briefed(server, 'Spread');
  await openBuild(page, server, build.id);
  await page.keyboard.press('Alt+h');
  const dialog = page.getByRole('dialog', { name: 'How sure is it?' });
  await expect(dialog).toContainText(/F3 is fairly sure: 19 of 20/);
  await expect(dialog).toContainText(/reach(es)? the 27.0 Hz/);
  const width = async () => {
    const cells = await dialog.getByRole('row', { name: /^F3/ }).getByRole('cell').allInnerTexts();
    return Number.parseFloat(cells[3] ?? '') - Number.parseFloat(cells[1] ?? '');
  };
  const usual = await width();
  await dialog.getByRole('textbox', { name: 'Fs' }).fill('25');
  await page.keyboard.press('Enter');
  await expect.poll(width).toBeGreaterThan(usual * 1.3);
});

test('slow motion shows what moves and says what it means', async ({ page, server }) => {
  const build = await server.makeBuild('Motion');
  await openBuild(page, server, build.id);
  const begin = page.getByRole('button', { name: 'Slow motion' });
  await begin.press('Enter');
  const words = page.getByRole('region', { name: 'Slow motion' });
  await expect(words.getByRole('button', { name: 'Stop' })).toBeFocused();
  await words.getByRole('button', { name: 'At the tuning' }).click();
  await expect(words).toContainText('does the work');
  await words.getByRole('button', { name: 'Below the tuning' }).click();
  await expect(words).toContainText('cancel');
  await words.getByRole('button', { name: 'Stop' }).click();
  await words.getByRole('slider', { name: 'Moment' }).focus();
  await page.keyboard.press('End');
  await expect(words.getByRole('slider')).toHaveAttribute('aria-valuetext', '350 degrees of the cycle');
  await words.getByRole('button', { name: 'Close' }).press('Enter');
  await expect(page.getByRole('tab', { name: 'Cabinet' })).toBeVisible();
  await expect(begin).toBeFocused();
});

test('the drawing is pulled by its grips, with pointer and keys', async ({ page, server }) => {
  const build = await server.makeBuild('Grips');
  await openBuild(page, server, build.id);
  const grip = page.getByRole('slider', { name: 'Length of port 1' });
  const place = await grip.boundingBox();
  if (!place) throw new Error('no grip');
  await page.mouse.move(place.x + place.width / 2, place.y + place.height / 2);
  await page.mouse.down();
  await page.mouse.move(place.x + place.width / 2 + 12, place.y + place.height / 2, { steps: 4 });
  await page.mouse.up();
  const length = page.getByRole('textbox', { name: 'Port length' });
  await expect(length).not.toHaveValue('447.6 mm');
  await expect
    .poll(async () => (await kept(server, build)).content.enclosure.ports?.[0]?.length ?? null)
    .not.toBeNull();
  expect((await kept(server, build)).revision).toBe(2);
  const pulled = await length.inputValue();
  await grip.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(length).not.toHaveValue(pulled);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(length).toHaveValue('447.6 mm');
});

test('every figure of a variant is worked out on one sheet', async ({ page, server }) => {
  const build = await server.makeBuild('Worked out');
  await openBuild(page, server, build.id);
  const f3 = (await figure(page, 'f3').innerText()).match(/[\d.]+ Hz/)?.[0] ?? 'none';
  await page.keyboard.press('Alt+q');
  const sheet = page.getByRole('dialog', { name: 'Figures of Slot, all-round, worked out' });
  await expect(sheet).toContainText(f3);
  // The length of the port with the values that it came from.
  await expect(sheet).toContainText('Port length');
  await expect(sheet).toContainText('447.6 mm');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^More for Sealed/ }).click();
  await page.getByRole('menuitem', { name: 'How its figures are worked out …' }).click();
  await expect(page.getByRole('dialog', { name: /^Figures of Sealed/ })).toContainText('Qtc');
});

test('variants are put in order, compared, looked back on and brought back', async ({ page, server }) => {
  const build = await server.makeBuild('In stock');
  await openBuild(page, server, build.id);
  const names = () => page.getByRole('button', { name: /^Work on / }).allInnerTexts();
  await page.getByRole('button', { name: 'More for Slot, all-round' }).click();
  await page.getByRole('menuitem', { name: 'Move right' }).click();
  await expect.poll(async () => (await names())[0]).toContain('Sealed');
  await page.reload();
  await expect.poll(async () => (await names())[0]).toContain('Sealed');
  await card(page, 'Slot, all-round').click();

  await page.keyboard.press('Alt+x');
  const compared = page.getByRole('dialog', { name: 'Variants compared' });
  await expect(compared.getByRole('row', { name: /^Kind of cabinet/ })).toContainText('sealed');
  await expect(compared.getByRole('row', { name: /^F3/ })).toContainText('28.3 Hz');
  await expect(compared.getByRole('row', { name: /^Fs/ })).toHaveCount(0);
  await page.keyboard.press('Escape');

  const volume = page.getByRole('textbox', { name: 'Volume Vb' });
  await volume.fill('52 l');
  await volume.press('Enter');
  await expect.poll(async () => (await kept(server, build, 1)).content.enclosure.volume).toBe('52 l');
  await page.keyboard.press('Alt+y');
  const history = page.getByRole('dialog', { name: 'History of Slot, all-round' });
  await expect(history).toContainText('44 l → 52 l');
  await history.getByRole('button', { name: /^As a new variant: the state of/ }).click();
  await expect(volume).toHaveValue('44 l');
  await expect(page.getByRole('textbox', { name: 'Name of the variant' })).toHaveValue('Slot, all-round 2');

  await page.keyboard.press('Alt+Backspace');
  await expect(card(page, 'Slot, all-round 2')).toHaveCount(0);
  await page.waitForTimeout(300);
  await page.keyboard.press('Alt+a');
  await page.getByRole('button', { name: 'Bring back Slot, all-round 2' }).click();
  await expect(card(page, 'Slot, all-round 2')).toBeVisible();
  expect((await server.open(build.id)).variants).toHaveLength(3);
});

test('every command is found by its name', async ({ page, server }) => {
  const build = await server.makeBuild('Palette');
  await openBuild(page, server, build.id);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What do you want to do?').fill('vary one');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'What if: one value varied' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What do you want to do?').fill('work on sealed');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Name of the variant' })).toHaveValue('Sealed, bench berth');
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What do you want to do?').fill('set volume');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Volume Vb' })).toBeFocused();
  await page.keyboard.type('40 l');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await kept(server, build, 1)).content.enclosure.volume).toBe('40 l');
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What do you want to do?').fill('go to the box');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/box(\?|$)/);
  await page.keyboard.press('Alt+Shift+c');
  await expect(page).toHaveURL(new RegExp(`/builds/${build.id}(\\?|$)`));
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What do you want to do?').fill('go to the drivers');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/drivers$/);
  await expect(page.getByRole('row', { name: /Heron/ }).first()).toBeVisible();
  // A key means what the page says once the palette is gone.
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Alt+g');
  const glossary = page.getByRole('dialog', { name: 'Glossary' });
  await glossary.getByRole('textbox', { name: 'Look up' }).fill('qtc');
  await expect(glossary).toContainText('does not overshoot');
});

test('values are read in the units of the reader, and files keep what was typed', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Units');
  await openBuild(page, server, build.id);
  await page.keyboard.press('Alt+u');
  await page.getByRole('combobox', { name: 'Lengths' }).selectOption('in');
  await page.getByRole('combobox', { name: 'Volumes' }).selectOption('cuft');
  await page.getByRole('checkbox', { name: 'with the nearest note' }).check();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('textbox', { name: 'Volume Vb' })).toHaveValue('1.554 cuft');
  await expect(page.getByRole('textbox', { name: 'Slot width' })).toHaveValue('9 27/32 in');
  await expect(page.getByRole('textbox', { name: 'Tuning Fb' })).toHaveValue('29 Hz · B♭0');
  await expect(card(page, 'Slot, all-round')).toContainText('1.55 cuft');
  await page.reload();
  const width = page.getByRole('textbox', { name: 'Slot width' });
  await expect(width).toHaveValue('9 27/32 in');
  expect((await kept(server, build)).content.enclosure.ports?.[0]?.width).toBe('250 mm');
  await width.fill('280 mm');
  await width.press('Enter');
  await expect(width).toHaveValue('280 mm');
  await expect(page.getByRole('textbox', { name: 'Slot height' })).toHaveValue(/in$/);
  await expect
    .poll(async () => (await kept(server, build)).content.enclosure.ports?.[0]?.width)
    .toBe('280 mm');
});

test('thirty variants of very long names leave the workbench usable', async ({ page, server }) => {
  const demo = JSON.parse(
    readFileSync(new URL('../../demo/builds/narrowboat-nook.json', import.meta.url), 'utf8'),
  ) as { variants: RawDesign[] };
  const [design] = demo.variants as [RawDesign];
  const many = Array.from({ length: 30 }, (_, at) => ({
    ...design,
    name: `${'A box under the bench berth that was thought about for long '.repeat(2).slice(0, 112)} ${at + 1}`,
  }));
  const build = await server.makeBuild('Many', many);
  await openBuild(page, server, build.id);
  await expect(page.getByRole('button', { name: /^Work on / })).toHaveCount(30);
  await page.keyboard.press('Alt+p');
  await expect(page.getByRole('button', { name: /^Work on .* 30$/ })).toBeInViewport();
  const overflow = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  );
  expect(overflow).toBeLessThanOrEqual(0);
});

test('on a phone and at twice the size nothing is lost sideways', async ({ page, server }) => {
  const build = await briefed(server, 'Phone');
  for (const [width, height] of [
    [390, 844],
    [640, 400],
  ] as const) {
    await page.setViewportSize({ width, height });
    await openBuild(page, server, build.id);
    const overflow = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    expect(overflow, `${width} wide`).toBeLessThanOrEqual(0);
    await figure(page, 'brief-lowest').click();
    await expect(page.getByRole('region', { name: 'How is this worked out?' })).toBeVisible();
    await page.keyboard.press('Escape');
    await page.getByRole('textbox', { name: 'Volume Vb' }).scrollIntoViewIfNeeded();
    await expect(page.getByRole('textbox', { name: 'Volume Vb' })).toBeInViewport();
    await card(page, 'Sealed, bench berth').scrollIntoViewIfNeeded();
  }
});
