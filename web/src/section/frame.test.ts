import { describe, expect, it } from 'vitest';
import { frameFor } from './frame';
import type { Scene } from './scene';

const sheet = (width: number, height: number): Scene => ({
  title: '',
  parts: [],
  dimensions: [],
  extent: { x: 0, y: 0, width, height },
});

describe('the frame of a section', () => {
  it('has the drawing as large as it goes, upright, within its margins', () => {
    const frame = frameFor(sheet(0.5, 1), 900, 600);
    expect(frame.y(0) - frame.y(1)).toBeCloseTo(frame.scale);
    expect(frame.x(0.5) - frame.x(0)).toBeCloseTo(0.5 * frame.scale);
    expect(frame.y(0)).toBeLessThan(600 - 30);
    expect(frame.y(1)).toBeGreaterThan(10);
  });

  it('keeps out from under the buttons, and uses the whole width where they are not in the way', () => {
    const wide = frameFor(sheet(1, 0.9), 600, 560);
    expect(wide.x(1)).toBeLessThan(600 - 124);
    // A long line lies below them.
    const line = frameFor(sheet(2, 0.3), 600, 560);
    expect(line.y(0.3)).toBeGreaterThan(104);
    expect(line.x(2)).toBeGreaterThan(600 - 124);
  });
});
