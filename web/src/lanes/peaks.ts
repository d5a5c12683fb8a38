// Peaks and dips of a curve, for those who want them named.

import { fraction } from './axis';
import type { Line } from './line';

export interface Extreme {
  /** Hz. */
  at: number;
  value: number;
  kind: 'peak' | 'dip';
}

/** Most that are named. */
const MOST = 4;

/**
 * Peaks and dips that stand out from what is around them by at least so much, the most prominent first, between two
 * frequencies (Hz).
 */
export function extremes(
  { frequency, values }: Pick<Line, 'frequency' | 'values'>,
  [low, high]: readonly [number, number],
  least: number,
): Extreme[] {
  const from = Math.max(
    0,
    frequency.findIndex((one) => one >= low),
  );
  const to = Math.max(
    from,
    frequency.findLastIndex((one) => one <= high),
  );
  const found: (Extreme & { out: number })[] = [];
  for (const kind of ['peak', 'dip'] as const) {
    const sign = kind === 'peak' ? 1 : -1;
    const signed = (k: number) => sign * (values[k] ?? 0);
    for (let k = from + 1; k < to; k += 1) {
      if (!(signed(k) > signed(k - 1) && signed(k) >= signed(k + 1))) continue;
      const out = signed(k) - Math.max(lowest(signed, k, from, -1), lowest(signed, k, to, 1));
      if (out >= least) found.push({ at: frequency[k] ?? 0, value: values[k] ?? 0, kind, out });
    }
  }
  return found
    .sort((a, b) => b.out - a.out)
    .slice(0, MOST)
    .map(({ out: _, ...extreme }) => extreme);
}

/** The lowest value from a peak to where something higher stands, or to the end. */
function lowest(at: (k: number) => number, peak: number, end: number, step: 1 | -1): number {
  let least = at(peak);
  for (let k = peak + step; step > 0 ? k <= end : k >= end; k += step) {
    if (at(k) > at(peak)) break;
    least = Math.min(least, at(k));
  }
  return least;
}

/** What stands out by this part of the lane is named. */
const STANDS_OUT = 0.06;

/** The peaks and dips that are named in a lane of a range. */
export function namedPeaks(
  line: Pick<Line, 'frequency' | 'values'>,
  span: readonly [number, number],
  range: readonly [number, number],
): Extreme[] {
  return extremes(line, span, STANDS_OUT * (range[1] - range[0]));
}

/** The highest value that the lane shows, and where along the axis it lies, 0 to 1. */
export function peakOf(
  { frequency, values }: Pick<Line, 'frequency' | 'values'>,
  range: readonly [number, number],
  [from, to]: readonly [number, number],
): { part: number; value: number } {
  let [top, value] = [from, Number.NEGATIVE_INFINITY];
  values.forEach((one, at) => {
    const here = frequency[at] ?? 0;
    if (here < from || here > to) return;
    if (one !== null && one <= range[1] && one > value) [top, value] = [here, one];
  });
  return { part: fraction(top, from, to), value };
}
