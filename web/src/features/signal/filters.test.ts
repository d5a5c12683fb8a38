import { describe, expect, it } from 'vitest';
import type { RawDesign, RawFilter } from '../../schema/types';
import { slot } from '../../testing/nook';
import {
  asKind,
  FILTER_KINDS,
  filtersOf,
  moved,
  newFilter,
  partsOf,
  withFilters,
  withItem,
  withParts,
} from './filters';

const design = slot;

describe('filters of a design', () => {
  it('come and go without a trace', () => {
    const { signal: _, ...bare } = design;
    const with_ = withFilters(bare as RawDesign, [newFilter('high_pass')]);
    expect(filtersOf(with_)).toHaveLength(1);
    expect(withFilters(with_, [])).toEqual(bare);
    const both = withParts(with_, [{ wiring: 'series', resistance: '1 ohm' }]);
    expect(partsOf(both)).toHaveLength(1);
    expect(filtersOf(both)).toHaveLength(1);
  });

  it('are moved towards the signal and the drivers, and no farther than the ends', () => {
    expect(moved(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c']);
    expect(moved(['a', 'b', 'c'], 2, -1)).toEqual(['a', 'c', 'b']);
    expect(moved(['a', 'b', 'c'], 0, -1)).toEqual(['a', 'b', 'c']);
    expect(moved(['a', 'b', 'c'], 2, 1)).toEqual(['a', 'b', 'c']);
    expect(withItem(['a', 'b'], 1, null)).toEqual(['a']);
    expect(withItem(['a', 'b'], 0, 'c')).toEqual(['c', 'b']);
  });

  it('keep what they have when they become another kind, and have what that needs', () => {
    const band: RawFilter = { kind: 'parametric', frequency: '33 Hz', gain: '-6 dB', q: 2 };
    expect(asKind(band, 'low_shelf', null)).toMatchObject({
      kind: 'low_shelf',
      frequency: '33 Hz',
      gain: '-6 dB',
    });
    expect(asKind(band, 'delay', null)).toMatchObject({ kind: 'delay', delay: '5 ms', frequency: '33 Hz' });
    const [first] = FILTER_KINDS.map(([kind]) => newFilter(kind));
    expect(first?.kind).toBe('high_pass');
  });

  it('take corner and Q of a sealed box for its transform', () => {
    expect(newFilter('linkwitz_transform', [52.123, 0.8312])).toMatchObject({
      frequency: '52.12 Hz',
      q: 0.831,
    });
  });
});
