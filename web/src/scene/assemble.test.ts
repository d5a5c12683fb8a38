import { type BufferGeometry, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import type { ModelReport } from '../schema/types';
import { assemble } from './assemble';
import { between, board, piece, tube } from './boards';
import { scaleFigureFor } from './scale_figure';
import { Surface } from './surface';

const corner = (geometry: BufferGeometry, at: number) =>
  new Vector3().fromBufferAttribute(geometry.getAttribute('position'), at);

/** What a closed surface of triangles holds, by the divergence theorem; less than nothing where it is inside out. */
function volume(surface: Surface): number {
  const geometry = surface.geometry();
  let sum = 0;
  for (let k = 0; k < surface.count * 3; k += 3) {
    sum += corner(geometry, k).dot(corner(geometry, k + 1).cross(corner(geometry, k + 2))) / 6;
  }
  return sum;
}

/** Edges that are not run through once there and once back: none where it is closed. */
function open(surface: Surface): number {
  const geometry = surface.geometry();
  const edges = new Map<string, number>();
  const name = (point: Vector3) =>
    point
      .toArray()
      .map((x) => Math.round(x * 1e6))
      .join();
  for (let k = 0; k < surface.count * 3; k += 3) {
    for (let side = 0; side < 3; side += 1) {
      const [a, b] = [name(corner(geometry, k + side)), name(corner(geometry, k + ((side + 1) % 3)))];
      if (a === b) continue;
      edges.set(`${a} ${b}`, (edges.get(`${a} ${b}`) ?? 0) + 1);
      edges.set(`${b} ${a}`, (edges.get(`${b} ${a}`) ?? 0) - 1);
    }
  }
  return [...edges.values()].filter((count) => count !== 0).length;
}

const square = (z: number, side: number, from = 0) => [
  [from, from, z],
  [from + side, from, z],
  [from + side, from + side, z],
  [from, from + side, z],
];
const vectors = (points: number[][]) => points.map(([x, y, z]) => new Vector3(x, y, z));

/** A front 0.4 m wide and high, 20 mm thick, mitred into the sides. */
const FRONT = { face: 'front', outer: square(0.5, 0.4), inner: square(0.48, 0.36, 0.02) };
const round = (
  name: string,
  x: number,
  y: number,
  across: number,
  z = 0.5,
): ModelReport['parts'][number] => ({
  name,
  pieces: [{ shape: 'rod', from: [x, y, z], to: [x, y, z - 0.1], radii: [across / 2, across / 2] }],
  mouth: [x, y, z],
  normal: [0, 0, 1],
  size: [across, across],
  round: true,
  corner: false,
  path: [],
  chamber: 0,
});

describe('surfaces of a box', () => {
  it('are closed and hold what boards and pieces do', () => {
    const frustum = new Surface();
    between(frustum, vectors(square(1, 1, 0.5)), vectors(square(0, 2)));
    expect(volume(frustum)).toBeCloseTo((4 + 2 + 1) / 3, 6);
    expect(open(frustum)).toBe(0);
    const block = new Surface();
    piece(block, { shape: 'block', low: [0, 0, 0], high: [0.3, 0.02, 0.1] }, new Vector3());
    expect(volume(block)).toBeCloseTo(0.3 * 0.02 * 0.1, 9);
    expect(open(block)).toBe(0);
    for (const outlines of [
      { near: square(0, 1), far: square(1, 1) },
      { near: square(1, 1), far: square(0, 1) },
    ]) {
      const prism = new Surface();
      piece(prism, { shape: 'prism', ...outlines }, new Vector3());
      expect(volume(prism)).toBeCloseTo(1, 6);
    }
    const pipe = new Surface();
    tube(pipe, [new Vector3(), new Vector3(0, 0, 0.3)], [0.05, 0.05], [0.047, 0.047]);
    // Round by forty corners.
    const around = 20 * Math.sin(Math.PI / 20);
    expect(volume(pipe)).toBeCloseTo(around * (0.05 ** 2 - 0.047 ** 2) * 0.3, 8);
    expect(open(pipe)).toBe(0);
  });

  it('have a hole for each opening that lies in a board, and none for one beside it', () => {
    const whole = new Surface();
    expect(board(whole, FRONT, [], 0)).toEqual([]);
    const solid = (0.02 * (0.4 ** 2 + 0.4 * 0.36 + 0.36 ** 2)) / 3;
    expect(volume(whole)).toBeCloseTo(solid, 7);
    const holed = new Surface();
    const parts = [
      round('driver', 0.2, 0.25, 0.2),
      round('port 1', 0.2, 0.08, 0.06),
      round('port 2', 0.2, 0.3, 0.1, 0),
    ];
    expect(board(holed, FRONT, parts, 0)).toEqual(['driver', 'port 1']);
    const around = 20 * Math.sin(Math.PI / 20);
    expect(volume(holed)).toBeCloseTo(solid - around * (0.1 ** 2 + 0.03 ** 2) * 0.02, 7);
    expect(open(holed)).toBe(0);
  });

  it('cut a slot along a wall as wide as the room leaves it', () => {
    const slot = { ...round('port 1', 0.2, 0.035, 0), round: false, size: [0.36, 0.03] };
    const holed = new Surface();
    expect(board(holed, FRONT, [slot], 0)).toEqual(['port 1']);
    expect(open(holed)).toBe(0);
    const solid = (0.02 * (0.4 ** 2 + 0.4 * 0.36 + 0.36 ** 2)) / 3;
    expect(volume(holed)).toBeCloseTo(solid - 0.36 * 0.03 * 0.02, 5);
  });

  it('know the part of every triangle, move apart, and stay few', () => {
    const model: ModelReport = {
      bounds: [
        [0, 0, 0],
        [0.4, 0.4, 0.5],
      ],
      panels: [FRONT],
      parts: [round('driver', 0.2, 0.25, 0.2), round('port 1', 0.2, 0.08, 0.06)],
      fills: [[square(0.05, 0.3), square(0.02, 0.3)].map((face, at) => (at ? face.toReversed() : face))],
    };
    const made = assemble(model, 0);
    expect(made.wood.nameAt(0)).toBe('board front');
    expect(made.wood.nameAt(made.wood.count - 1)).toBe('board front');
    expect(made.tubes.nameAt(0)).toBe('port 1');
    expect(made.moving.nameAt(5)).toBe('driver');
    expect(made.wood.geometryOf('board back')).toBeNull();
    expect([made.fill.count, made.fill.nameAt(0)]).toEqual([4, 'fill']);
    expect(made.wood.count + made.tubes.count + made.moving.count).toBeLessThan(10_000);
    const apart = assemble(model, 1);
    const front = (surface: Surface) => corner(surface.geometry(), 0).z;
    expect(front(apart.wood) - front(made.wood)).toBeGreaterThan(0.2);
    expect(volume(apart.wood)).toBeCloseTo(volume(made.wood), 7);
  });

  it('stand beside something of their size', () => {
    expect([0.25, 0.6, 1.2].map((height) => scaleFigureFor(height).name)).toEqual([
      'a hand, 19 cm',
      'a 12-inch record',
      'a person, 1.75 m',
    ]);
  });
});
