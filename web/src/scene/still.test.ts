import { describe, expect, it, vi } from 'vitest';
import type { ModelReport } from '../schema/types';
import { paint, patches } from './still';

type Part = ModelReport['parts'][number];

/** A box of 0.4 m across, 0.6 m high and 0.3 m deep, of its outer faces alone. */
function box(parts: Part[] = []): ModelReport {
  const [x, y, z] = [0.4, 0.6, 0.3];
  const t = 0.02;
  const face = (name: string, at: (u: number, v: number, inward: number) => number[]) => {
    const ring = (inward: number) =>
      (
        [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 1],
        ] as const
      ).map(([u, v]) => at(u, v, inward));
    return { face: name, outer: ring(0), inner: ring(t) };
  };
  const along = (share: number, size: number, inward: number) => inward + share * (size - 2 * inward);
  return {
    bounds: [
      [0, 0, 0],
      [x, y, z],
    ],
    panels: [
      face('front', (u, v, i) => [along(u, x, i), along(v, y, i), z - i]),
      face('left', (u, v, i) => [i, along(v, y, i), along(u, z, i)]),
      face('top', (u, v, i) => [along(u, x, i), y - i, z - along(v, z, i)]),
      face('right', (u, v, i) => [x - i, along(v, y, i), z - along(u, z, i)]),
    ],
    parts,
    fills: [],
  };
}

const driver: Part = {
  name: 'driver',
  pieces: [{ shape: 'rod', from: [0.2, 0.4, 0.3], to: [0.2, 0.4, 0.2], radii: [0.1, 0.05] }],
  mouth: [0.2, 0.4, 0.3],
  normal: [0, 0, 1],
  size: [0.2, 0.2],
  round: true,
  corner: false,
  path: [],
  chamber: 0,
};

const bounds = (all: ReturnType<typeof patches>) => {
  const points = all.flatMap((patch) => patch.points);
  const [xs, ys] = [points.map(([px]) => px), points.map(([, py]) => py)];
  return [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)] as const;
};

describe('a small picture of a box', () => {
  it('holds all of the box, as large as there is room, in its own proportions', () => {
    for (const [width, height] of [
      [46, 46],
      [200, 60],
    ] as const) {
      const [left, right, top, bottom] = bounds(patches(box(), width, height));
      expect(left).toBeGreaterThanOrEqual(0);
      expect(right).toBeLessThanOrEqual(width);
      expect(top).toBeGreaterThanOrEqual(0);
      expect(bottom).toBeLessThanOrEqual(height);
      // A tall box fills the height, and stands in the middle.
      expect(bottom - top).toBeGreaterThan(height - 4);
      expect((left + right) / 2).toBeCloseTo(width / 2, 0);
    }
    const [left, right, top, bottom] = bounds(patches(box(), 46, 46));
    const [wide, high] = [right - left, bottom - top];
    const [left2, right2, top2, bottom2] = bounds(patches(box(), 460, 460));
    expect((right2 - left2) / (bottom2 - top2)).toBeCloseTo(wide / high, 1);
  });

  it('shows more of the front than of the side, and the top lightest', () => {
    const one = (face: string) => {
      const model = box();
      return patches({ ...model, panels: model.panels.filter((panel) => panel.face === face) }, 60, 60);
    };
    const grey = (colour: string) => Number.parseInt(colour.slice(1, 3), 16);
    const lightest = (face: string) => Math.max(...one(face).map(({ colour }) => grey(colour)));
    expect(lightest('top')).toBeGreaterThan(lightest('left'));
    const area = ([a, b, c]: [number, number][]) =>
      a && b && c ? Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])) / 2 : 0;
    const shown = (face: string) => one(face).reduce((sum, { points }) => sum + area(points), 0);
    expect(shown('front')).toBeGreaterThan(shown('left'));
    expect(lightest('top')).toBeGreaterThan(lightest('front'));
  });

  it('paints the driver after the board it sits in', () => {
    const plain = patches(box(), 60, 60).length;
    const all = patches(box([driver]), 60, 60);
    const before = all.slice(0, plain).map(({ colour }) => colour);
    expect(all.length).toBeGreaterThan(plain + 20);
    // The last patches are none of the wood's.
    expect(before).not.toContain(all.at(-1)?.colour);
  });

  it('paints nothing through a board: neither a driver inside nor one that looks away', () => {
    const plain = patches(box(), 60, 60).length;
    const inside = { ...driver, mouth: [0.2, 0.4, 0.15] };
    const behind = { ...driver, mouth: [0.2, 0.4, 0], normal: [0, 0, -1] };
    for (const part of [inside, behind]) expect(patches(box([part]), 60, 60)).toHaveLength(plain);
  });

  it('is painted on a canvas, piece by piece, and tells where that cannot be', () => {
    const ctx = {
      clearRect: vi.fn(),
      beginPath: vi.fn(),
      lineTo: vi.fn(),
      closePath: vi.fn(),
      fill: vi.fn(),
      stroke: vi.fn(),
    };
    const canvas = (context: unknown) =>
      ({ width: 60, height: 60, getContext: () => context }) as unknown as HTMLCanvasElement;
    expect(paint(box([driver]), canvas(ctx))).toBe(true);
    expect(ctx.fill).toHaveBeenCalledTimes(patches(box([driver]), 60, 60).length);
    expect(ctx.clearRect).toHaveBeenCalledOnce();
    expect(paint(box(), canvas(null))).toBe(false);
  });
});
