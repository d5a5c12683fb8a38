import { describe, expect, it } from 'vitest';
import type { Sweep } from '../../schema/types';
import { columnsOf, curveOf, written } from './swept';

const outcome = (f3: number, air: number | null) =>
  ({ f3, reference_level: 88, peak: 0, group_delay_most: 0.01, air_speed: air }) as never;

const SWEEP = {
  parameters: [{ id: 'volume', value: 0.04 }],
  parameter: 'volume',
  from: 0.02,
  to: 0.06,
  frequency: [],
  steps: [
    { value: 0.02, outcome: outcome(44, null) },
    { value: 0.04, outcome: outcome(34, null) },
    { value: 0.05, outcome: null },
    { value: 0.06, outcome: outcome(30, null) },
  ],
} as unknown as Sweep;

const column = (name: string) => {
  const found = columnsOf(SWEEP).find((one) => one.name === name);
  if (!found) throw new Error(name);
  return found;
};

describe('figures of a sweep', () => {
  it('leaves out what no step has', () => {
    expect(columnsOf(SWEEP).map(({ name }) => name)).toEqual(['F3', 'SPL', 'Peak', 'Group delay']);
  });

  it('draws a figure against the value, steps that cannot be built left out', () => {
    const curve = curveOf(SWEEP, column('F3'));
    expect(curve?.points).toHaveLength(3);
    expect(curve?.points[1]?.x).toBeCloseTo(0.5, 9);
    expect(curve?.points[0]?.y).toBeCloseTo(1, 9);
    expect(curve?.points[2]?.y).toBeCloseTo(0, 9);
    expect(curve?.points.map(({ now }) => now)).toEqual([false, true, false]);
  });

  it('shows a figure that stays as a level line', () => {
    expect(curveOf(SWEEP, column('SPL'))?.points.map(({ y }) => y)).toEqual([0.5, 0.5, 0.5]);
  });

  it('writes figures with their unit', () => {
    expect(written(column('F3'), outcome(33.97, null))).toBe('34 Hz');
    expect(written(column('SPL'), outcome(33.97, null))).toBe('88.0 dB');
  });
});
