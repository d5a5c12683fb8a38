import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { Family, FamilyEntry } from '../src/model/families';
import { expect, figure, openBuild, type Server, test } from './support';

const tables = JSON.parse(
  readFileSync(new URL('../src/model/quantities.json', import.meta.url).pathname, 'utf8'),
) as { families: FamilyEntry[] };
const familyEntry = (id: Family) => tables.families.find((family) => family.id === id) as FamilyEntry;

/** A woofer that every kind of cabinet has a start for. */
const driver = {
  name: 'Test woofer',
  re: '5.6 ohm',
  fs: '32 Hz',
  qms: 6,
  qts: 0.42,
  vas: '90 l',
  sd: '500 cm2',
  xmax: '6 mm',
  pe: '200 W',
};

const emptyBuild = (server: Server, name: string) => {
  const design = {
    format: 'oak-drum/design',
    version: 2,
    name: 'Plain',
    driver,
    enclosure: { family: 'sealed', volume: '40 l', ql: 15, qa: 50 },
    signal: { drive: { power: '20 W' } },
  };
  return server.makeBuild(name, [design]);
};

/** The figures once they stand still: they follow a change more calmly than the curves. */
async function settledFigures(page: Page): Promise<string> {
  const figures = page.getByRole('list', { name: 'Figures' });
  let text = await figures.innerText();
  for (;;) {
    await page.waitForTimeout(400);
    const next = await figures.innerText();
    if (next === text) return text;
    text = next;
  }
}

async function choose(page: Page, family: Family): Promise<void> {
  await page.getByRole('button', { name: /^Kind of cabinet/ }).click();
  await page.getByRole('radio', { name: familyEntry(family).name, exact: true }).click();
}

/** A value that moves the result, and the group it stands in. */
const TUNED: Record<Family, [string, string, string]> = {
  sealed: ['Cabinet', 'Volume Vb', '55 l'],
  ported: ['Cabinet', 'Tuning Fb', '28 Hz'],
  passive_radiator: ['Radiators', 'Added mass', '120 g'],
  aperiodic: ['Box', 'Vent', '9000 Pa s/m3'],
  bandpass4: ['Front', 'Tuning Fb', '60 Hz'],
  bandpass6_parallel: ['Rear', 'Tuning Fb', '27 Hz'],
  bandpass6_series: ['Front', 'Volume Vb', '35 l'],
  line: ['Segment 1', 'Length', '1.6 m'],
  mass_loaded_line: ['Port', 'Port length', '200 mm'],
  back_horn: ['Horn', 'End area', '2500 cm2'],
  front_horn: ['Rear chamber', 'Volume Vb', '60 l'],
  tapped_horn: ['Taps', 'Driver at', '0.25 m'],
  slot_flare: ['Segment 1', 'End area', '120 cm2'],
  open_baffle: ['Baffle', 'Baffle path', '0.8 m'],
  infinite_baffle: ['Wall', 'Drive', '40 W'],
};

for (const { id, name } of tables.families) {
  test(`${name}: begun at a starting point, tuned, kept, reopened and compared`, async ({ page, server }) => {
    const build = await emptyBuild(server, `Family ${id}`);
    await openBuild(page, server, build.id);
    await choose(page, id);
    const dialog = page.getByRole('dialog', { name: 'Kind of cabinet' });
    await expect(dialog).toContainText(familyEntry(id).good);
    await expect(dialog).toContainText(familyEntry(id).bad);
    await dialog
      .getByRole('button', { name: /^New variant: / })
      .first()
      .click();
    await expect(dialog).toHaveCount(0);
    await expect(page.getByRole('button', { name: `Kind of cabinet: ${name}` })).toBeVisible();
    await expect(page.getByRole('group', { name: /section|unrolled|baffle/i })).toBeVisible();

    const [group, value, typed] = TUNED[id];
    const before = await settledFigures(page);
    await page.getByRole('tab', { name: group, exact: true }).click();
    const input = page.getByRole('textbox', { name: value, exact: true });
    await input.fill(typed);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('list', { name: 'Figures' })).not.toHaveText(before, { useInnerText: true });
    await expect(page.getByRole('status')).toContainText('Saved');
    const after = await settledFigures(page);

    await page.reload();
    await expect(page.getByRole('button', { name: `Kind of cabinet: ${name}` })).toBeVisible();
    await expect(page.getByRole('list', { name: 'Figures' })).toHaveText(after, { useInnerText: true });
    // Beside the plain box, both read at the cursor in every lane.
    await expect(page.getByRole('region', { name: 'SPL' }).getByRole('definition')).toHaveCount(2);
    await expect(page.getByRole('img', { name: /^What limits it/ })).toBeVisible();

    const design = (await server.open(build.id)).variants.at(-1)?.content;
    expect(design?.enclosure.family).toBe(id);
    const report = await server.call<{ figures: { level_peak: { value: number } } }>('POST', '/simulate', {
      design,
    });
    expect(report.figures.level_peak.value).toBeGreaterThan(60);
  });
}

