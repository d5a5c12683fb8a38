// Something of a known size beside the box: a hand, a record, or a person.

import { Vector3 } from 'three';
import { between } from './boards';
import type { Surface } from './surface';

export interface ScaleFigure {
  kind: keyof typeof OUTLINES;
  name: string;
  /** m. */
  height: number;
  width: number;
}

/** Outlines from 0 to 1 upward and around 0 across, over the height. */
const HAND: [number, number][] = [
  [-0.17, 0],
  [0.17, 0],
  [0.2, 0.24],
  [0.36, 0.42],
  [0.45, 0.52],
  [0.4, 0.58],
  [0.22, 0.48],
  [0.22, 0.55],
  [0.225, 0.86],
  [0.16, 0.88],
  [0.12, 0.6],
  [0.1, 0.6],
  [0.09, 0.97],
  [0.02, 1],
  [-0.01, 0.6],
  [-0.03, 0.6],
  [-0.06, 0.95],
  [-0.13, 0.95],
  [-0.12, 0.58],
  [-0.14, 0.58],
  [-0.2, 0.82],
  [-0.27, 0.8],
  [-0.24, 0.5],
  [-0.22, 0.25],
];
const PERSON: [number, number][] = [
  [-0.11, 0],
  [-0.02, 0],
  [-0.01, 0.46],
  [0.01, 0.46],
  [0.02, 0],
  [0.11, 0],
  [0.1, 0.5],
  [0.11, 0.62],
  [0.14, 0.46],
  [0.18, 0.47],
  [0.15, 0.79],
  [0.12, 0.82],
  [0.03, 0.84],
  [0.03, 0.865],
  [0.055, 0.9],
  [0.055, 0.96],
  [0.03, 0.995],
  [-0.03, 0.995],
  [-0.055, 0.96],
  [-0.055, 0.9],
  [-0.03, 0.865],
  [-0.03, 0.84],
  [-0.12, 0.82],
  [-0.15, 0.79],
  [-0.18, 0.47],
  [-0.14, 0.46],
  [-0.11, 0.62],
  [-0.1, 0.5],
];

/** Outlines over the height; a record is round. */
const OUTLINES = { person: PERSON, hand: HAND, record: null };

/** What stands beside a box of that height (m). */
export function scaleFigureFor(height: number): ScaleFigure {
  if (height > 0.95) return { kind: 'person', name: 'a person, 1.75 m', height: 1.75, width: 0.63 };
  if (height > 0.34) return { kind: 'record', name: 'a 12-inch record', height: 0.301, width: 0.301 };
  return { kind: 'hand', name: 'a hand, 19 cm', height: 0.19, width: 0.17 };
}

/** Stands it with its foot at a place. */
export function stand(surface: Surface, figure: ScaleFigure, foot: Vector3): void {
  const outline = OUTLINES[figure.kind];
  const piece = (corners: [number, number][], z: number) => {
    const at = (off: number) =>
      corners.map(
        ([x, y]) => new Vector3(foot.x + x * figure.height, foot.y + y * figure.height, foot.z + off),
      );
    between(surface, at(z), at(-z));
  };
  if (outline) {
    surface.paint('#b9ad95');
    piece(outline, 0.003);
    return;
  }
  // The vinyl, two bands of its grooves, and the label.
  for (const [radius, colour] of RECORD) {
    surface.paint(colour);
    piece(disc(radius), 0.003 + 0.001 * (0.5 - radius));
  }
}

/** Radius of each part of a record over its diameter, and its colour. */
const RECORD = [
  [0.5, '#2b2824'],
  [0.44, '#3a3630'],
  [0.31, '#2b2824'],
  [0.17, '#a8571b'],
  [0.012, '#fbf8f1'],
] as const;

function disc(radius: number): [number, number][] {
  return Array.from({ length: 48 }, (_, k) => {
    const angle = (2 * Math.PI * k) / 48;
    return [radius * Math.cos(angle), 0.5 + radius * Math.sin(angle)];
  });
}
