import { describe, expect, test } from 'vitest';
import type { DriverMatchPoint } from '../../schema/types';
import { AXES, nextOnFront, scaleOf } from './tradeoff';

function point(volume: number, f3: number, loudness: number, front = true): DriverMatchPoint {
  return {
    driver: `${volume}`,
    name: `${volume}`,
    family: 'ported',
    volume: volume / 1e3,
    f3,
    loudness,
    score: 90,
    front,
  };
}

describe('scaleOf', () => {
  test('holds every value between its ends, with ticks that are round numbers', () => {
    const points = [point(8, 30, 95), point(80, 61, 104), point(33, 41.2, 99)];
    for (const axis of Object.values(AXES)) {
      const scale = scaleOf(axis, points);
      for (const one of points) {
        const place = scale.place(axis.value(one));
        expect(place).toBeGreaterThan(0);
        expect(place).toBeLessThan(1);
      }
      expect(scale.ticks.length).toBeGreaterThanOrEqual(3);
      for (const tick of scale.ticks) {
        expect(scale.place(tick)).toBeGreaterThanOrEqual(0);
        expect(scale.place(tick)).toBeLessThanOrEqual(1);
      }
    }
    expect(scaleOf(AXES.volume, points).ticks).toEqual([10, 20, 50]);
  });

  test('a single point has room around it', () => {
    const [only] = [point(20, 40, 100)];
    for (const axis of Object.values(AXES))
      expect(scaleOf(axis, [only]).place(axis.value(only))).toBeCloseTo(0.5, 5);
  });
});

describe('nextOnFront', () => {
  const points = [point(50, 25, 99), point(10, 60, 90), point(30, 33, 95), point(20, 90, 80, false)];
  test('goes along the axis from one that no other beats to the next, and stops at the ends', () => {
    const names = [];
    let at: DriverMatchPoint | undefined;
    for (let step = 0; step < 4; step += 1) {
      at = nextOnFront(points, AXES.volume, at, 1);
      names.push(at?.name);
    }
    expect(names).toEqual(['10', '30', '50', '50']);
    expect(nextOnFront(points, AXES.volume, at, -1)?.name).toBe('30');
  });

  test('begins at the near end, also from a point that is beaten', () => {
    expect(nextOnFront(points, AXES.f3, undefined, -1)?.name).toBe('10');
    expect(nextOnFront(points, AXES.volume, points[3], 1)?.name).toBe('10');
    expect(nextOnFront([], AXES.f3, undefined, 1)).toBeUndefined();
  });
});
