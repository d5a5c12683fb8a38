import { describe, expect, it } from 'vitest';
import { extremes } from './peaks';

describe('peaks and dips', () => {
  const twoPeaks = [1, 2, 8, 3, 2, 3, 10, 4, 1];
  const all = [0, 8] as const;

  it('are found with what lies between them', () => {
    expect(extremes(twoPeaks, all, 1)).toEqual([
      { index: 6, value: 10, kind: 'peak' },
      { index: 2, value: 8, kind: 'peak' },
      { index: 4, value: 2, kind: 'dip' },
    ]);
  });

  it('must stand out far enough and lie within what is shown', () => {
    expect(extremes(twoPeaks, all, 8).map(({ index }) => index)).toEqual([6]);
    expect(extremes(twoPeaks, [3, 8], 1).map(({ index }) => index)).toEqual([6, 4]);
  });

  it('are none in what only rises', () => {
    expect(extremes([1, 2, 3, 4], [0, 3], 0.1)).toEqual([]);
  });
});
