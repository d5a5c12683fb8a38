import { describe, expect, it } from 'vitest';
import type { RawDesign } from '../schema/types';
import { slot } from '../testing/nook';
import { areaAt, inWood, pointsOf, stretchesOf, withBend, withPoint, withPointAdded } from './way';

const horn = {
  ...slot,
  enclosure: {
    family: 'back_horn',
    volume: '20 l',
    passage: {
      segments: [
        { flare: 'exponential', length: '1 m', start: '100 cm2', end: '400 cm2' },
        { flare: 'conical', length: '0.5 m', end: '900 cm2' },
      ],
    },
  },
} as unknown as RawDesign;

describe('a way as area along its length', () => {
  it('goes on with the area that it came to', () => {
    expect(pointsOf(horn).map(({ at, area }) => [at, Math.round(area * 1e4)])).toEqual([
      [0, 100],
      [1, 400],
      [1.5, 900],
    ]);
    const second = stretchesOf(horn)[1];
    expect([second?.from, second?.start]).toEqual([1, 0.04]);
    expect(second?.end).toBeCloseTo(0.09, 12);
  });

  it('has the law of its flare between its ends', () => {
    const ends = { start: 0.01, end: 0.04 };
    expect(areaAt({ ...ends, flare: 'exponential' }, 0.5)).toBeCloseTo(0.02, 12);
    expect(areaAt({ ...ends, flare: 'conical' }, 0.5)).toBeCloseTo(0.0225, 12);
    expect(areaAt({ ...ends, flare: 'parabolic' }, 0.5)).toBeCloseTo(0.025, 12);
    // A catenoid hangs below the exponential.
    expect(areaAt({ ...ends, flare: 'hyperbolic' }, 0.5)).toBeLessThan(0.02);
    for (const flare of ['conical', 'parabolic', 'exponential', 'hyperbolic', 'tractrix'] as const) {
      expect(areaAt({ ...ends, flare }, 0)).toBeCloseTo(0.01, 12);
      expect(areaAt({ ...ends, flare }, 1)).toBeCloseTo(0.04, 12);
    }
  });

  it('keeps its other points where one is moved, and grows by its last', () => {
    const moved = withPoint(horn, 1, 0.8, 0.03);
    expect(pointsOf(moved).map(({ at, area }) => [at, Math.round(area * 1e4)])).toEqual([
      [0, 100],
      [0.8, 300],
      [1.5, 900],
    ]);
    expect(pointsOf(withPoint(horn, 2, 2, 0.1)).at(-1)).toMatchObject({ at: 2, area: 0.1 });
    expect(pointsOf(withPoint(horn, 0, 5, 0.02))[0]).toMatchObject({ at: 0, area: 0.02 });
    // A point does not pass its neighbours.
    expect(pointsOf(withPoint(horn, 1, 9, 0.03))[1]?.at).toBeCloseTo(1.49, 9);
  });

  it('is bent by the flare that comes nearest, and takes a point more', () => {
    expect(stretchesOf(withBend(horn, 0, 0.025))[0]?.flare).toBe('parabolic');
    expect(stretchesOf(withBend(horn, 0, 0.0224))[0]?.flare).toBe('conical');
    const more = pointsOf(withPointAdded(horn));
    expect(more.map(({ at }) => at)).toEqual([0, 0.5, 1, 1.5]);
    expect(more[1]?.area).toBeCloseTo(0.02, 9);
  });

  it('becomes boards between its sides', () => {
    const [first] = inWood(stretchesOf(horn), 0.4);
    expect(first?.length).toBe(1);
    expect(first?.heights[0]).toBeCloseTo(0.025, 12);
    expect(first?.heights[1]).toBeCloseTo(0.1, 12);
  });
});
