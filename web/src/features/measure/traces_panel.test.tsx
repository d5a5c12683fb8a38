// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { KeptMeasurement } from '../../model/measurements';
import { preferences } from '../../model/preferences';
import type { Workbench } from '../../model/workbench';
import type { ComparedTraces, RawComparedTraces, RawDesign, RawMeasurement } from '../../schema/types';
import { slot } from '../../testing/nook';
import { ComparePanel } from './ComparePanel';
import { TracesPanel } from './TracesPanel';

let compared: ComparedTraces | undefined;
const asked: RawComparedTraces[] = [];
const saved: { name: string; blob: Blob }[] = [];
vi.mock('../../api/queries/measure', () => ({
  recordingAt: (hash: string) => `/recordings/${hash}`,
  useComparedTraces: (ask: RawComparedTraces) => {
    asked.push(ask);
    return { data: compared, error: null };
  },
}));
vi.mock('../../ui/download', () => ({ save: (name: string, blob: Blob) => void saved.push({ name, blob }) }));
vi.mock('./TraceChart', () => ({ TraceChart: () => null }));
vi.mock('../workbench/Chart', () => ({ Chart: ({ label }: { label: string }) => <p>{label}</p> }));

const textOf = (blob: Blob | undefined): Promise<string> =>
  new Promise((read) => {
    const reader = new FileReader();
    reader.onload = () => read(String(reader.result));
    reader.readAsText(blob as Blob);
  });

const made = (id: string, of: RawMeasurement['of'], more: Partial<RawMeasurement> = {}): KeptMeasurement => ({
  id,
  measurement: {
    of,
    source: 'text',
    at: '2026-05-01T18:30:00Z',
    variant: slot.name,
    points: [[10, 5, 0]],
    ...more,
  } as RawMeasurement,
});

beforeEach(() => {
  compared = undefined;
  asked.splice(0);
  saved.splice(0);
});
afterEach(() => {
  cleanup();
  preferences.set({ units: {} });
});

describe('the traces of a build', () => {
  function open(all: KeptMeasurement[], used: KeptMeasurement[] = [], design: RawDesign = slot) {
    const keep = vi.fn();
    const workbench = { keep } as unknown as Workbench;
    render(<TracesPanel all={all} used={used} design={design} workbench={workbench} />);
    const kept = () => keep.mock.calls.at(-1)?.[0];
    return { keep, kept };
  }
  const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

  it('say which are used, and why the others are not', () => {
    const box = made('a', 'impedance_box');
    open(
      [
        box,
        made('b', 'impedance_box', { variant: 'Closed' }),
        made('c', 'impedance_box', { left_out: true }),
        made('d', 'seat'),
      ],
      [box],
    );
    const words = screen
      .getAllByRole('article')
      .map((card) => card.textContent?.match(/✓ used|of Closed|left out|an earlier one/)?.[0]);
    expect(words).toEqual(['✓ used', 'of Closed', 'left out', 'an earlier one']);
  });

  it('carry what is known of each, in the reader’s units', () => {
    preferences.set({ units: { length: 'in', mass: 'oz' } });
    open([
      made('a', 'nearfield_cone', {
        driver: 2,
        distance: '5 mm',
        added_mass: '28.35 g',
        calibration: 'mic.txt',
        file: 'cone.txt',
        remarks: ['Hum at 50 Hz.'],
      }),
    ]);
    const card = within(screen.getByRole('article'));
    expect(card.getByRole('heading').textContent).toMatch(/, driver 2$/);
    expect(card.getByText('Mass 1 oz · Distance 3/16 in · Calibration mic.txt')).toBeTruthy();
    expect(card.getByText('Hum at 50 Hz.')).toBeTruthy();
    expect(card.getByText(/ · text file · cone\.txt$/)).toBeTruthy();
  });

  it('of another variant can be made this one’s, and those that it was made from need not', () => {
    const other = made('a', 'impedance_box', { variant: 'Closed' });
    const { kept } = open([other]);
    press('It is of this variant');
    expect(kept()).toMatchObject({ id: 'a', content: { variant: slot.name }, archived: false });
    cleanup();
    open([other], [other], { ...slot, measured: { found: { of: 'Closed' } } });
    expect(screen.queryByRole('button', { name: 'It is of this variant' })).toBeNull();
    expect(screen.getByText('✓ used')).toBeTruthy();
  });

  it('are left out and used again without losing anything else', () => {
    const { kept } = open([made('a', 'seat', { notes: 'by the door' })]);
    press('Leave out');
    expect(kept().content).toMatchObject({ left_out: true, notes: 'by the door' });
    cleanup();
    const again = open([made('a', 'seat', { left_out: true, notes: 'by the door' })]);
    press('Use it');
    expect(again.kept().content).not.toHaveProperty('left_out');
    expect(again.kept().content).toMatchObject({ notes: 'by the door' });
  });

  it('are archived, and saved as a text that any program reads', async () => {
    const { kept } = open([made('a', 'impedance_box')]);
    press('Save as text');
    expect(saved[0]?.name).toMatch(/\.txt$/);
    expect(await textOf(saved[0]?.blob)).toMatch(/10(\.0+)?\s+5/);
    press('Archive');
    expect(kept()).toMatchObject({ id: 'a', archived: true });
  });

  it('link to the file as it came only where it was kept', () => {
    open([made('a', 'seat', { raw: 'abc', file: 'seat.wav' }), made('b', 'impedance_box')]);
    const links = screen.getAllByRole('link', { name: 'As it came' });
    expect(links.map((link) => [link.getAttribute('href'), link.getAttribute('download')])).toEqual([
      ['/recordings/abc', 'seat.wav'],
    ]);
  });
});

