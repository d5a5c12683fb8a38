// What each lane shows.

import { roundUp } from '../model/scale';
import type { Quantity, Trace } from '../schema/types';
import type { Shown } from './shown';
import { largestOf, tracesOf } from './trace';

/** An area that should not be entered. */
export interface Limit {
  from: number;
  label: string;
}

/** A line beside a variant's main one. */
export interface Extra {
  label: string;
  trace: Trace;
}

export interface Lane {
  id: string;
  name: string;
  unit: string;
  /** Share of the height. */
  share: number;
  /** What it draws: of several openings, radiators or chambers the largest, and each of them beside it. */
  quantity: Quantity;
  /** Whether its first line is the mean of the others, and drawn instead of the largest. */
  mean?: boolean;
  /** Lowest and highest value shown. */
  range: (shown: readonly Shown[], active: Shown) => [number, number];
  limit?: (active: Shown) => Limit | null;
  /** Thresholds short of a limit. */
  line?: { at: number; label: string };
  decimals: number;
  /** Whether designs may have none of it; the lane is then there only for those that have. */
  optional?: boolean;
  /** What its traces that are limits are called. */
  limited?: string;
  /** What the term means to who meets it first. */
  meaning: string;
  /** Whether the phase is said beside the value at the cursor. */
  phase?: boolean;
  /** What is said beside the value instead. */
  beside?: (value: number, one: Shown) => string;
  /** Whether there is anything to see. */
  worth?: (shown: readonly Shown[]) => boolean;
}

/** A variant's main line in a lane. */
export function mainOf(
  { quantity, mean }: Pick<Lane, 'quantity' | 'mean'>,
  { traces }: Pick<Shown, 'traces'>,
): Trace | null {
  const each = tracesOf(traces, quantity);
  return mean ? (each[0] ?? null) : largestOf(each);
}

/** The further lines of the active variant: each opening or chamber, where the limit is met, what was measured or is aimed at. */
export function extrasOf({ quantity, limited, mean }: Lane, { traces }: Shown): Extra[] {
  const each = tracesOf(traces, quantity).slice(mean ? 1 : 0);
  const named = (origin: Trace['origin'], name: string) =>
    tracesOf(traces, quantity, origin).map((trace) => ({ label: trace.label ?? name, trace }));
  return [
    ...named('limit', limited ?? 'limit'),
    ...named('measured', 'measured'),
    ...named('target', 'target'),
    ...(each.length > 1 ? each.map((trace) => ({ label: trace.label ?? '', trace })) : []),
  ];
}

/** Whether there is anything to show. */
export function isPresent(lane: Lane, shown: readonly Shown[]): boolean {
  if (lane.worth && !lane.worth(shown)) return false;
  return (
    !lane.optional || shown.some(({ traces }) => traces.some(({ quantity }) => quantity === lane.quantity))
  );
}

/** The unit of a lane's values, without what is said beside it. */
export function unitOf({ unit }: Lane): string {
  return unit.split(/[ ,]/)[0] ?? '';
}

/** The largest value of all that is shown, from a frequency up. */
function largest(shown: readonly Shown[], quantity: Quantity, from = 0): number {
  let most = 0;
  for (const one of shown) {
    const main = mainOf({ quantity }, one);
    main?.frequency.forEach((frequency, k) => {
      if (frequency >= from) most = Math.max(most, main.values[k] ?? 0);
    });
  }
  return most;
}

const varies = ({ values }: Trace) =>
  values.some((value) => Math.abs((value ?? 0) - (values[0] ?? 0)) > 1e-6);

