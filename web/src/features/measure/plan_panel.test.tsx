// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { KeptMeasurement } from '../../model/measurements';
import { preferences } from '../../model/preferences';
import type { Workbench } from '../../model/workbench';
import type { MeasurePlanStep, MeasuringPlan, RawMeasurement, ReadMeasurement } from '../../schema/types';
import { slot } from '../../testing/nook';
import { PlanPanel } from './PlanPanel';

interface Sweep {
  of: string;
  mass: string | null;
  signal: AbortSignal;
  told: (share: number) => void;
  found: (read: ReadMeasurement) => void;
  fail: (why: Error) => void;
}
let rig: { name: string; simulated: boolean; room?: number } | undefined;
let away: Error | null = null;
const sweeps: Sweep[] = [];
vi.mock('../../api/queries/measure', () => ({
  useRig: () => ({ data: rig, error: away }),
  sweepRig: (of: string, mass: string | null, signal: AbortSignal, told: (share: number) => void) =>
    new Promise((found, fail) => sweeps.push({ of, mass, signal, told, found, fail })),
}));
const reading: { by: string; onKeep: (all: object[]) => void; onClose: () => void }[] = [];
vi.mock('./FileDialog', () => ({
  FileDialog: (props: (typeof reading)[number]) => {
    reading.push({ ...props, by: 'file' });
    return <p>a file</p>;
  },
}));
vi.mock('./MicrophoneDialog', () => ({
  MicrophoneDialog: (props: (typeof reading)[number]) => {
    reading.push({ ...props, by: 'microphone' });
    return <p>a microphone</p>;
  },
}));

const step = (change: Partial<MeasurePlanStep>): MeasurePlanStep => ({
  of: 'impedance_box',
  driver: null,
  title: 'Finished box',
  how: ['Stand it on the floor.'],
  settles: 'The tuning.',
  without: 'nothing is known of the box.',
  smallest: true,
  minutes: 5,
  mass: null,
  distance: null,
  highest: null,
  ...change,
});
const plan: MeasuringPlan = {
  steps: [
    step({}),
    step({
      of: 'impedance_mass',
      driver: 1,
      title: 'With a mass',
      smallest: false,
      minutes: 8,
      mass: 0.0567,
    }),
    step({
      of: 'nearfield_cone',
      driver: 1,
      title: 'Close to the cone',
      smallest: false,
      minutes: 4,
      distance: 0.005,
      highest: 312.4,
    }),
  ],
  cautions: ['Start low.'],
  limits: '',
};
const read: ReadMeasurement = {
  points: [
    [10, 20, 5],
    [20, 30, 6],
  ],
  phased: true,
  remarks: [],
  harmonics: [],
} as unknown as ReadMeasurement;
const made = (of: RawMeasurement['of'], driver?: number): KeptMeasurement => ({
  id: of,
  measurement: { of, source: 'rig', at: '2026-05-01T18:30:00Z', points: [], driver } as RawMeasurement,
});

function open(used: KeptMeasurement[] = [], of: MeasuringPlan = plan) {
  const keep = vi.fn();
  const workbench = { keep } as unknown as Workbench;
  render(<PlanPanel plan={of} used={used} design={slot} build="b" workbench={workbench} />);
  return keep;
}
const card = (name: string) => within(screen.getByRole('article', { name }));
const everything = () => fireEvent.click(screen.getByRole('radio', { name: 'Everything' }));
const press = (name: string, button: string) =>
  fireEvent.click(card(name).getByRole('button', { name: button }));

beforeEach(() => {
  rig = { name: 'Pit organ, first box', simulated: true, room: 17.5 };
  away = null;
  sweeps.splice(0);
  reading.splice(0);
});
afterEach(() => {
  cleanup();
  preferences.set({ units: {} });
});

describe('the plan of measurements', () => {
  it('begins with the smallest set, and says how long what is left takes', () => {
    open();
    expect(screen.getAllByRole('article')).toHaveLength(1);
    expect(screen.getByText('1 to do, about 5 minutes')).toBeTruthy();
    everything();
    expect(screen.getAllByRole('article')).toHaveLength(3);
    expect(screen.getByText('3 to do, about 17 minutes')).toBeTruthy();
  });

  it('shows everything where more than the smallest set is measured already', () => {
    open([made('impedance_mass', 1)]);
    expect(screen.getAllByRole('article')).toHaveLength(3);
    expect(screen.getByText('2 to do, about 9 minutes')).toBeTruthy();
  });

  it('says when all of it is done, and on which day each was', () => {
    open([made('impedance_box'), made('impedance_mass', 1), made('nearfield_cone', 1)]);
    expect(screen.getByText('All of it is measured.')).toBeTruthy();
    expect(card('Finished box').getByText(/^✓ \S.*, \S/)).toBeTruthy();
    expect(card('Finished box').getByRole('button', { name: 'Measure again' })).toBeTruthy();
    expect(card('Finished box').queryByText(/Without it/)).toBeNull();
  });

  it('has the next one open and the others folded', () => {
    open([made('impedance_box'), made('nearfield_cone', 1)]);
    const folded = screen.getAllByRole('article').map((one) => one.querySelector('details')?.open);
    expect(folded).toEqual([false, true, false]);
  });

  it('tells mass, distance, how high it reaches and how long it takes', () => {
    open();
    everything();
    expect(card('With a mass').getByText('about 57 g · 8 min')).toBeTruthy();
    expect(card('Close to the cone').getByText('5 mm away · tells up to 312 Hz · 4 min')).toBeTruthy();
  });

  it('reads in inches and ounces where those are preferred', () => {
    preferences.set({ units: { length: 'in', mass: 'oz' } });
    open();
    everything();
    expect(card('With a mass').getByText(/^about 2(\.0\d?)? oz/)).toBeTruthy();
    expect(card('Close to the cone').getByText(/^3\/16 in away/)).toBeTruthy();
  });

  it('says what a kind of cabinet does not let it work out', () => {
    open([], { ...plan, limits: 'Of a horn only drivers are worked out.' });
    expect(screen.getByText('Of a horn only drivers are worked out.')).toBeTruthy();
  });
});

