import { describe, expect, it } from 'vitest';
import { valueAt } from './trace';

describe('a line over its own frequencies', () => {
  const line = { frequency: [10, 20, 80], values: [1, 3, null] };

  it('has its own values at its points, and is even in octaves between them', () => {
    expect(valueAt(line, 10)).toBe(1);
    expect(valueAt(line, 20)).toBe(3);
    expect(valueAt(line, 10 * Math.SQRT2)).toBeCloseTo(2, 12);
  });

  it('has none outside of them, nor beside a gap', () => {
    expect(valueAt(line, 9)).toBeNull();
    expect(valueAt(line, 81)).toBeNull();
    expect(valueAt(line, 30)).toBeNull();
    expect(valueAt(line, 80)).toBeNull();
    expect(valueAt({ frequency: [], values: [] }, 20)).toBeNull();
  });
});
