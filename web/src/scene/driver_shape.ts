// What a driver or radiator looks like, turned round its axis from the sizes that the model has.

import { Vector3 } from 'three';
import type { ModelReport } from '../schema/types';
import { type Surface, vector } from './surface';

type Part = ModelReport['parts'][number];

/** A profile: distances from the axis and along it, outward positive, m. */
type Profile = readonly (readonly [number, number])[];

const ROUND = 48;
const METAL = '#4a4c4e';
const STEEL = '#2e3032';
const RUBBER = '#232524';
const PAPER = '#3b3a36';
const CAP = '#55534d';

/** Turns a profile round an axis, smooth where it does not bend sharply. */
function lathe(surface: Surface, middle: Vector3, axis: Vector3, profile: Profile): void {
  const u = new Vector3(Math.abs(axis.x) < 0.8 ? 1 : 0, Math.abs(axis.x) < 0.8 ? 0 : 1, 0)
    .cross(axis)
    .normalize();
  const v = new Vector3().crossVectors(axis, u);
  const out = Array.from({ length: ROUND + 1 }, (_, k) => {
    const angle = (2 * Math.PI * k) / ROUND;
    return new Vector3().addScaledVector(u, Math.cos(angle)).addScaledVector(v, Math.sin(angle));
  });
  for (let at = 0; at + 1 < profile.length; at += 1) {
    const [[r0, z0], [r1, z1]] = [profile[at] ?? [0, 0], profile[at + 1] ?? [0, 0]];
    // Square to the profile, to the left of its way.
    const length = Math.hypot(r1 - r0, z1 - z0) || 1;
    const [across, along] = [(z1 - z0) / length, -(r1 - r0) / length];
    for (let k = 0; k < ROUND; k += 1) {
      const [a, b] = [out[k], out[k + 1]] as [Vector3, Vector3];
      const place = (ray: Vector3, r: number, z: number) =>
        middle.clone().addScaledVector(ray, r).addScaledVector(axis, z);
      const normal = (ray: Vector3) =>
        new Vector3().addScaledVector(ray, across).addScaledVector(axis, along);
      const corners = [place(a, r0, z0), place(b, r0, z0), place(b, r1, z1), place(a, r1, z1)] as const;
      const normals = [normal(a), normal(b), normal(b), normal(a)] as const;
      surface.triangle([corners[0], corners[1], corners[2]], [normals[0], normals[1], normals[2]]);
      surface.triangle([corners[0], corners[2], corners[3]], [normals[0], normals[2], normals[3]]);
    }
  }
}

interface Sizes {
  /** Radius of frame and magnet, how far the frame stands proud, and how deep all of it is, m. */
  frame: number;
  magnet: number;
  magnetHeight: number;
  proud: number;
  depth: number;
}

/** The sizes of a driver, from the rods that the core counts it as. */
function sizesOf(part: Part, mouth: Vector3, normal: Vector3): Sizes {
  const along = (point: readonly number[]) => vector(point).sub(mouth).dot(normal);
  const rods = part.pieces.flatMap((piece) => (piece.shape === 'rod' ? [piece] : []));
  const ends = rods.flatMap(({ from, to, radii }) => [
    { z: along(from), r: radii[0] ?? 0 },
    { z: along(to), r: radii[1] ?? 0 },
  ]);
  const opening = (part.size[0] ?? 0.2) / 2;
  const frame = Math.max(opening, ...ends.map(({ r }) => r));
  const depth = Math.max(0.02, ...ends.map(({ z }) => -z));
  const last = ends.filter(({ z }) => -z > 0.97 * depth).map(({ r }) => r);
  const magnet = last.length ? Math.max(...last) : 0.45 * frame;
  const begins = rods
    .filter(({ from, to }) => Math.max(-along(from), -along(to)) > 0.97 * depth)
    .map(({ from, to }) => Math.min(-along(from), -along(to)));
  return {
    frame,
    magnet,
    magnetHeight: Math.min(0.5 * depth, depth - Math.min(depth * 0.65, ...begins)),
    proud: Math.max(0.004, ...ends.map(({ z }) => z)),
    depth,
  };
}

/** Half a wave of rubber between two radii. */
function roll(inner: number, outer: number, z: number, height: number): Profile {
  return Array.from({ length: 9 }, (_, k) => {
    const angle = (Math.PI * k) / 8;
    const r = (inner + outer) / 2 - ((outer - inner) / 2) * Math.cos(angle);
    return [r, z + height * Math.sin(angle)] as const;
  }).reverse();
}

/** A driver, or a radiator without basket and magnet, moved out of its board by so much (m). */
export function diaphragm(surface: Surface, part: Part, passive: boolean, apart: number): void {
  if (!part.mouth) return;
  const normal = vector(part.normal).normalize();
  const mouth = vector(part.mouth);
  const { frame: f, magnet, magnetHeight, proud, depth } = sizesOf(part, mouth, normal);
  const middle = mouth.addScaledVector(normal, apart);
  const turn = (colour: string, profile: Profile) => {
    surface.paint(colour);
    lathe(surface, middle, normal, profile);
  };
  const [rim, edge] = [0.9 * f, 0.77 * f];
  turn(METAL, [
    [f, -0.002],
    [f, proud],
    [rim, proud],
    [rim, proud - 0.004],
  ]);
  turn(RUBBER, roll(edge, rim, proud - 0.003, 0.05 * f));
  if (passive) {
    turn(PAPER, [
      [edge, proud - 0.003],
      [0.2 * f, proud - 0.05 * f],
    ]);
    turn(CAP, [
      [0.2 * f, proud - 0.05 * f],
      [0.2 * f, proud - 0.02 * f],
      [0, proud - 0.02 * f],
    ]);
    turn(STEEL, [
      [0, -0.12 * f],
      [0.2 * f, -0.12 * f],
      [rim, -0.002],
      [f, -0.002],
    ]);
    return;
  }
  const sunk = Math.min(0.34 * f, 0.55 * (depth - magnetHeight));
  const throat = 0.3 * f;
  turn(PAPER, [
    [edge, proud - 0.003],
    [0.6 * f, proud - 0.45 * sunk],
    [throat, proud - sunk],
  ]);
  const cap = Array.from({ length: 7 }, (_, k) => {
    const angle = (Math.PI / 2) * (k / 6);
    return [throat * Math.cos(angle), proud - sunk + 0.42 * throat * Math.sin(angle)] as const;
  });
  turn(CAP, cap);
  const waist = -(depth - magnetHeight);
  turn(METAL, [
    [0.75 * magnet, waist],
    [0.8 * magnet, 0.8 * waist],
    [0.93 * f, -0.15 * (depth - magnetHeight)],
    [0.95 * f, -0.002],
    [f, -0.002],
  ]);
  turn(STEEL, [
    [0, -depth],
    [0.97 * magnet, -depth],
    [magnet, -depth + 0.003],
    [magnet, waist],
    [0.7 * magnet, waist],
  ]);
}
