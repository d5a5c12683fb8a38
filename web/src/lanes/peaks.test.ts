import { describe, expect, it } from 'vitest';
import { extremes } from './peaks';

describe('peaks and dips', () => {
  const over = (values: number[]) => ({ frequency: values.map((_, k) => 10 + k), values });
  const twoPeaks = over([1, 2, 8, 3, 2, 3, 10, 4, 1]);
  const all = [10, 18] as const;

  it('are found with what lies between them', () => {
    expect(extremes(twoPeaks, all, 1)).toEqual([
      { at: 16, value: 10, kind: 'peak' },
      { at: 12, value: 8, kind: 'peak' },
      { at: 14, value: 2, kind: 'dip' },
    ]);
  });

  it('must stand out far enough and lie within what is shown', () => {
    expect(extremes(twoPeaks, all, 8).map(({ at }) => at)).toEqual([16]);
    expect(extremes(twoPeaks, [13, 18], 1).map(({ at }) => at)).toEqual([16, 14]);
  });

  it('are none in what only rises', () => {
    expect(extremes(over([1, 2, 3, 4]), [10, 13], 0.1)).toEqual([]);
  });
});
