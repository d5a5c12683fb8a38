// What is read of each step of a sweep.

import { inWords } from '../../model/preferences';
import { hertz, significant } from '../../model/units';
import type { Sweep, SweepStep } from '../../schema/types';

type Outcome = NonNullable<SweepStep['outcome']>;

export interface Column {
  name: string;
  unit: string;
  digits: number;
  /** In the unit that is shown; null where the design has none. */
  read: (outcome: Outcome) => number | null | undefined;
}

const times = (factor: number, value: number | null | undefined) => (value == null ? null : value * factor);

const COLUMNS: Column[] = [
  { name: 'F3', unit: 'Hz', digits: 3, read: ({ f3 }) => f3 },
  { name: 'Fb', unit: 'Hz', digits: 3, read: ({ tuning }) => tuning },
  { name: 'SPL', unit: 'dB', digits: 4, read: ({ reference_level }) => reference_level },
  { name: 'Peak', unit: 'dB', digits: 2, read: ({ peak }) => peak },
  { name: 'Max. clean SPL at F3', unit: 'dB', digits: 4, read: ({ clean }) => clean },
  {
    name: 'Excursion',
    unit: 'mm',
    digits: 2,
    read: ({ excursion_in_band }) => times(1e3, excursion_in_band),
  },
  { name: 'Air', unit: 'm/s', digits: 3, read: ({ air_speed }) => air_speed },
  { name: 'Port length', unit: 'mm', digits: 3, read: ({ port_length }) => times(1e3, port_length) },
  {
    name: 'Group delay',
    unit: 'ms',
    digits: 3,
    read: ({ group_delay_most }) => times(1e3, group_delay_most),
  },
];

/** Those that any step has. */
export function columnsOf(sweep: Sweep): Column[] {
  return COLUMNS.filter(({ read }) => sweep.steps.some(({ outcome }) => outcome && read(outcome) != null));
}

/** What a step comes to, as a person reads it. */
export function written({ read, unit, digits }: Column, outcome: Outcome): string {
  const value = read(outcome);
  if (value == null) return '–';
  if (unit === 'Hz') return hertz(value);
  const fixed = unit === 'dB' ? value.toFixed(1) : significant(value, digits);
  return inWords(`${fixed} ${unit}`);
}

export interface Curve {
  /** Places over the width and height, 0 to 1, in order. */
  points: { x: number; y: number; now: boolean }[];
  least: number;
  most: number;
}

/** A figure against the value that is turned; null where there are not two steps to join. */
export function curveOf(sweep: Sweep, column: Column): Curve | null {
  const stands = sweep.parameters.find(({ id }) => id === sweep.parameter)?.value;
  const found = sweep.steps.flatMap(({ value, outcome }) => {
    const figure = outcome && column.read(outcome);
    return figure == null ? [] : [{ value, figure, now: value === stands }];
  });
  if (found.length < 2) return null;
  const figures = found.map(({ figure }) => figure);
  const [least, most] = [Math.min(...figures), Math.max(...figures)];
  // A figure that stays is a line in the middle, not noise blown up.
  const span = Math.max(most - least, Math.abs(most) * 1e-3, 1e-12);
  const middle = (most + least) / 2;
  return {
    least,
    most,
    points: found.map(({ value, figure, now }) => ({
      x: (value - sweep.from) / (sweep.to - sweep.from || 1),
      y: 0.5 + (figure - middle) / span,
      now,
    })),
  };
}
