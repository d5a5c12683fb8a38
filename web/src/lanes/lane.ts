// What each lane shows.

import type { Curves, Report } from '../api/types';
import { roundUp } from './axis';

/** An area that should not be entered. */
export interface Limit {
  from: number;
  label: string;
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
  /** Said beside the value at the cursor. */
  aside?: (curves: Curves, index: number) => string;
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

/** The fastest air of any port at each frequency; the same list each time, so that nothing is redrawn for it. */
function fastest(curves: Curves): number[] | null {
  const [first, ...others] = curves.air_speed;
  if (!first || others.length === 0) return first ?? null;
  const known = FASTEST.get(curves);
  if (known) return known;
  const found = first.map((speed, k) => Math.max(speed, ...others.map((other) => other[k] ?? 0)));
  FASTEST.set(curves, found);
  return found;
}

const FASTEST = new WeakMap<Curves, number[]>();

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
    name: 'Level',
    unit: 'dB at 1 m',
    share: 1.75,
    values: level,
    range: (shown) => {
      const top = Math.ceil((largest(shown, level) + 2) / 5) * 5;
      return [top - 40, top];
    },
    decimals: 1,
  },
  {
    id: 'travel',
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
    name: 'Air speed',
    unit: 'm/s, peak',
    share: 1,
    values: fastest,
    range: (shown) => [0, Math.min(60, Math.max(FLARED + 4, roundUp(largest(shown, fastest) * 1.1)))],
    limit: () => ({ from: FLARED, label: 'past flared' }),
    line: { at: STRAIGHT, label: 'straight edge' },
    decimals: 1,
  },
  {
    id: 'impedance',
    name: 'Impedance',
    unit: 'Ω, phase °',
    share: 1,
    values: impedance,
    range: (shown) => [0, Math.min(400, roundUp(largest(shown, impedance) * 1.02))],
    decimals: 1,
    aside: (curves, index) => `${Math.round(curves.impedance_phase[index] ?? 0)}°`,
  },
  {
    id: 'delay',
    name: 'Group delay',
    unit: 'ms',
    share: 0.9,
    values: groupDelay,
    range: (shown) => [0, Math.min(100, roundUp(largest(shown, groupDelay, 16) * 1.02))],
    decimals: 1,
  },
];