test('a starting point that does not work says why, and what was there comes back', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('No start');
  await openBuild(page, server, build.id);
  await choose(page, 'open_baffle');
  const dialog = page.getByRole('dialog', { name: 'Kind of cabinet' });
  await expect(dialog).toContainText('No start here.');
  await expect(dialog).toContainText('Take a Qts of 0.6 or more');
  await dialog.getByRole('radio', { name: 'Sealed' }).click();
  await dialog.getByRole('button', { name: 'Replace this design: Flattest', exact: true }).click();
  await expect(figure(page, 'qtc')).toContainText('0.707');
  await choose(page, 'ported');
  await dialog.getByRole('button', { name: 'Back to its own values' }).click();
  await expect(page.getByRole('textbox', { name: 'Tuning Fb' })).toHaveValue('29 Hz');
});

test('wishes change where it begins', async ({ page, server }) => {
  const build = await emptyBuild(server, 'Wishes');
  await openBuild(page, server, build.id);
  await choose(page, 'line');
  const starting_points = page.getByRole('list', { name: 'Starting points' });
  await expect(starting_points).toContainText('holds the cone nearly still at 32 Hz');
  await page.getByRole('textbox', { name: 'Lowest note' }).fill('41.2');
  await page.keyboard.press('Enter');
  await expect(starting_points).toContainText('holds the cone nearly still at 41 Hz');
  await page.getByRole('textbox', { name: 'Largest size' }).fill('10 l');
  await page.keyboard.press('Enter');
  await expect(starting_points).toContainText('more than the 10.0 l wished for');
});

test('drivers are paired, wired and loaded on screen', async ({ page, server }) => {
  const build = await emptyBuild(server, 'Motor');
  await openBuild(page, server, build.id);
  const load = figure(page, 'load');
  const alone = Number.parseFloat(await load.locator('span').nth(1).innerText());
  await page.getByRole('tab', { name: 'Drivers' }).click();
  await page.getByRole('textbox', { name: 'In parallel' }).fill('2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Driver 2 × Test woofer · Fs 32 Hz/ })).toBeVisible();
  await expect
    .poll(async () => Number.parseFloat(await load.locator('span').nth(1).innerText()))
    .toBeCloseTo(alone / 2, 0);
  const drawn = page.getByRole('button', { name: 'Driver: choose another' });
  const places = await drawn.count();
  await page.getByRole('combobox', { name: 'Isobaric pairs' }).selectOption('face_to_face');
  await expect(page.getByRole('button', { name: /^Driver 4 × Test woofer/ })).toBeVisible();
  // Behind each place on the baffle stands a second one.
  await expect(drawn).toHaveCount(2 * places);
  await page.getByRole('textbox', { name: 'Added mass' }).fill('40 g');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Driver 4 × Test woofer · Fs 2\d Hz/ })).toBeVisible();
});

test('several ports of different size each have their values', async ({ page, server }) => {
  const build = await server.makeBuild('Two ports');
  await openBuild(page, server, build.id);
  await page.getByRole('button', { name: 'Port', exact: true }).click();
  await page.getByRole('tab', { name: 'Port 2' }).click();
  await page.getByRole('radio', { name: 'Round' }).click();
  await page.getByRole('textbox', { name: 'Diameter' }).fill('50 mm');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Port 2: edit its size' }).focus();
  await page.keyboard.press('Enter');
  const part = page.getByRole('dialog', { name: 'Port 2' });
  await expect(part.getByRole('textbox', { name: 'Diameter' })).toBeFocused();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Remove this port' }).click();
  await expect(page.getByRole('tab', { name: 'Port 2' })).toHaveCount(0);
});

test('a line takes a side pipe and a coupling chamber, and moves its tuning with them', async ({
  page,
  server,
}) => {
  const build = await emptyBuild(server, 'Side pipe');
  await openBuild(page, server, build.id);
  await choose(page, 'line');
  await page.getByRole('button', { name: 'Replace this design: Tapered, filled' }).click();
  const before = await figure(page, 'fb').innerText();
  await page.getByRole('tab', { name: 'Line' }).click();
  await page.getByRole('button', { name: 'Side pipe' }).click();
  await page.getByRole('textbox', { name: 'Pipe length' }).fill('1.2 m');
  await page.keyboard.press('Enter');
  await expect(figure(page, 'fb')).not.toHaveText(before, { useInnerText: true });
  const piped = await figure(page, 'fb').innerText();
  await page.getByRole('textbox', { name: 'Coupling' }).fill('12 l');
  await page.keyboard.press('Enter');
  await expect(figure(page, 'fb')).not.toHaveText(piped, { useInnerText: true });
  await page.getByRole('button', { name: 'Side pipe' }).click();
  await expect(page.getByRole('textbox', { name: 'Pipe length' })).toHaveCount(0);
});
