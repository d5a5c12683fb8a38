import { describe, expect, it } from 'vitest';
import type { DrawingReport } from '../../schema/types';
import { GAP, grouped, ROW, scaled, tabOf } from './sheet';

const DRAWING: DrawingReport = {
  view: 'side',
  name: 'Side section',
  extent: [
    [0, 0],
    [0.4, 0.8],
  ],
  strokes: [
    { part: 'boards', line: 'cut', closed: true, points: [[0, 0]] },
    { part: 'chamber', line: 'seen', closed: true, points: [[0, 0]] },
    { part: 'port', line: 'cut', closed: true, points: [[0, 0]] },
    { part: 'port', line: 'air', closed: true, points: [[0, 0]] },
  ],
  rings: [{ part: 'port', line: 'seen', middle: [0, 0], radius: 0.05 }],
  measures: [],
  labels: [],
};

describe('a drawing on the screen', () => {
  it('keeps its proportions, up being up', () => {
    const fitted = scaled(DRAWING, 700, 500);
    expect(fitted.y(0) - fitted.y(0.8)).toBeCloseTo(2 * (fitted.x(0.4) - fitted.x(0)), 6);
    expect(fitted.y(0)).toBeCloseTo(fitted.bottom, 6);
    expect(fitted.x(0)).toBeCloseTo(fitted.left, 6);
    expect(fitted.x(0.4)).toBeLessThan(700);
  });

  it('leaves room for every row of measures', () => {
    const rows = (count: number, upright: boolean) =>
      Array.from({ length: count }, (_, row) => ({ upright, between: [0, 0.4], row, of: 'height' }));
    const three = scaled({ ...DRAWING, measures: [...rows(4, true), ...rows(3, false)] }, 700, 500);
    // The words of the outermost row stand beyond it.
    expect(three.left - GAP - 3 * ROW).toBeGreaterThanOrEqual(18);
    expect(500 - three.bottom).toBeGreaterThanOrEqual(GAP + 2 * ROW + 18);
  });

  it('puts what belongs together into one part, and the room leads nowhere', () => {
    const parts = grouped(DRAWING);
    expect(parts.map(({ part }) => part)).toEqual(['boards', 'chamber', 'port']);
    expect(parts.map(({ opens }) => opens)).toEqual([true, false, true]);
    expect(parts[2]?.strokes).toHaveLength(2);
    expect(parts[2]?.rings).toHaveLength(1);
  });

  it('leads each part to where it is decided', () => {
    expect(['driver', 'port 2', 'front port', 'brace', 'boards', 'fill back'].map(tabOf)).toEqual([
      'air',
      'air',
      'air',
      'panels',
      'sizes',
      'waves',
    ]);
  });
});