describe('with the measuring box', () => {
  it('sweeps with the mass that is on the cone, and keeps what was found with the room', async () => {
    const keep = open();
    everything();
    press('With a mass', 'Measure');
    expect(sweeps.map(({ of, mass }) => [of, mass])).toEqual([['impedance_mass', '56.7 g']]);
    act(() => sweeps[0]?.told(0.4));
    expect(screen.getByRole('progressbar', { name: 'Sweep: With a mass' }).getAttribute('value')).toBe('0.4');
    // Nothing else is begun beside it.
    const other = card('Finished box').getByRole('button', { name: 'Measure' });
    expect((other as HTMLButtonElement).disabled).toBe(true);
    await act(async () => sweeps[0]?.found(read));
    expect(keep).toHaveBeenCalledOnce();
    expect(keep.mock.calls[0]?.[0]).toMatchObject({
      kind: 'measurement',
      archived: false,
      content: {
        of: 'impedance_mass',
        source: 'rig',
        driver: 1,
        variant: slot.name,
        added_mass: '56.7 g',
        room_temperature: '17.5 degC',
        points: read.points,
      },
    });
    expect(screen.queryByRole('progressbar')).toBeNull();
  });

  it('keeps nothing of a sweep that is stopped, even where its answer still comes', async () => {
    const keep = open();
    press('Finished box', 'Measure');
    press('Finished box', 'Stop');
    expect(sweeps[0]?.signal.aborted).toBe(true);
    await act(async () => sweeps[0]?.found(read));
    expect(keep).not.toHaveBeenCalled();
    expect(card('Finished box').getByRole('button', { name: 'Measure' })).toBeTruthy();
  });

  it('says at the step what went wrong, keeps nothing, and forgets it at the next try', async () => {
    const keep = open();
    everything();
    press('Finished box', 'Measure');
    await act(async () => sweeps[0]?.fail(new Error('The input clips: turn it down.')));
    expect(card('Finished box').getByText(/clips/)).toBeTruthy();
    expect(card('With a mass').queryByText(/clips/)).toBeNull();
    expect(keep).not.toHaveBeenCalled();
    press('Finished box', 'Measure');
    expect(screen.queryByText(/clips/)).toBeNull();
  });

  it('ends its sweep where the page is left', () => {
    open();
    press('Finished box', 'Measure');
    cleanup();
    expect(sweeps[0]?.signal.aborted).toBe(true);
  });

  it('is no choice where there is none, and its trouble is said', () => {
    rig = undefined;
    away = new Error('The measuring box does not answer.');
    open();
    expect(card('Finished box').queryByRole('button', { name: 'Measure' })).toBeNull();
    expect(screen.getByText(/does not answer/)).toBeTruthy();
    expect(card('Finished box').getByRole('button', { name: 'From a file…' })).toBeTruthy();
  });
});

describe('without it', () => {
  it('an impedance is taken with a jig, a sound with a microphone', () => {
    open();
    everything();
    expect(card('With a mass').getByRole('button', { name: 'With a jig at the sound card…' })).toBeTruthy();
    expect(card('Close to the cone').getByRole('button', { name: 'With a microphone…' })).toBeTruthy();
  });

  it('every trace that was read is kept for its step', () => {
    const keep = open();
    everything();
    press('Close to the cone', 'With a microphone…');
    expect(screen.getByText('a microphone')).toBeTruthy();
    const quiet = { source: 'microphone', read, about: { sweep_level: '-30' } };
    const loud = { source: 'microphone', read, about: { sweep_level: '-24' } };
    act(() => reading.at(-1)?.onKeep([quiet, loud]));
    const kept = keep.mock.calls.map(([{ content }]) => [content.of, content.driver, content.sweep_level]);
    expect(kept).toEqual([
      ['nearfield_cone', 1, '-30'],
      ['nearfield_cone', 1, '-24'],
    ]);
    expect(screen.queryByText('a microphone')).toBeNull();
  });

  it('a file that is not wanted leaves nothing', () => {
    const keep = open();
    press('Finished box', 'From a file…');
    expect(screen.getByText('a file')).toBeTruthy();
    act(() => reading.at(-1)?.onClose());
    expect(screen.queryByText('a file')).toBeNull();
    expect(keep).not.toHaveBeenCalled();
  });
});
