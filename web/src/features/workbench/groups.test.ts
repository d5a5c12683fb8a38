import { describe, expect, it } from 'vitest';
import { FAMILIES, type Family } from '../../model/families';
import { isField } from '../../model/units';
import type { RawDesign } from '../../schema/types';
import { slot } from '../../testing/nook';
import { groupsOf } from './groups';

const front = { volume: '15 l', tuning: '50 Hz', ports: [{ shape: 'round' as const, diameter: '90 mm' }] };
const passage = {
  segments: [
    { length: '1 m', start: '400 cm2' },
    { flare: 'hyperbolic' as const, length: '1 m' },
  ],
};

function design(family: Family, more: Partial<RawDesign['enclosure']> = {}): RawDesign {
  return { ...slot, enclosure: { ...slot.enclosure, family, front, passage, ...more } };
}

const names = (of: RawDesign) => groupsOf(of).map((group) => group.name);

describe('the groups of values', () => {
  it.each(FAMILIES.map(({ id }) => id))(
    'of a %s hold known quantities, the drive, and no value twice',
    (family) => {
      const rows = groupsOf(design(family)).flatMap(({ ruled, plain }) => [...ruled, ...plain]);
      const places = rows.flatMap((row) => row.paths);
      expect(places.filter((path) => !isField(path))).toEqual([]);
      expect(new Set(places).size).toBe(places.length);
      expect(places).toContain('signal.drive.power');
    },
  );

  it('give each of several ports a group of its own', () => {
    const ports = [...(slot.enclosure.ports ?? []), { shape: 'round' as const, diameter: '50 mm' }];
    expect(names(design('ported'))).toEqual(['Cabinet', 'Drivers', 'Signal and space']);
    expect(names(design('ported', { ports }))).toEqual([
      'Cabinet',
      'Port 1',
      'Port 2',
      'Drivers',
      'Signal and space',
    ]);
  });

  it('give each stretch of a way a group, with T where it is hyperbolic', () => {
    expect(names(design('line'))).toEqual([
      'Shape',
      'Line',
      'Segment 1',
      'Segment 2',
      'Drivers',
      'Signal and space',
    ]);
    const [, , first, second] = groupsOf(design('line'));
    expect(first?.ruled.map((row) => row.name)).toEqual(['Length', 'Start area', 'End area']);
    // A stretch that goes on where the one before ended does not say where it begins.
    expect(second?.ruled.map((row) => row.name)).toEqual(['Length', 'End area']);
    expect(second?.plain.map((row) => row.name)).toContain('T');
  });

  it('show the air between a pair unless it is taken as rigid', () => {
    const pair = (ideal: boolean): RawDesign => ({
      ...slot,
      driver_array: { isobaric: { arrangement: 'in_line', coils_in_series: false, ideal } },
    });
    const shown = (of: RawDesign) =>
      groupsOf(of).some((group) => group.plain.some((row) => row.name === 'Trapped air'));
    expect([shown(slot), shown(pair(false)), shown(pair(true))]).toEqual([false, true, false]);
  });
});
