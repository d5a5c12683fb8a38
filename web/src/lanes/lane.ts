// What each lane shows.

import type { Curves, Report } from '../api/types';
import { roundUp } from '../model/scale';

/** An area that should not be entered. */
export interface Limit {
  from: number;
  label: string;
}

/** A further line of the active variant alone. */
export interface Extra {
  label: string;
  values: (number | null)[];
}

export interface Lane {
  id: string;
  name: string;
  unit: string;
  /** Share of the height. */
  share: number;
  /** The curve; null where a design has none. */
  values: (curves: Curves) => number[] | null;
  /** Lowest and highest value shown. */
  range: (shown: Report[], active: Report) => [number, number];
  limit?: (active: Report) => Limit | null;
  /** Thresholds short of a limit. */
  line?: { at: number; label: string };
  decimals: number;
  /** Whether there is anything to show; a lane without it is always there. */
  present?: (shown: Report[]) => boolean;
  extras?: (active: Report) => Extra[];
  /** What the term means to who meets it first. */
  meaning: string;
  /** Said beside the value at the cursor. */
  secondary?: (curves: Curves, index: number) => string;
}

function largest(reports: Report[], values: (curves: Curves) => number[] | null, from = 0): number {
  let most = 0;
  for (const { curves } of reports) {
    const list = values(curves);
    curves.frequency.forEach((frequency, k) => {
      if (frequency >= from) most = Math.max(most, list?.[k] ?? 0);
    });
  }
  return most;
}

/** The largest of several lists at each frequency; the same list each time, so that nothing is redrawn for it. */
function largestOf(lists: number[][]): number[] | null {
  const [first, ...others] = lists;
  if (!first || others.length === 0) return first ?? null;
  const known = LARGEST.get(lists);
  if (known) return known;
  const found = first.map((value, k) => Math.max(value, ...others.map((other) => other[k] ?? 0)));
  LARGEST.set(lists, found);
  return found;
}

const LARGEST = new WeakMap<number[][], number[]>();

const fastest = (curves: Curves) => largestOf(curves.air_speed);
const radiators = (curves: Curves) => largestOf(curves.radiator_travel);

const pressures = (curves: Curves) => largestOf(curves.chamber_pressure);

const level = (curves: Curves) => curves.level;
const excursion = (curves: Curves) => curves.excursion;
const impedance = (curves: Curves) => curves.impedance;
const groupDelay = (curves: Curves) => curves.group_delay;

const xmax = (report: Report) => (report.driver.xmax ?? 0) * 1e3;

/** Air speeds at which ports are heard, common practice: straight-edged and flared. */
export const STRAIGHT = 17;
export const FLARED = 34;

export const LANES: Lane[] = [
  {
    id: 'level',
    meaning:
      'How loud it is at 1 m, at the drive and in the space that are shown above. The thin line is the maximum clean level: where the first limit is just met.',
    name: 'SPL',
    unit: 'dB at 1 m',
    share: 1.75,
    values: level,
    range: (shown, active) => {
      const played = largest(shown, level);
      // The largest clean output may lie far above what is played.
      const clean = Math.min(Math.max(0, ...active.max_output.level.map((value) => value ?? 0)), played + 12);
      const top = Math.ceil((Math.max(played, clean) + 2) / 5) * 5;
      return [top - 45, top];
    },
    decimals: 1,
    extras: ({ max_output }) => [{ label: 'maximum clean level', values: max_output.level }],
  },
  {
    id: 'travel',
    meaning: 'How far the cone moves from rest, one way, at this drive. Beyond Xmax it distorts.',
    name: 'Cone travel',
    unit: 'mm, peak',
    share: 1,
    values: excursion,
    range: (shown, active) => {
      const limit = xmax(active);
      const most = largest(shown, excursion);
      return [0, limit ? Math.max(limit * 1.25, Math.min(roundUp(most * 1.05), limit * 2)) : roundUp(most)];
    },
    limit: (active) => (active.driver.xmax ? { from: xmax(active), label: 'past Xmax' } : null),
    decimals: 1,
  },
  {
    id: 'air',
    meaning: 'How fast the air moves in the port or mouth. Fast air is heard as chuffing.',
    name: 'Air speed',
    unit: 'm/s, peak',
    share: 1,
    values: fastest,
    range: (shown) => [0, Math.min(60, Math.max(FLARED + 4, roundUp(largest(shown, fastest) * 1.1)))],
    limit: () => ({ from: FLARED, label: 'past flared' }),
    line: { at: STRAIGHT, label: 'straight edge' },
    decimals: 1,
    present: (shown) => shown.some(({ curves }) => curves.air_speed.length > 0),
    extras: ({ curves: { air_speed, air_labels } }) =>
      air_speed.length > 1 ? air_speed.map((values, at) => ({ label: air_labels[at] ?? '', values })) : [],
  },
  {
    id: 'radiator',
    meaning: 'How far the passive radiators move one way, at the drive.',
    name: 'Radiator travel',
    unit: 'mm, peak',
    share: 0.9,
    values: radiators,
    range: (shown) => [0, roundUp(largest(shown, radiators, 16) * 1.05)],
    decimals: 1,
    present: (shown) => shown.some(({ curves }) => curves.radiator_travel.length > 0),
  },
  {
    id: 'pressure',
    meaning:
      'How hard the air in the box pushes on its panels and on the cone. It says how stiff the panels have to be, and how far the air spring is from even.',
    name: 'Chamber pressure',
    unit: 'Pa, RMS',
    share: 0.9,
    values: pressures,
    range: (shown) => [0, roundUp(largest(shown, pressures) * 1.05)],
    decimals: 0,
    present: (shown) => shown.some(({ curves }) => curves.chamber_pressure.length > 0),
    extras: ({ curves: { chamber_pressure, chamber_labels } }) =>
      chamber_pressure.length > 1
        ? chamber_pressure.map((values, at) => ({ label: chamber_labels[at] ?? '', values }))
        : [],
  },
  {
    id: 'impedance',
    meaning:
      'What the amplifier sees. A peak is a resonance of cone or box; the dip between two peaks is the tuning.',
    name: 'Impedance',
    unit: 'Ω, phase °',
    share: 1,
    values: impedance,
    range: (shown) => [0, Math.min(400, roundUp(largest(shown, impedance) * 1.02))],
    decimals: 1,
    secondary: (curves, index) => `${Math.round(curves.impedance_phase[index] ?? 0)}°`,
  },
  {
    id: 'delay',
    meaning: 'How much later a note comes out than it went in. Steep bass comes later.',
    name: 'Group delay',
    unit: 'ms',
    share: 0.9,
    values: groupDelay,
    range: (shown) => [0, Math.min(100, roundUp(largest(shown, groupDelay, 16) * 1.02))],
    decimals: 1,
  },
];
