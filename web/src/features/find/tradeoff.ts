// Cabinets as marks on a plane of two of: size, lowest note, loudness.

import { decades, linear, logarithmic, rungs } from '../../model/scale';
import type { DriverMatchPoint } from '../../schema/types';

export interface Axis {
  id: 'volume' | 'f3' | 'loudness';
  name: string;
  unit: string;
  /** In the unit shown. */
  value: (point: DriverMatchPoint) => number;
  logarithmic: boolean;
}

export const AXES: Record<Axis['id'], Axis> = {
  volume: { id: 'volume', name: 'Air', unit: 'l', value: ({ volume }) => volume * 1e3, logarithmic: true },
  f3: { id: 'f3', name: 'Lowest note', unit: 'Hz', value: ({ f3 }) => f3, logarithmic: true },
  loudness: {
    id: 'loudness',
    name: 'Maximum clean level',
    unit: 'dB',
    value: ({ loudness }) => loudness,
    logarithmic: false,
  },
};

export interface Scale {
  from: number;
  to: number;
  /** Place of a value from 0 to 1. */
  place: (value: number) => number;
  ticks: number[];
}

/** A scale over the values of some points. */
export function scaleOf(axis: Axis, points: readonly DriverMatchPoint[]): Scale {
  const values = points.map(axis.value);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  if (axis.logarithmic) {
    const [from, to] = [least / 1.08, most * 1.08];
    return { from, to, place: logarithmic([from, to], [0, 1]), ticks: decades([from, to]) };
  }
  const room = Math.max(1, 0.05 * (most - least));
  const [from, to] = [least - room, most + room];
  return { from, to, place: linear([from, to], [0, 1]), ticks: rungs([from, to], 8) };
}

/** The next point on the front in a direction along an axis, from one of them or from its end. */
export function nextOnFront(
  points: readonly DriverMatchPoint[],
  axis: Axis,
  current: DriverMatchPoint | undefined,
  direction: 1 | -1,
): DriverMatchPoint | undefined {
  const front = points.filter(({ front }) => front).sort((a, b) => axis.value(a) - axis.value(b));
  const at = current ? front.indexOf(current) : -1;
  if (at < 0) return direction > 0 ? front[0] : front.at(-1);
  return front[Math.min(front.length - 1, Math.max(0, at + direction))];
}
