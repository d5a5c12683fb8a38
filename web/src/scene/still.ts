// A small picture of a box without a graphics card: the surfaces of the scene, seen from the same side and painted from back to front.

import { Color, Plane, Vector3 } from 'three';
import type { ModelReport } from '../schema/types';
import { assemble } from './assemble';
import { normalOf, type Surface, vector } from './surface';
import { LIT_FROM, SEEN_FROM, WOOD } from './view';

/** A flat piece of the picture: its corners in pixels, in the order of painting. */
export interface Patch {
  points: [number, number][];
  colour: string;
}

const FROM = new Vector3(...SEEN_FROM).normalize();
const RIGHT = new Vector3(0, 1, 0).cross(FROM).normalize();
const UP = FROM.clone().cross(RIGHT);
const LIGHT = new Vector3(...LIT_FROM).normalize();

const BOARD = new Color(WOOD);
/** What is seen through an opening. */
const DARK = '#2b2621';
const OPEN = new Color(DARK);

function shaded(colour: Color, normal: Vector3): string {
  const light = 0.55 + 0.5 * Math.max(0, normal.dot(LIGHT));
  return `#${colour.clone().multiplyScalar(light).getHexString()}`;
}

/** What of a box is seen from there, as large as a picture of so many pixels holds it. */
export function patches(model: ModelReport, width: number, height: number): Patch[] {
  const visible = model.panels.filter(({ outer }) => normalOf(outer.map(vector)).dot(FROM) > 0.01);
  const fronts = visible.map(({ outer }) => outer.map(vector));
  const planes = fronts.map((outer) =>
    new Plane().setFromNormalAndCoplanarPoint(normalOf(outer), outer[0] ?? new Vector3()),
  );
  // What is mounted inside, or in a board that looks away, is neither seen nor makes a hole that is.
  const facing = model.parts.filter(
    ({ mouth }) => mouth && planes.some((plane) => Math.abs(plane.distanceToPoint(vector(mouth))) < 2e-3),
  );
  const made = assemble({ ...model, panels: visible, parts: facing, fills: [] }, 0);
  const { low, high } = made;
  const corners = [low.x, high.x].flatMap((x) =>
    [low.y, high.y].flatMap((y) => [low.z, high.z].map((z) => new Vector3(x, y, z))),
  );
  const spans = [RIGHT, UP].map((axis) => corners.map((corner) => corner.dot(axis)));
  const [across, up] = spans.map((span) => [Math.min(...span), Math.max(...span)] as const);
  if (!across || !up) return [];
  const scale = Math.min((width - 2) / (across[1] - across[0]), (height - 2) / (up[1] - up[0]));
  const middle = [(across[0] + across[1]) / 2, (up[0] + up[1]) / 2] as const;
  const flat = (point: Vector3): [number, number] => [
    width / 2 + (point.dot(RIGHT) - middle[0]) * scale,
    height / 2 - (point.dot(UP) - middle[1]) * scale,
  ];
  const seen = (surface: Surface, colour: Color | null, kept: (corners: Vector3[]) => boolean) =>
    [...surface.triangles()]
      .filter(({ corners }) => kept(corners))
      .map(({ corners: [a, b, c], colour: own }) => {
        const normal = b.clone().sub(a).cross(c.clone().sub(a)).normalize();
        const depth = (a.dot(FROM) + b.dot(FROM) + c.dot(FROM)) / 3;
        return { points: [a, b, c], normal, depth, colour: colour ?? own };
      })
      .filter(({ normal }) => normal.dot(FROM) > 0)
      .sort((one, other) => one.depth - other.depth)
      .map(({ points, normal, colour: paint }) => ({
        points: points.map(flat),
        colour: shaded(paint, normal),
      }));
  const off = (from: number, to: number) => (points: Vector3[]) =>
    planes.some((plane) =>
      points.every((point) => plane.distanceToPoint(point) > from && plane.distanceToPoint(point) < to),
    );
  // The dark of the inside, the boards with their holes, and what sits in those.
  return [
    ...fronts.map((outer) => ({ points: outer.map(flat), colour: DARK })),
    ...seen(made.wood, BOARD, off(-1e-6, 1e-6)),
    ...seen(made.air, OPEN, off(1e-4, 4e-3)),
    ...seen(made.moving, null, () => true),
  ];
}

/** Paints the picture of a box; false where it cannot. */
export function paint(model: ModelReport, canvas: HTMLCanvasElement): boolean {
  const ctx = canvas.getContext('2d');
  if (!ctx) return false;
  ctx.clearRect(0, 0, canvas.width, canvas.height);
  ctx.lineJoin = 'round';
  for (const { points, colour } of patches(model, canvas.width, canvas.height)) {
    ctx.beginPath();
    for (const point of points) ctx.lineTo(...point);
    ctx.closePath();
    ctx.fillStyle = colour;
    ctx.strokeStyle = colour;
    ctx.fill();
    // Without a line of its own there are gaps between neighbours.
    ctx.lineWidth = 0.7;
    ctx.stroke();
  }
  return true;
}
