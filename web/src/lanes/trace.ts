// Lines over frequencies of their own: simulated, measured, aimed at, or where a limit is met.

import type { Quantity, Trace } from '../schema/types';

/** The traces of a quantity from one origin, in the order of openings, radiators or chambers. */
export function tracesOf(
  traces: readonly Trace[],
  quantity: Quantity,
  origin: Trace['origin'] = 'simulated',
): Trace[] {
  return traces.filter((trace) => trace.quantity === quantity && trace.origin === origin);
}

/** The largest of several traces over the same frequencies; the same trace each time, so that nothing is redrawn for it. */
export function largestOf(several: readonly Trace[]): Trace | null {
  const [first, ...others] = several;
  if (!first || others.length === 0) return first ?? null;
  const known = LARGEST.get(first);
  if (known) return known;
  const values = first.values.map((value, k) =>
    Math.max(value ?? 0, ...others.map(({ values }) => values[k] ?? 0)),
  );
  const { label: _, ...found } = { ...first, values };
  LARGEST.set(first, found);
  return found;
}

const LARGEST = new WeakMap<Trace, Trace>();

/** A line's value at a frequency, linear between its points on the logarithmic axis; null where it has none. */
export function valueAt(
  { frequency, values }: { frequency: readonly number[]; values: readonly (number | null)[] },
  at: number,
): number | null {
  let [low, high] = [0, frequency.length - 1];
  const [first, last] = [frequency[low], frequency[high]];
  // The axis and the ends of what was computed differ by rounding.
  if (first === undefined || last === undefined || at < first * 0.9999 || at > last * 1.0001) return null;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((frequency[middle] ?? 0) <= at) low = middle;
    else high = middle;
  }
  const [from, to] = [frequency[low] ?? 1, frequency[high] ?? 1];
  const part = to > from ? Math.min(1, Math.max(0, Math.log(at / from) / Math.log(to / from))) : 0;
  const [before, after] = [values[low] ?? null, values[high] ?? null];
  if (part < 1e-9) return before;
  if (part > 1 - 1e-9) return after;
  return before === null || after === null ? null : before + (after - before) * part;
}

/** A trace's phase at a frequency, in words; none where it has none. */
export function phaseAt(trace: Trace | null, at: number): string {
  const phase = trace?.phase && valueAt({ frequency: trace.frequency, values: trace.phase }, at);
  return typeof phase === 'number' ? `${Math.round(phase)}°` : '';
}
