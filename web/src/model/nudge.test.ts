import { describe, expect, it } from 'vitest';
import { nudged, rounded, stepFor } from './nudge';

describe('a step', () => {
  it('is 1, 2 or 5 times a power of ten, about a hundredth', () => {
    expect(stepFor(44, false)).toBeCloseTo(0.5, 9);
    expect(stepFor(29, false)).toBeCloseTo(0.2, 9);
    expect(stepFor(0.38, false)).toBeCloseTo(0.002, 9);
    expect(stepFor(5, true)).toBe(1);
  });

  it('lands on whole steps and never drifts', () => {
    expect(nudged(44.13, 1, false)).toBe(44.5);
    expect(nudged(29, -1, false)).toBe(28.8);
    expect(nudged(29, 10, false)).toBe(31);
    expect(nudged(2, -1, true)).toBe(1);
    let value = 10;
    for (let k = 0; k < 50; k += 1) value = nudged(value, 1, false);
    expect(String(value).length).toBeLessThan(6);
  });

  it('is never nothing', () => {
    for (const value of [1e-3, 0.7, 3, 99, 12345]) {
      expect(nudged(value, 1, false)).toBeGreaterThan(value);
      expect(nudged(value, -1, false)).toBeLessThan(value);
      expect(Math.abs(rounded(value, false) / value - 1)).toBeLessThan(0.01);
    }
  });
});
