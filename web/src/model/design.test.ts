import { describe, expect, it } from 'vitest';
import type { RawDesign } from '../schema/types';
import { slot } from '../testing/nook';
import {
  copyOf,
  portsAt,
  same,
  siAt,
  valueAt,
  withBranch,
  withFill,
  withInnerEnd,
  withoutSegment,
  withSegment,
  withShape,
  withStart,
  withValue,
} from './design';
import { holdsValuesFor } from './families';

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
    const volts = withValue(slot, 'signal.drive.voltage', '2.83 V');
    expect(volts.signal?.drive).toEqual({ voltage: '2.83 V' });
    expect(withValue(volts, 'signal.drive.power', '10 W').signal?.drive).toEqual({ power: '10 W' });
  });

  it('keeps sizes and volume as written, and notes which was set last', () => {
    const sized = ['width', 'height', 'depth'].reduce(
      (design, name) => withValue(design, `body.${name}`, '400 mm'),
      withValue({ ...slot, body: {} }, 'enclosure.volume', '50 l'),
    );
    expect(sized.body?.order).toEqual(['volume', 'width', 'height', 'depth']);
    const larger = withValue(sized, 'enclosure.volume', '60 l');
    expect(larger.body).toMatchObject({ width: '400 mm', order: ['width', 'height', 'depth', 'volume'] });
    const back = withValue(larger, 'body.width', larger.body?.width ?? null);
    expect(back.body).toMatchObject({ width: '400 mm', order: ['height', 'depth', 'volume', 'width'] });
    expect(back.enclosure.volume).toBe('60 l');
    expect(withValue(back, 'body.width', null).body?.order).toEqual(['height', 'depth', 'volume']);
  });

  it('keeps the tuning while another port still follows it', () => {
    const ports = [...(slot.enclosure.ports ?? []), { shape: 'round' as const, diameter: '50 mm' }];
    const two = { ...slot, enclosure: { ...slot.enclosure, ports } };
    expect(valueAt(withValue(two, `${PORT}.length`, '300 mm'), 'enclosure.tuning')).toBe('29 Hz');
  });
});

