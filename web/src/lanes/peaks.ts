// Peaks and dips of a curve, for those who want them named.

export interface Extreme {
  index: number;
  value: number;
  kind: 'peak' | 'dip';
}

/** Most that are named. */
const MOST = 4;

/**
 * Peaks and dips that stand out from what is around them by at least a part of the range, the most prominent first,
 * within the positions `from` to `to`.
 */
export function extremes(
  values: readonly (number | null)[],
  [from, to]: readonly [number, number],
  least: number,
): Extreme[] {
  const found: (Extreme & { out: number })[] = [];
  for (const kind of ['peak', 'dip'] as const) {
    const sign = kind === 'peak' ? 1 : -1;
    const at = (k: number) => sign * (values[k] ?? 0);
    for (let k = from + 1; k < to; k += 1) {
      if (!(at(k) > at(k - 1) && at(k) >= at(k + 1))) continue;
      const out = at(k) - Math.max(lowest(at, k, from, -1), lowest(at, k, to, 1));
      if (out >= least) found.push({ index: k, value: values[k] ?? 0, kind, out });
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
