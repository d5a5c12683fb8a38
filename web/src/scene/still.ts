// A small picture of a box without a graphics card: the surfaces of the scene, seen from the same side and painted from back to front.

import { Color, Vector3 } from 'three';
import type { ModelReport } from '../api/types';
import { assemble } from './assemble';
import type { Surface } from './surface';

/** A flat piece of the picture: its corners in pixels, in the order of painting. */
export interface Patch {
  points: [number, number][];
  colour: string;
}

/** From where the box is seen: the left, in front and above. */
const FROM = new Vector3(-0.62, 0.42, 0.85).normalize();
const RIGHT = new Vector3(0, 1, 0).cross(FROM).normalize();
const UP = FROM.clone().cross(RIGHT);
const LIGHT = new Vector3(-2.5, 4, 3).normalize();

/** Colours of what has none of its own. */
const WOOD = new Color('#d8b483');
const TUBE = new Color('#3c4146');
const OPEN = new Color('#2b2621');

function shaded(colour: Color, normal: Vector3): string {
  const light = 0.55 + 0.5 * Math.max(0, normal.dot(LIGHT));
  return `#${colour.clone().multiplyScalar(light).getHexString()}`;
}

/** What of a box is seen from there, as large as a picture of so many pixels holds it. */
export function patches(model: ModelReport, width: number, height: number): Patch[] {
  const made = assemble(model, 0);
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
  const seen = (surface: Surface, colour: Color | null) =>
    [...surface.triangles()]
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
  // What sits in a board lies before it, so each kind is sorted by itself.
  return [
    ...seen(made.wood, WOOD),
    ...seen(made.tubes, TUBE),
    ...seen(made.air, OPEN),
    ...seen(made.moving, null),
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
