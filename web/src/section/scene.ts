// The cabinet as drawn, part by part. Lengths in m, x to the right, y up.

import type { BodyReport, RawDesign, Report } from '../schema/types';

export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Which values a part leads to. */
export interface Target {
  /** Beginning of the place in the design; `driver` chooses another. */
  path: string;
  label: string;
}

export type Facing = 'right' | 'left' | 'up' | 'down';

export type Polygon = [number, number][];

export interface Outlines {
  outer: Polygon;
  inner: Polygon[];
}

export type Part = { target?: Target } /** Slanting walls have outlines besides. */ & (
  | { kind: 'walls'; outer: Rect; inner: Rect[]; outlines?: Outlines }
  | { kind: 'board'; at: Rect }
  | { kind: 'air'; at: Rect }
  /** A board that slants. */
  | { kind: 'slab'; points: Polygon; panel: number | null }
  /** Where a way opens. */
  | { kind: 'mouth'; at: Rect; facing: Facing }
  | { kind: 'vent'; at: Rect }
  /** Something that looks at or away from the reader. */
  | { kind: 'disc'; x: number; y: number; diameter: number; frame: number }
  | { kind: 'driver'; x: number; y: number; facing: Facing; diameter: number; frame: number; depth: number }
  | { kind: 'radiator'; x: number; y: number; facing: Facing; diameter: number }
  | { kind: 'port'; at: Rect; open: 'right' | 'left' | 'both'; text: string }
  | { kind: 'way'; edge: [number, number][]; fill: boolean }
  | { kind: 'flow'; points: [number, number][] }
  | { kind: 'text'; x: number; y: number; text: string }
);

/** A dimension line below (`along`) or left (`up`) of the drawing. */
export interface Dimension {
  from: number;
  to: number;
  at: number;
  text: string;
  upright: boolean;
}

export interface Scene {
  extent: Rect;
  parts: Part[];
  dimensions: Dimension[];
  /** Said of the whole. */
  title: string;
}

export interface Subject {
  design: RawDesign;
  report: Report;
  /** The box as it is built; while it is not known, one of usual proportions is drawn. */
  body?: BodyReport | null | undefined;
}

/** Thickness of walls, m. */
export const WALL = 0.018;

export const DRIVER: Target = { path: 'driver', label: 'Driver: choose another' };

export interface DriverSize {
  diameter: number;
  frame: number;
  depth: number;
}
