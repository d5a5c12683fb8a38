import { Vector3 } from 'three';
import { expect, test } from 'vitest';
import { between, triangles } from './stage3d';

/** Volume of a closed surface of triangles, by the divergence theorem. */
function volume(geometry: ReturnType<typeof between>): number {
  const at = geometry.getAttribute('position');
  let sum = 0;
  for (let k = 0; k < at.count; k += 3) {
    const [a, b, c] = [0, 1, 2].map((n) => new Vector3().fromBufferAttribute(at, k + n));
    sum += (a?.dot(new Vector3().crossVectors(b ?? new Vector3(), c ?? new Vector3())) ?? 0) / 6;
  }
  return sum;
}

const square = (z: number, side = 1) => [
  [0, 0, z],
  [side, 0, z],
  [side, side, z],
  [0, side, z],
];

test('a polygon with a notch is cut into triangles that fill it', () => {
  const notched = [
    [0, 0, 0],
    [2, 0, 0],
    [2, 2, 0],
    [1, 1, 0],
    [0, 2, 0],
  ];
  const area = triangles(notched).reduce((sum, corners) => {
    const [a, b, c] = corners.map((at) => notched[at] ?? []);
    const [x, y] = [0, 1].map((k) => [(b?.[k] ?? 0) - (a?.[k] ?? 0), (c?.[k] ?? 0) - (a?.[k] ?? 0)]);
    return sum + Math.abs((x?.[0] ?? 0) * (y?.[1] ?? 0) - (x?.[1] ?? 0) * (y?.[0] ?? 0)) / 2;
  }, 0);
  expect(area).toBeCloseTo(3, 9);
  expect(
    triangles([
      [0, 0, 0],
      [1, 0, 0],
    ]),
  ).toEqual([]);
});

test('a body between two outlines is closed: it holds what it should', () => {
  expect(Math.abs(volume(between(square(0), square(2))))).toBeCloseTo(2, 9);
  // A board that is mitred at its edges: a frustum.
  const frustum = between(square(0, 2), [
    [0.5, 0.5, 1],
    [1.5, 0.5, 1],
    [1.5, 1.5, 1],
    [0.5, 1.5, 1],
  ]);
  expect(Math.abs(volume(frustum))).toBeCloseTo((4 + 2 + 1) / 3, 9);
});