describe('traces beside each other', () => {
  const trace = (name: string, f3: number | null, evenness: number): ComparedTraces['traces'][number] => ({
    name,
    points: [
      [20, 80],
      [40, 84.5],
    ],
    difference: [],
    level: 84,
    f3,
    f10: null,
    evenness,
    shift: -1.26,
  });

  it('are levels alone: impedances and the chain are no choice', () => {
    render(<ComparePanel all={[made('a', 'impedance_box'), made('b', 'loopback')]} />);
    expect(screen.getByText(/No level is measured yet/)).toBeTruthy();
    cleanup();
    render(
      <ComparePanel all={[made('a', 'impedance_box'), made('b', 'seat'), made('c', 'nearfield_port')]} />,
    );
    expect(screen.getAllByRole('checkbox')).toHaveLength(2);
  });

  it('begin with the newest two, at equal level, and no more than six', () => {
    const all = Array.from({ length: 7 }, (_, k) => made(String(k), 'seat', { notes: `Seat ${k}` }));
    render(<ComparePanel all={all} />);
    expect(asked.at(-1)).toMatchObject({ part: 6, banded: false, equal: [60, 120] });
    expect(asked.at(-1)?.traces).toHaveLength(2);
    for (const box of screen.getAllByRole('checkbox').slice(2, 6)) fireEvent.click(box);
    expect(asked.at(-1)?.traces).toHaveLength(6);
    expect((screen.getAllByRole('checkbox')[6] as HTMLInputElement).disabled).toBe(true);
  });

  it('mark the lowest and the evenest in words too, and give shifts a true minus', () => {
    compared = { traces: [trace('Old', 31.25, 1.24), trace('New', 24, 1.5)], average: [] };
    render(<ComparePanel all={[made('a', 'seat'), made('b', 'seat')]} />);
    const rows = screen.getAllByRole('row').map((row) => row.textContent);
    expect(rows[1]).toBe('1 · Old31.3 Hzbelow it±1.2 dB, evenest−1.3 dB');
    expect(rows[2]).toBe('2 · New24 Hz, lowestbelow it±1.5 dB−1.3 dB');
  });

  it('are told apart by level and angle where those were taken together', () => {
    const levels = [-30, -24].map((sweep_level) =>
      made(String(sweep_level), 'nearfield_cone', { sweep_level }),
    );
    render(<ComparePanel all={[...levels, made('c', 'seat', { angle: '30 deg' })]} />);
    const names = screen.getAllByRole('checkbox').map((box) => box.parentElement?.textContent);
    expect(new Set(names).size).toBe(3);
    expect(names[0]).toContain('−30 dB');
    expect(names[2]).toContain('30 deg');
  });

  it('crown nobody where there is one alone', () => {
    compared = { traces: [trace('Old', 31.25, 1.24)], average: [] };
    render(<ComparePanel all={[made('a', 'seat')]} />);
    expect(screen.getAllByRole('row')[1]?.textContent).not.toMatch(/lowest|evenest/);
  });

  it('are saved with the frequencies of each', async () => {
    compared = {
      traces: [trace('Old', 31, 1), { ...trace('New', 24, 1), points: [[25, 79]] }],
      average: [],
    };
    render(<ComparePanel all={[made('a', 'seat'), made('b', 'seat')]} />);
    fireEvent.click(screen.getByRole('button', { name: 'Save as text' }));
    expect(await textOf(saved[0]?.blob)).toBe(
      ['Frequency (Hz)\tOld\tFrequency (Hz)\tNew', '20.000\t80.00\t25.000\t79.00', '40.000\t84.50\t\t'].join(
        '\n',
      ),
    );
  });
});
