import { describe, expect, it } from 'vitest';
import { noteAt } from '../model/notes';
import { fraction, frequencyAt, LANDMARKS, nearest, ticks } from './axis';

describe('the frequency axis', () => {
  it('is logarithmic and goes both ways', () => {
    expect(fraction(10, 10, 500)).toBe(0);
    expect(fraction(500, 10, 500)).toBe(1);
    expect(frequencyAt(fraction(41.2, 10, 500), 10, 500)).toBeCloseTo(41.2, 9);
  });

  it('finds the nearest point and stays within', () => {
    const points = [10, 20, 40, 80];
    expect(nearest(points, 21)).toBe(1);
    expect(nearest(points, 1)).toBe(0);
    expect(nearest(points, 9999)).toBe(3);
  });

  it('has ticks that rise and stay within', () => {
    const all = ticks(10, 500).map((tick) => tick.frequency);
    expect(all[0]).toBe(10);
    expect(all.at(-1)).toBe(500);
    expect([...all].sort((a, b) => a - b)).toEqual(all);
    expect(new Set(all).size).toBe(all.length);
  });
});

it('notes are those of equal temperament with A4 at 440 Hz (ISO 16)', () => {
  expect([440, 41.2, 30.87, 82.41, 16.35, 261.63, 46.25].map(noteAt)).toEqual([
    'A4',
    'E1',
    'B0',
    'E2',
    'C0',
    'C4',
    'F♯1',
  ]);
  for (const { frequency, label } of LANDMARKS) expect(noteAt(frequency)).toBe(label);
});
