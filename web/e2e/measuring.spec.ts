// What is measured of a build: with the measuring box, from files, and with the microphone.

import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import type { RawDesign, RawMeasurement } from '../src/schema/types';
import { violated } from './axe';
import { expect, type Server, test } from './support';

/** What is beside the lanes. */
const PANEL = 'section[aria-label="Measuring"]';
const DEMO = new URL('../../demo', import.meta.url).pathname;
/** What a fake microphone hears over and over: silence, a sweep through the organ's cabinet, silence. */
const HEARD = join(tmpdir(), `oak-drum-heard-${process.pid}.wav`);
const PERIOD = 12;
const SWEEP_AT = 6;
const SWEEP = 2;

test.use({
  permissions: ['microphone'],
  launchOptions: {
    executablePath: '/usr/bin/chromium-headless-shell',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-audio-capture=${HEARD}`,
    ],
  },
});

function organ(): RawDesign {
  const file = JSON.parse(readFileSync(`${DEMO}/builds/pit-organ.json`, 'utf8')) as { variants: RawDesign[] };
  return file.variants[0] as RawDesign;
}

const act = (server: Server, command: string) =>
  fetch(`${server.address}/api/v1/measure/rig/act`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ command }),
  });

async function open(page: Page, server: Server, name: string): Promise<string> {
  await act(server, 'fault none');
  await act(server, 'act reset');
  const { id } = await server.makeBuild(name, [organ()]);
  await page.goto(`${server.address}/builds/${id}/measure`);
  return id;
}

const step = (page: Page, name: string) => page.getByRole('article', { name, exact: true });

async function measure(page: Page, name: string): Promise<void> {
  const card = step(page, name);
  const before = await card
    .getByText('✓')
    .textContent({ timeout: 500 })
    .catch(() => null);
  await card.getByRole('button', { name: before ? 'Measure again' : 'Measure', exact: true }).click();
  await expect(card.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(card.getByRole('button', { name: 'Measure again' })).toBeVisible();
}

const finding = (page: Page, words: string | RegExp) =>
  page.getByRole('list', { name: 'Findings' }).getByRole('listitem').filter({ hasText: words });

async function kept(server: Server, build: string): Promise<RawMeasurement[]> {
  const opened = await server.call<{ documents: { kind: string; content: RawMeasurement }[] }>(
    'GET',
    `/builds/${build}`,
  );
  return opened.documents.filter(({ kind }) => kind === 'measurement').map(({ content }) => content);
}

test('the organ is measured, found low with a leak, and mended step by step until nothing is left', async ({
  page,
  server,
}) => {
  const build = await open(page, server, 'Organ on the bench');
  await page.getByRole('radio', { name: 'Everything' }).click();
  await violated(page, 'plan of measurements', PANEL);
  for (const name of [
    'Driver in free air',
    'Driver with a mass on the cone',
    'Box with its port shut',
    'Finished box',
  ]) {
    await measure(page, name);
  }
  await page.getByRole('radio', { name: 'Findings' }).click();
  await expect(finding(page, 'It leaks')).toContainText('QL is 2.3');
  await violated(page, 'findings');
  await expect(finding(page, 'Tuning')).toContainText('too low');
  await expect(finding(page, 'The driver is not what its sheet says')).toContainText('break it in');
  await expect(page.getByText('near fields')).toHaveCount(0);

  const seal = page.getByRole('article').filter({ hasText: 'Seal the leak' });
  await seal.getByRole('button', { name: 'Do it to the simulated box' }).click();
  await measure(page, 'Box with its port shut');
  await measure(page, 'Finished box');
  await page.getByRole('radio', { name: 'Findings' }).click();
  await expect(finding(page, 'Tightness')).toContainText('no leak that matters');

  const cut = page.getByRole('article').filter({ hasText: /Cut each port by \d+ mm/ });
  await cut.getByRole('button', { name: 'Show its lines' }).click();
  await expect(page.getByText(/^cut each port by \d+ mm$/).first()).toBeVisible();
  await cut.getByRole('button', { name: 'Do it to the simulated box' }).click();
  // A new variant, whose box is not measured yet.
  await expect(
    step(page, 'Finished box').getByRole('button', { name: 'Measure', exact: true }),
  ).toBeVisible();
  await measure(page, 'Box with its port shut');
  await measure(page, 'Finished box');
  await page.getByRole('radio', { name: 'Findings' }).click();
  await expect(finding(page, 'As it should be')).toBeVisible();
  await expect(page.getByRole('heading', { name: /Ways to fix it/ })).toHaveCount(0);

  // What was measured before the box was mended is kept.
  await page.getByRole('radio', { name: 'Traces' }).click();
  await expect(page.getByRole('list', { name: 'Traces' }).getByRole('article')).toHaveCount(8);
  await violated(page, 'traces', PANEL);
  await page.getByRole('radio', { name: 'Compare' }).click();
  await expect(page.getByText('No level is measured yet')).toBeVisible();
  await expect.poll(async () => (await kept(server, build)).length).toBe(8);
  // What was done stands in the log, with its steps.
  await page.goto(`${server.address}/builds/${build}/build?show=log`);
  const log = page.getByRole('region', { name: 'Log' }).getByRole('article');
  await expect(log).toHaveCount(2);
  await expect(log.first().getByRole('textbox', { name: 'What was done' })).toHaveValue(
    /^Cut each port by \d+ mm/,
  );
});

test('what three finished boxes were found to be is offered to the next, and taken in one press', async ({
  page,
  server,
}) => {
  const { ql: _, ...enclosure } = organ().enclosure;
  const found = (ql: number): RawDesign => ({
    ...organ(),
    enclosure,
    measured: { found: { of: organ().name, ql: { value: ql, error: 0.3 } } },
  });
  const made = await Promise.all([11, 12, 11.5].map((ql) => server.makeBuild(`Found ${ql}`, [found(ql)])));
  const next = await server.makeBuild('The next one', [{ ...organ(), enclosure }]);
  try {
    await page.goto(`${server.address}/builds/${next.id}/measure?show=learned`);
    const row = page.getByRole('row', { name: /Leakage \(QL\)/ });
    await expect(row).toContainText('3 builds');
    await expect(row).toContainText('usually 7');
    await violated(page, 'learned', PANEL);
    await page.goto(`${server.address}/builds/${next.id}?part=box`);
    const offer = page.getByText(/^Your own boxes say: QL 1[01] \(butt joints, 3 builds\)\.$/);
    await expect(offer).toBeVisible();
    await page.getByRole('button', { name: 'Use it', exact: true }).click();
    await expect(offer).toHaveCount(0);
    await expect
      .poll(async () => (await server.open(next.id)).variants[0]?.content.enclosure.ql)
      .toBeGreaterThanOrEqual(10);
    // One step back takes it away again.
    await page.keyboard.press('Control+z');
    await expect(offer).toBeVisible();
  } finally {
    // Other tests begin in a workshop that has learned nothing.
    for (const { id } of made) await fetch(`${server.address}/api/v1/builds/${id}`, { method: 'DELETE' });
  }
});

test('a sweep that is stopped or fails leaves nothing behind, and says why', async ({ page, server }) => {
  const build = await open(page, server, 'Faults on the bench');
  const card = step(page, 'Finished box');
  await act(server, 'fault unplugged');
  await card.getByRole('button', { name: 'Measure', exact: true }).click();
  await expect(card.getByRole('alert')).toContainText('a lead is off');
  await act(server, 'fault garbage');
  await card.getByRole('button', { name: 'Measure', exact: true }).click();
  await expect(card.getByRole('alert')).toContainText('nothing was kept');
  await act(server, 'fault silent');
  await card.getByRole('button', { name: 'Measure', exact: true }).click();
  await card.getByRole('button', { name: 'Stop' }).click();
  await expect(card.getByRole('button', { name: 'Measure', exact: true })).toBeEnabled();
  await act(server, 'fault none');
  expect(await kept(server, build)).toEqual([]);
  // The smallest set, and a verdict from it.
  await measure(page, 'Finished box');
  await page.getByRole('radio', { name: 'Findings' }).click();
  await expect(finding(page, 'Tuning')).toContainText('Hz');
  await expect(finding(page, 'Not in these traces')).toContainText('Vas');
});

test('a trace from a file is looked at, kept with what is known of it, left out and archived', async ({
  page,
  server,
}) => {
  const build = await open(page, server, 'Files on the bench');
  const rows = Array.from({ length: 300 }, (_, k) => {
    const frequency = 10 * 1.015 ** k;
    const ohm = 6 + 40 / (1 + ((frequency - 38) / 4) ** 2) + 30 / (1 + ((frequency - 15) / 2) ** 2);
    return `${frequency.toFixed(3)};${ohm.toFixed(3)}`.replaceAll('.', ',');
  });
  const file = test.info().outputPath('box.csv');
  writeFileSync(file, ['Frequenz [Hz];Z [ohm]', ...rows].join('\n'));
  await step(page, 'Finished box').getByRole('button', { name: 'From a file…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Finished box' });
  const choosing = page.waitForEvent('filechooser');
  await dialog.getByRole('button', { name: 'Choose a file…' }).click();
  await (await choosing).setFiles(file);
  await expect(dialog.getByText(/300 points, 10 to .* no phase/)).toBeVisible();
  await expect(dialog.getByRole('figure', { name: 'Finished box' })).toBeVisible();
  await violated(page, 'a trace from a file', '[role="dialog"]');
  await dialog.getByRole('textbox', { name: 'Room temperature' }).fill('21');
  await dialog.getByRole('textbox', { name: 'Notes' }).fill('with the grille on');
  await dialog.getByRole('textbox', { name: 'Notes' }).press('Tab');
  await dialog.getByRole('button', { name: 'Keep this measurement' }).click();
  await expect(step(page, 'Finished box').getByText('✓')).toBeVisible();
  await expect
    .poll(async () => (await kept(server, build)).map(({ file, notes }) => [file, notes]))
    .toEqual([['box.csv', 'with the grille on']]);
  await page.getByRole('radio', { name: 'Traces' }).click();
  const trace = page.getByRole('list', { name: 'Traces' }).getByRole('article');
  await expect(trace).toContainText('Room 21');
  const saved = page.waitForEvent('download');
  await trace.getByRole('link', { name: 'As it came' }).click();
  expect(readFileSync(await (await saved).path(), 'utf8')).toContain('Frequenz');
  await trace.getByRole('button', { name: 'Leave out' }).click();
  await expect(trace).toContainText('left out');
  await page.getByRole('radio', { name: 'Findings' }).click();
  await expect(page.getByText(/Nothing is measured yet/)).toBeVisible();
  await page.getByRole('radio', { name: 'Traces' }).click();
  await trace.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByText('Nothing is measured yet.')).toBeVisible();
  await page.getByRole('button', { name: /Undo/ }).click();
  await expect(trace).toBeVisible();
});

test('a damaged file is refused by its name, and nothing is kept', async ({ page, server }) => {
  const build = await open(page, server, 'Damaged files');
  const file = test.info().outputPath('broken.wav');
  writeFileSync(file, 'RIFF....WAVE and no more');
  await step(page, 'Finished box').getByRole('button', { name: 'From a file…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Finished box' });
  const choosing = page.waitForEvent('filechooser');
  await dialog.getByRole('button', { name: 'Choose a file…' }).click();
  await (await choosing).setFiles(file);
  await expect(dialog.getByRole('alert')).toContainText('broken.wav');
  await expect(dialog.getByRole('button', { name: 'Keep this measurement' })).toHaveCount(0);
  expect(await kept(server, build)).toEqual([]);
});

test('the microphone of this machine hears the sweep, and the trace is kept with its recording', async ({
  page,
  server,
}) => {
  const rig = process.env.OAK_DRUM_RIG ?? '';
  const after = PERIOD - SWEEP_AT - SWEEP;
  const numbers = [SWEEP, 5, 1000, SWEEP_AT, after].map(String);
  execFileSync(rig, [`${DEMO}/rig/pit-organ.json`, 'record', 'nearfield_cone', HEARD, ...numbers]);
  const build = await open(page, server, 'Microphone on the bench');
  await page.getByRole('radio', { name: 'Everything' }).click();
  await step(page, 'Close to the cone').getByRole('button', { name: 'With a microphone…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Close to the cone' });
  const opened = Date.now();
  await dialog.getByRole('button', { name: 'Open the microphone' }).click();
  await expect(
    dialog.getByText('Echo cancelling, noise suppression and automatic gain are off.'),
  ).toBeVisible();
  await dialog.getByRole('combobox', { name: 'Length of the sweep' }).selectOption('2');
  await dialog.getByRole('combobox', { name: 'How often' }).selectOption('1');
  // It never hears what is played: the sweep has to come while it listens.
  const wait = SWEEP_AT - 1.2 - (Date.now() - opened) / 1000;
  await page.waitForTimeout(1000 * (wait > 0 ? wait : wait + PERIOD));
  await dialog.getByRole('button', { name: 'Play the sweep' }).click();
  await expect(dialog.getByRole('progressbar', { name: 'Sweep' })).toBeVisible();
  await expect(dialog.getByText(/Heard .* ms after it was played/)).toBeVisible();
  await violated(page, 'a sweep that was heard', '[role="dialog"]');
  await dialog.getByRole('button', { name: 'Keep this measurement' }).click();
  await expect(dialog).toHaveCount(0);
  await expect.poll(async () => (await kept(server, build)).length).toBe(1);
  const [found] = await kept(server, build);
  expect(found?.source).toBe('microphone');
  // As the cabinet is: it rises by about 14 dB from its lowest note to 100 Hz.
  const at = (frequency: number) => found?.points.find(([f = 0]) => f >= frequency)?.[1] ?? 0;
  expect(at(100) - at(20)).toBeGreaterThan(12);
  expect(at(100) - at(20)).toBeLessThan(16);
  await page.getByRole('radio', { name: 'Compare' }).click();
  await expect(page.getByRole('figure', { name: 'Traces beside each other' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Smoothing' }).selectOption('third-octave bands');
  await expect(page.getByRole('row', { name: /near field of the cone 1/ })).toContainText('Hz');
  await violated(page, 'traces beside each other', PANEL);
  const recording = await fetch(`${server.address}/api/v1/recordings/${found?.raw}`);
  expect((await recording.arrayBuffer()).byteLength).toBeGreaterThan(48_000 * 4 * 4);
});
