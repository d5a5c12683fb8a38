import { describe, expect, it } from 'vitest';
import { decades, linear, logarithmic, roundUp, rungs } from './scale';

describe('a scale', () => {
  it('puts the ends of its range at the ends of its stretch, backwards too', () => {
    for (const make of [linear, logarithmic]) {
      const down = make([10, 1000], [200, 20]);
      expect([down(10), down(1000)]).toEqual([200, 20]);
    }
    expect(linear([0, 10], [0, 5])(4)).toBe(2);
    expect(logarithmic([10, 1000], [0, 2])(100)).toBeCloseTo(1, 12);
  });
});

describe('round values', () => {
  it('are no more than asked and lie within the range', () => {
    expect(rungs([-3, 9])).toEqual([0, 5]);
    expect(rungs([0, 1])).toEqual([0, 0.2, 0.4, 0.6000000000000001, 0.8, 1]);
    expect(rungs([82, 104], 6)).toEqual([85, 90, 95, 100]);
  });

  it('are the next above by their leading digit', () => {
    expect(roundUp(0.23, [1, 2, 5])).toBeCloseTo(0.5, 12);
    expect(roundUp(7, [1, 2, 5])).toBe(10);
    expect(roundUp(0, [1, 2, 5])).toBe(1);
  });

  it('end axes', () => {
    const ends = [0.3, 1.2, 17, 31, 41, 99, 100].map((value) => Number(roundUp(value).toPrecision(6)));
    expect(ends).toEqual([0.3, 1.5, 20, 40, 50, 100, 100]);
    expect(roundUp(0)).toBe(1);
  });

  it('of decades are more where there are few', () => {
    expect(decades([8, 120])).toEqual([10, 20, 50, 100]);
    expect(decades([21, 48])).toEqual([25, 30, 40]);
  });
});
