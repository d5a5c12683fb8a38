import type { Trace } from '../schema/types';
import { tracesOf } from './trace';

/** By how much a level must pass the maximum clean one to count: rounding is no excess, dB. */
const SLACK = 0.05;

/** Stretches of frequency in which the drive that is set asks for more than the first limit allows. */
export function overdriven(traces: readonly Trace[]): [number, number][] {
  const [level] = tracesOf(traces, 'level');
  const [limit] = tracesOf(traces, 'level', 'limit');
  const found: [number, number][] = [];
  let open = false;
  level?.frequency.forEach((frequency, k) => {
    const clean = limit?.values[k] ?? null;
    const over = clean !== null && (level.values[k] ?? 0) > clean + SLACK;
    const last = found.at(-1);
    if (over && open && last) last[1] = frequency;
    else if (over) found.push([frequency, frequency]);
    open = over;
  });
  return found;
}
