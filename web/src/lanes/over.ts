import type { Report } from '../api/types';

/** By how much a level must pass the largest clean one to count: rounding is no excess, dB. */
const SLACK = 0.05;

/** Stretches of frequency in which the drive that is set asks for more than the first limit allows. */
export function overdriven({
  curves,
  max_output,
}: Pick<Report, 'curves' | 'max_output'>): [number, number][] {
  const found: [number, number][] = [];
  let open = false;
  curves.frequency.forEach((frequency, k) => {
    const clean = max_output.level[k];
    const over = clean !== null && clean !== undefined && (curves.level[k] ?? 0) > clean + SLACK;
    const last = found.at(-1);
    if (over && open && last) last[1] = frequency;
    else if (over) found.push([frequency, frequency]);
    open = over;
  });
  return found;
}
