// Boards with their holes, and what else is of wood or a pipe.

import { Vector2, Vector3 } from 'three';
import type { ModelReport } from '../schema/types';
import { axesOf, normalOf, type Point, type Surface, vector } from './surface';

type Part = ModelReport['parts'][number];
type Panel = ModelReport['panels'][number];
type Piece = Part['pieces'][number];

/** Corners of a round hole. */
const ROUND = 40;
/** How far from a board's outside the middle of its opening may lie, m: frames stand proud. */
const NEAR = 0.03;
/** What is left between a hole and the edge of the board inside, m. */
const MARGIN = 4e-4;

const inside = (point: Vector2, outline: readonly Vector2[]): boolean => {
  let within = false;
  outline.forEach((a, at) => {
    const b = outline[(at + 1) % outline.length] ?? a;
    if (a.y > point.y !== b.y > point.y && point.x < ((b.x - a.x) * (point.y - a.y)) / (b.y - a.y) + a.x)
      within = !within;
  });
  return within;
};

/** The hole of a part in a board, in the directions of the board, counter-clockwise; null where it is in another or has none. */
function holeIn(part: Part, outer: readonly Vector3[], inner: readonly Vector3[]): Vector2[] | null {
  if (!part.mouth || part.corner) return null;
  const normal = normalOf(outer);
  const [u, v] = axesOf(outer);
  const [origin = new Vector3()] = outer;
  const mouth = vector(part.mouth);
  if (Math.abs(vector(part.normal).dot(normal)) < 0.999) return null;
  if (Math.abs(mouth.clone().sub(origin).dot(normal)) > NEAR) return null;
  const flat = (point: Vector3) => new Vector2(point.dot(u), point.dot(v));
  const middle = flat(mouth);
  const outline = inner.map(flat);
  if (!inside(middle, outline)) return null;
  const [width = 0, height = 0] = part.size;
  if (part.round) {
    const ring = Array.from({ length: ROUND }, (_, k) => {
      const angle = (2 * Math.PI * k) / ROUND;
      return new Vector2(middle.x + (width / 2) * Math.cos(angle), middle.y + (width / 2) * Math.sin(angle));
    });
    return ring.every((point) => inside(point, outline)) ? ring : null;
  }
  // A slot's width lies across; in a side from front to back.
  const across = Math.abs(normal.x) > 0.7 ? new Vector3(0, 0, 1) : new Vector3(1, 0, 0);
  const [w, h] = Math.abs(u.dot(across)) > 0.7 ? [width, height] : [height, width];
  const bounds = { x: outline.map(({ x }) => x), y: outline.map(({ y }) => y) };
  const clamp = (value: number, all: number[]) =>
    Math.min(Math.max(...all) - MARGIN, Math.max(Math.min(...all) + MARGIN, value));
  const [left, right] = [middle.x - w / 2, middle.x + w / 2].map((x) => clamp(x, bounds.x)) as [
    number,
    number,
  ];
  const [low, high] = [middle.y - h / 2, middle.y + h / 2].map((y) => clamp(y, bounds.y)) as [number, number];
  const corners = [
    new Vector2(left, low),
    new Vector2(right, low),
    new Vector2(right, high),
    new Vector2(left, high),
  ];
  return corners.every((point) => inside(point, outline)) ? corners : null;
}

/** Where boards and parts go when the box is drawn apart: so far (m) along their own direction. */
export interface Apart {
  boards: number;
  parts: number;
}

