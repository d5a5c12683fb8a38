import { describe, expect, it } from 'vitest';
import { overdriven } from './over';

const frequency = [10, 20, 30, 40, 50];
const of = (level: number[], clean: (number | null)[]) =>
  overdriven([
    { quantity: 'level', origin: 'simulated', frequency, values: level },
    { quantity: 'level', origin: 'limit', frequency, values: clean },
  ]);

describe('where the drive asks too much', () => {
  it('is told as stretches of frequency', () => {
    expect(of([90, 90, 90, 90, 90], [80, 85, 95, 80, 99])).toEqual([
      [10, 20],
      [40, 40],
    ]);
  });

  it('is nowhere where nothing limits, nor by a rounding', () => {
    expect(of([90, 90, 90, 90, 90], [null, null, 89.98, 90, 91])).toEqual([]);
  });
});
