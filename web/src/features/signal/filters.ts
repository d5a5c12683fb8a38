// Filters and passive parts of a design, each change returning a new one. Nothing is computed here.

import type { RawDesign, RawFilter, RawFilterKind, RawPart, RawSignal } from '../../schema/types';

/** What filters are called where one is chosen. */
export const FILTER_KINDS: readonly (readonly [RawFilterKind, string])[] = [
  ['high_pass', 'High-pass'],
  ['low_pass', 'Low-pass'],
  ['parametric', 'Parametric band'],
  ['low_shelf', 'Low shelf'],
  ['high_shelf', 'High shelf'],
  ['linkwitz_transform', 'Linkwitz transform'],
  ['all_pass', 'All-pass'],
  ['delay', 'Delay'],
  ['gain', 'Gain'],
  ['invert', 'Inverted polarity'],
];

/** The name of a kind of filter. */
export const kindName = (kind: RawFilterKind): string =>
  FILTER_KINDS.find(([id]) => id === kind)?.[1] ?? 'As measured';

export const filtersOf = ({ signal }: RawDesign): RawFilter[] => signal?.filters ?? [];
export const partsOf = ({ signal }: RawDesign): RawPart[] => signal?.parts ?? [];

function withSignal(design: RawDesign, change: Partial<RawSignal>): RawDesign {
  const signal: Record<string, unknown> = { ...design.signal, ...change };
  for (const [name, value] of Object.entries(signal)) {
    if (value == null || (Array.isArray(value) && !value.length)) delete signal[name];
  }
  const { signal: _, ...bare } = design;
  return Object.keys(signal).length ? { ...design, signal: signal as RawSignal } : (bare as RawDesign);
}

export const withFilters = (design: RawDesign, filters: RawFilter[]) => withSignal(design, { filters });
export const withParts = (design: RawDesign, parts: RawPart[]) => withSignal(design, { parts });

/** One item of a list replaced, or taken out for null. */
export function withItem<Item>(list: readonly Item[], at: number, item: Item | null): Item[] {
  return list.flatMap((here, index) => (index !== at ? [here] : item === null ? [] : [item]));
}

/** An item one place nearer to the signal (-1) or to the drivers (1). */
export function moved<Item>(list: readonly Item[], at: number, by: -1 | 1): Item[] {
  const next = [...list];
  const [item] = next.splice(at, 1);
  if (item !== undefined) next.splice(Math.min(Math.max(at + by, 0), next.length), 0, item);
  return next;
}

/** A filter of a kind to begin with. `sealed` is the corner (Hz) and Q of a sealed box. */
export function newFilter(kind: RawFilterKind, sealed: readonly number[] | null = null): RawFilter {
  switch (kind) {
    case 'high_pass':
      return { kind, order: 4, frequency: '20 Hz' };
    case 'low_pass':
      return { kind, alignment: 'linkwitz_riley', order: 4, frequency: '80 Hz' };
    case 'parametric':
      return { kind, frequency: '50 Hz', gain: '-3 dB', q: 1.4 };
    case 'low_shelf':
      return { kind, frequency: '40 Hz', gain: '3 dB', q: 0.71 };
    case 'high_shelf':
      return { kind, frequency: '80 Hz', gain: '-3 dB', q: 0.71 };
    case 'linkwitz_transform': {
      const [corner = 45, q = 0.8] = sealed ?? [];
      return {
        kind,
        frequency: `${Number(corner.toPrecision(4))} Hz`,
        q: Number(q.toPrecision(3)),
        wanted_frequency: `${Number((corner / 1.4).toPrecision(3))} Hz`,
        wanted_q: 0.71,
      };
    }
    case 'all_pass':
      return { kind, frequency: '60 Hz', q: 0.7 };
    case 'delay':
      return { kind, delay: '5 ms' };
    case 'gain':
      return { kind, gain: '-3 dB' };
    default:
      return { kind };
  }
}

/** Values of a filter that another kind has use for too stay; what it needs besides is filled in. */
export function asKind(filter: RawFilter, kind: RawFilterKind, sealed: readonly number[] | null): RawFilter {
  return { ...newFilter(kind, sealed), ...filter, kind };
}

/** Which values a kind of filter has: names and their fields. */
export function valuesOf(filter: RawFilter): { name: string; field: string; optional?: boolean }[] {
  const frequency = { name: 'Frequency', field: 'frequency' };
  const q = { name: 'Q', field: 'q' };
  switch (filter.kind) {
    case 'high_pass':
    case 'low_pass':
      return [frequency];
    case 'low_shelf':
    case 'high_shelf':
      return Number(filter.order ?? 2) < 2 ? [frequency] : [frequency, q];
    case 'parametric':
      return [frequency, filter.octaves == null ? q : { name: 'Octaves', field: 'octaves' }];
    case 'all_pass':
      return [frequency, { ...q, optional: true }];
    case 'linkwitz_transform':
      return [
        { name: 'Box Fc', field: 'frequency' },
        { name: 'Box Qtc', field: 'q' },
        { name: 'New Fc', field: 'wanted_frequency' },
        { name: 'New Qtc', field: 'wanted_q' },
      ];
    case 'delay':
      return [{ name: 'Delay', field: 'delay' }];
    default:
      return [];
  }
}

/** Whether a kind of filter has a gain. */
export const hasGain = ({ kind }: RawFilter): boolean =>
  kind === 'parametric' || kind === 'low_shelf' || kind === 'high_shelf' || kind === 'gain';

/** Whether it is shown as a handle on the curve. */
export const hasHandle = (filter: RawFilter): boolean =>
  !filter.bypassed && filter.frequency != null && filter.kind !== 'linkwitz_transform';
