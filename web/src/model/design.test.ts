import { describe, expect, it } from 'vitest';
import type { RawDesign } from '../api/types';
import { sealed, slot } from '../testing/nook';
import { copyOf, firstDesign, same, siAt, valueAt, withFamily, withShape, withValue } from './design';

const PORT = 'enclosure.ports[0]';

describe('a value in a design', () => {
  it('is found by its place, in lists too', () => {
    expect(valueAt(slot, 'enclosure.volume')).toBe('44 l');
    expect(valueAt(slot, `${PORT}.height`)).toBe('28 mm');
    expect(valueAt(slot, 'enclosure.ports[7].height')).toBeNull();
    expect(siAt(slot, 'enclosure.volume')).toBeCloseTo(0.044, 9);
  });

  it('is replaced without touching the design it came from or the order of the file', () => {
    const next = withValue(slot, 'enclosure.volume', '50 l');
    expect(valueAt(next, 'enclosure.volume')).toBe('50 l');
    expect(valueAt(slot, 'enclosure.volume')).toBe('44 l');
    expect(Object.keys(next.enclosure)).toEqual(Object.keys(slot.enclosure));
    expect(next.driver).toBe(slot.driver);
  });

  it('gives the last word to what was touched last', () => {
    const long = withValue(slot, `${PORT}.length`, '300 mm');
    expect(valueAt(long, 'enclosure.tuning')).toBeNull();
    const tuned = withValue(long, 'enclosure.tuning', '30 Hz');
    expect(valueAt(tuned, `${PORT}.length`)).toBeNull();
    const volts = withValue(slot, 'drive.voltage', '2.83 V');
    expect(volts.drive).toEqual({ voltage: '2.83 V' });
    expect(withValue(volts, 'drive.power', '10 W').drive).toEqual({ power: '10 W' });
  });

  it('keeps the tuning while another port still follows it', () => {
    const ports = [...(slot.enclosure.ports ?? []), { shape: 'round' as const, diameter: '50 mm' }];
    const two = { ...slot, enclosure: { ...slot.enclosure, ports } };
    expect(valueAt(withValue(two, `${PORT}.length`, '300 mm'), 'enclosure.tuning')).toBe('29 Hz');
  });
});

describe('another kind of cabinet', () => {
  it('keeps what the other kind had', () => {
    const back = withFamily(withFamily(slot, 'sealed'), 'ported');
    expect(same(back, slot)).toBe(true);
  });

  it('gets a port and a tuning where it never had one', () => {
    const ported = withFamily(sealed, 'ported');
    expect(ported.enclosure.ports).toHaveLength(1);
    expect(ported.enclosure.tuning).toBe(sealed.driver.fs);
  });

  it('keeps the area of the port when its shape changes', () => {
    const round = withShape(slot, 'round');
    const diameter = siAt(round, `${PORT}.diameter`) ?? 0;
    expect((Math.PI / 4) * diameter ** 2).toBeCloseTo(0.25 * 0.028, 4);
    const fresh = withShape(
      { ...round, enclosure: { ...round.enclosure, ports: [{ shape: 'round', diameter: '100 mm' }] } },
      'slot',
    );
    const area = (siAt(fresh, `${PORT}.width`) ?? 0) * (siAt(fresh, `${PORT}.height`) ?? 0);
    expect(area).toBeCloseTo((Math.PI / 4) * 0.01, 4);
  });
});

it('a first design starts at Vas and Fs, within what can be built', () => {
  const design = firstDesign(slot.driver, 0.0633);
  expect(design.enclosure.volume).toBe('63 l');
  expect(design.enclosure.tuning).toBe('24 Hz');
  expect(firstDesign(slot.driver, 2).enclosure.volume).toBe('400 l');
});

it('a copy gets a name that is still free and fits', () => {
  const named = (name: string): RawDesign => ({ ...slot, name });
  expect(copyOf(named('Slot'), [named('Slot')]).name).toBe('Slot 2');
  expect(copyOf(named('Slot 2'), [named('Slot'), named('Slot 2'), named('Slot 3')]).name).toBe('Slot 4');
  expect(copyOf(named('x'.repeat(120)), []).name?.length).toBeLessThanOrEqual(120);
});

it('absent and null are the same, other values are not', () => {
  expect(same({ a: 1, b: null }, { a: 1 })).toBe(true);
  expect(same({ a: [1, { b: 2 }] }, { a: [1, { b: 2 }] })).toBe(true);
  expect(same({ a: '7' }, { a: 7 })).toBe(false);
  expect(same([1, 2], [1])).toBe(false);
});