const xmax = ({ report }: Shown) => (report.driver.xmax ?? 0) * 1e3;

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
    quantity: 'level',
    range: (shown, { traces }) => {
      const played = largest(shown, 'level');
      const most = tracesOf(traces, 'level', 'limit').flatMap(({ values }) =>
        values.map((value) => value ?? 0),
      );
      // The maximum clean level may lie far above what is played.
      const clean = Math.min(Math.max(0, ...most), played + 12);
      const top = Math.ceil((Math.max(played, clean) + 2) / 5) * 5;
      return [top - 45, top];
    },
    decimals: 1,
    limited: 'maximum clean level',
  },
  {
    id: 'travel',
    meaning: 'How far the cone moves from rest, one way, at this drive. Beyond Xmax it distorts.',
    name: 'Cone travel',
    unit: 'mm, peak',
    share: 1,
    quantity: 'excursion',
    range: (shown, active) => {
      const limit = xmax(active);
      const most = largest(shown, 'excursion');
      return [0, limit ? Math.max(limit * 1.25, Math.min(roundUp(most * 1.05), limit * 2)) : roundUp(most)];
    },
    limit: (active) => (active.report.driver.xmax ? { from: xmax(active), label: 'past Xmax' } : null),
    decimals: 1,
  },
  {
    id: 'air',
    meaning: 'How fast the air moves in the port or mouth. Fast air is heard as chuffing.',
    name: 'Air speed',
    unit: 'm/s, peak',
    share: 1,
    quantity: 'air_speed',
    range: (shown) => [0, Math.min(60, Math.max(FLARED + 4, roundUp(largest(shown, 'air_speed') * 1.1)))],
    limit: () => ({ from: FLARED, label: 'past flared' }),
    line: { at: STRAIGHT, label: 'straight edge' },
    decimals: 1,
    optional: true,
  },
  {
    id: 'radiator',
    meaning: 'How far the passive radiators move one way, at the drive.',
    name: 'Radiator travel',
    unit: 'mm, peak',
    share: 0.9,
    quantity: 'radiator_travel',
    range: (shown) => [0, roundUp(largest(shown, 'radiator_travel', 16) * 1.05)],
    decimals: 1,
    optional: true,
  },
  {
    id: 'pressure',
    meaning:
      'How hard the air in the box pushes on its panels and on the cone. It says how stiff the panels have to be, and how far the air spring is from even.',
    name: 'Chamber pressure',
    unit: 'Pa, RMS',
    share: 0.9,
    quantity: 'chamber_pressure',
    range: (shown) => [0, roundUp(largest(shown, 'chamber_pressure') * 1.05)],
    decimals: 0,
    optional: true,
  },
  {
    id: 'impedance',
    meaning:
      'What the amplifier sees. A peak is a resonance of cone or box; the dip between two peaks is the tuning.',
    name: 'Impedance',
    unit: 'Ω, phase °',
    share: 1,
    quantity: 'impedance',
    range: (shown) => [0, Math.min(400, roundUp(largest(shown, 'impedance') * 1.02))],
    decimals: 1,
    phase: true,
  },
  {
    id: 'drive',
    meaning:
      'The voltage of the amplifier once the filters have shaped the signal, and how much louder or softer that is. It is shown where a design has filters.',
    name: 'Drive',
    unit: 'V, dB',
    share: 0.9,
    quantity: 'drive',
    range: (shown) => [0, roundUp(largest(shown, 'drive') * 1.1)],
    limited: 'most before a limit',
    decimals: 1,
    optional: true,
    beside: (volts, { report }) => {
      const gain = 20 * Math.log10(volts / report.volts);
      return Number.isFinite(gain)
        ? gain
            .toFixed(1)
            .replace(/^-0\.0$/, '0.0')
            .replace('-', '−')
        : '';
    },
    worth: (shown) => shown.some(({ traces }) => tracesOf(traces, 'drive').some(varies)),
  },
  {
    id: 'delay',
    meaning: 'How much later a note comes out than it went in. Steep bass comes later.',
    name: 'Group delay',
    unit: 'ms',
    share: 0.9,
    quantity: 'group_delay',
    range: (shown) => [0, Math.min(100, roundUp(largest(shown, 'group_delay', 16) * 1.02))],
    decimals: 1,
  },
  {
    id: 'seats',
    meaning:
      'How loud it is where people listen, in the place that is chosen above: the mean of the power at all seats, and each seat beside it. Up to 200 Hz; in a hall up to 120 Hz.',
    name: 'At the seats',
    unit: 'dB SPL',
    share: 1.4,
    quantity: 'seat_level',
    mean: true,
    range: (shown) => {
      const top = Math.ceil((largest(shown, 'seat_level') + 4) / 5) * 5;
      return [top - 45, top];
    },
    decimals: 1,
    optional: true,
  },
];