/** A board between its two outlines, with a hole for each opening in it; which of the parts have one. */
export function board(surface: Surface, panel: Panel, parts: readonly Part[], apart: number): string[] {
  const normal = normalOf(panel.outer.map(vector));
  const moved = (point: Point) => vector(point).addScaledVector(normal, apart);
  const [outer, inner] = [panel.outer.map(moved), panel.inner.map(moved)];
  const [u, v] = axesOf(outer);
  const [origin = new Vector3()] = outer;
  const back = inner[0]?.clone().sub(origin).dot(normal) ?? 0;
  const opened: string[] = [];
  const holes: [Vector3[], Vector3[]][] = [];
  for (const part of parts) {
    const shifted = part.mouth
      ? { ...part, mouth: vector(part.mouth).addScaledVector(normal, apart).toArray() }
      : part;
    const hole = holeIn(shifted, outer, inner);
    if (!hole) continue;
    const level = origin.dot(normal);
    const at = (depth: number) =>
      hole.map(({ x, y }) =>
        new Vector3()
          .addScaledVector(u, x)
          .addScaledVector(v, y)
          .addScaledVector(normal, level + depth),
      );
    holes.push([at(0), at(back)]);
    opened.push(part.name);
  }
  // Grain runs along the longer side.
  const span = (axis: Vector3) => {
    const all = outer.map((corner) => corner.dot(axis));
    return Math.max(...all) - Math.min(...all);
  };
  const axes: [Vector3, Vector3] = span(u) >= span(v) ? [u, v] : [v, u];
  surface.polygon(
    outer,
    holes.map(([near]) => near),
    axes,
  );
  surface.polygon(
    [...inner].reverse(),
    holes.map(([, far]) => far),
    axes,
  );
  walls(surface, outer, inner, axes);
  for (const [near, far] of holes) walls(surface, [...near].reverse(), [...far].reverse(), axes);
  return opened;
}

/** The sides between an outline and another of as many corners, seen from outside. */
function walls(
  surface: Surface,
  near: readonly Vector3[],
  far: readonly Vector3[],
  axes?: [Vector3, Vector3],
): void {
  near.forEach((corner, at) => {
    const next = (at + 1) % near.length;
    const [b, c, d] = [far[at], far[next], near[next]];
    if (b && c && d) surface.quad(corner, b, c, d, axes);
  });
}

/** A body between two outlines of as many corners. */
export function between(surface: Surface, near: readonly Vector3[], far: readonly Vector3[]): void {
  const axes = axesOf(near);
  surface.polygon(near, [], axes);
  surface.polygon([...far].reverse(), [], axes);
  walls(surface, near, far, axes);
}

/** A piece of wood; its outlines may go round either way. */
export function piece(surface: Surface, shape: Piece, shift: Vector3): void {
  const moved = (point: Point) => vector(point).add(shift);
  if (shape.shape === 'rod') {
    const [a = 0, b = 0] = shape.radii;
    tube(surface, [moved(shape.from), moved(shape.to)], [a, b], [0, 0]);
    return;
  }
  if (shape.shape === 'block') {
    const [low, high] = [moved(shape.low), moved(shape.high)];
    const corners = (x: number) => [
      new Vector3(x, low.y, low.z),
      new Vector3(x, high.y, low.z),
      new Vector3(x, high.y, high.z),
      new Vector3(x, low.y, high.z),
    ];
    between(surface, corners(high.x), corners(low.x));
    return;
  }
  const [near, far] = [shape.near.map(moved), shape.far.map(moved)];
  const [a = new Vector3(), b = new Vector3()] = [near[0], far[0]];
  const outward = normalOf(near).dot(b.clone().sub(a)) < 0;
  if (outward) between(surface, near, far);
  else between(surface, [...near].reverse(), [...far].reverse());
}

/** A tube between two places with outer and inner radii at either end; solid where the inner ones are nothing. */
export function tube(
  surface: Surface,
  [from, to]: [Vector3, Vector3],
  outer: [number, number],
  inner: [number, number],
): void {
  const way = to.clone().sub(from);
  if (way.length() < 1e-6) return;
  const axis = way.clone().normalize();
  const u = new Vector3(Math.abs(axis.x) < 0.8 ? 1 : 0, Math.abs(axis.x) < 0.8 ? 0 : 1, 0)
    .cross(axis)
    .normalize();
  const v = new Vector3().crossVectors(axis, u);
  const ring = (middle: Vector3, radius: number) =>
    Array.from({ length: ROUND }, (_, k) => {
      const angle = (2 * Math.PI * k) / ROUND;
      return middle
        .clone()
        .addScaledVector(u, radius * Math.cos(angle))
        .addScaledVector(v, radius * Math.sin(angle));
    });
  const [near, far] = [ring(from, outer[0]), ring(to, outer[1])];
  walls(surface, [...near].reverse(), [...far].reverse());
  if (inner[0] > 0 && inner[1] > 0) {
    const [bore, end] = [ring(from, inner[0]), ring(to, inner[1])];
    walls(surface, bore, end);
    walls(surface, near, bore);
    walls(surface, [...far].reverse(), [...end].reverse());
    return;
  }
  surface.polygon([...near].reverse(), []);
  surface.polygon(far, []);
}