describe('another kind of cabinet', () => {
  const start: RawDesign = {
    ...slot,
    notes: 'Why.',
    enclosure: { family: 'bandpass4', volume: '20 l', front: { volume: '15 l', tuning: '50 Hz', ports: [] } },
  };

  it('takes what a starting point says and keeps what the other kind had', () => {
    const begun = withStart(slot, start);
    expect(begun.enclosure).toMatchObject({ family: 'bandpass4', volume: '20 l', tuning: '29 Hz' });
    expect(begun.enclosure.ports).toEqual(slot.enclosure.ports);
    expect(begun.notes).toBe('Why.');
    expect(begun.driver).toBe(slot.driver);
    expect(begun.enclosure.ql).toBeUndefined();
  });

  it('tells which kinds its values would do for', () => {
    expect(holdsValuesFor(slot, 'sealed')).toBe(true);
    expect(holdsValuesFor(slot, 'bandpass4')).toBe(false);
    expect(holdsValuesFor(slot, 'front_horn')).toBe(false);
    const begun = withStart(slot, start);
    const front = { ...begun.enclosure.front, ports: slot.enclosure.ports ?? [] };
    const both = { ...begun, enclosure: { ...begun.enclosure, front } };
    expect(holdsValuesFor(both, 'bandpass6_series')).toBe(true);
    expect(holdsValuesFor(both, 'infinite_baffle')).toBe(true);
  });

  it('has one tuning or lengths in the front chamber too', () => {
    const front = {
      volume: '15 l',
      tuning: '50 Hz',
      ports: [{ shape: 'round' as const, diameter: '90 mm' }],
    };
    const two = { ...slot, enclosure: { ...slot.enclosure, front } };
    const long = withValue(two, 'enclosure.front.ports[0].length', '200 mm');
    expect(valueAt(long, 'enclosure.front.tuning')).toBeNull();
    expect(valueAt(long, 'enclosure.tuning')).toBe('29 Hz');
    const tuned = withValue(long, 'enclosure.front.tuning', '55 Hz');
    expect(valueAt(tuned, 'enclosure.front.ports[0].length')).toBeNull();
  });

  it('adds and takes away stretches without losing where the way begins', () => {
    const way = (): RawDesign => ({
      ...slot,
      enclosure: {
        family: 'line',
        passage: { segments: [{ length: '1 m', start: '400 cm2', end: '300 cm2' }] },
      },
    });
    const longer = withSegment(way());
    expect(longer.enclosure.passage?.segments).toHaveLength(2);
    const shorter = withoutSegment(longer, 0);
    expect(shorter.enclosure.passage?.segments).toHaveLength(1);
    expect(valueAt(shorter, 'enclosure.passage.segments[0].start')).toBe('400 cm2');
    expect(withoutSegment(way(), 0).enclosure.passage?.segments).toHaveLength(1);
  });

  it('keeps the area of the port when its shape changes', () => {
    const round = withShape(slot, 'enclosure', 0, 'round');
    const diameter = siAt(round, `${PORT}.diameter`) ?? 0;
    expect((Math.PI / 4) * diameter ** 2).toBeCloseTo(0.25 * 0.028, 4);
    const fresh = withShape(
      { ...round, enclosure: { ...round.enclosure, ports: [{ shape: 'round', diameter: '100 mm' }] } },
      'enclosure',
      0,
      'slot',
    );
    const area = (siAt(fresh, `${PORT}.width`) ?? 0) * (siAt(fresh, `${PORT}.height`) ?? 0);
    expect(area).toBeCloseTo((Math.PI / 4) * 0.01, 4);
    const corner = withShape(slot, 'enclosure', 0, 'corner');
    expect((siAt(corner, `${PORT}.side`) ?? 0) ** 2 / 2).toBeCloseTo(0.25 * 0.028, 4);
    expect(valueAt(corner, `${PORT}.inner_end`)).toBe('two_walls');
  });
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

it('makes a slot between both sides as wide as the box, and gives it a width of its own elsewhere', () => {
  const across = withInnerEnd(slot, 'enclosure', 0, 'three_walls');
  expect(portsAt(across, 'enclosure')[0]).toMatchObject({ inner_end: 'three_walls' });
  expect(portsAt(across, 'enclosure')[0]?.width).toBeUndefined();
  const beside = withInnerEnd(across, 'enclosure', 0, 'two_walls');
  expect(siAt(beside, `${PORT}.width`)).toBeCloseTo(8 * (siAt(beside, `${PORT}.height`) ?? 0), 2);
});

describe('fill in a chamber', () => {
  it('takes the place of what was typed of its effect, and begins to be weighed at the amount it was', () => {
    const typed = withValue(withValue(slot, 'enclosure.qa', 30), 'enclosure.gain', 1.1);
    const half = withFill(typed, 'enclosure', 'half').enclosure;
    expect([half.fill, half.qa ?? null, half.gain ?? null]).toEqual(['half', null, null]);
    const weighed = withFill({ ...typed, enclosure: half }, 'enclosure', 'weighed').enclosure;
    expect([weighed.fill ?? null, weighed.fill_density]).toEqual([null, '5 kg/m3']);
    const wool = withBranch({ ...typed, enclosure: weighed }, 'enclosure.fill_material', 'wool');
    expect(withFill(wool, 'enclosure', 'weighed').enclosure.fill_material).toBe('wool');
    const none = withFill(wool, 'enclosure', null).enclosure;
    expect([none.fill_density ?? null, none.fill_material ?? null, none.qa]).toEqual([null, null, 100]);
  });

  it('is that of the chamber before the drivers where that is meant', () => {
    const two = { ...slot, enclosure: { ...slot.enclosure, front: { volume: '10 l' } } };
    const filled = withFill(two, 'enclosure.front', 'weighed');
    expect(filled.enclosure.front?.fill_density).toBe('10 kg/m3');
    expect(filled.enclosure.fill_density).toBe(slot.enclosure.fill_density);
  });
});
