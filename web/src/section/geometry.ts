// The cabinet as drawn: a side section of a box of usual proportions with the right net volume. Lengths in
// m, the origin inside at the lower back; x grows towards the front.

import type { RawDesign, Report } from '../api/types';
import { siAt } from '../model/design';

export interface Box {
  depth: number;
  height: number;
  width: number;
  wall: number;
}

export interface PortDrawing {
  /** Height of the passage in this section. */
  height: number;
  /** Height of its middle above the floor. */
  middle: number;
  length: number;
  /** How much of the length lies beyond a fold because the box is not deep enough. */
  folded: number;
}

export interface Drawing {
  box: Box;
  driver: { diameter: number; frame: number; depth: number; middle: number };
  port: PortDrawing | null;
}

/** Height, width and depth of a box that looks usual, common practice. */
const PROPORTIONS = { height: 1.26, width: 1, depth: 0.79 };
const WALL = 0.018;

function boxFor(volume: number, frame: number): Box {
  const unit = Math.cbrt(volume / (PROPORTIONS.height * PROPORTIONS.width * PROPORTIONS.depth));
  // The front must at least hold the driver.
  const width = Math.max(unit * PROPORTIONS.width, frame * 1.08);
  const height = Math.max(unit * PROPORTIONS.height, frame * 1.12);
  return { width, height, depth: volume / (width * height), wall: WALL };
}

/** Lays out a design; null where there is no volume to draw. */
export function layOut(design: RawDesign, report: Report): Drawing | null {
  const volume = siAt(design, 'enclosure.volume');
  if (volume === null) return null;
  const diameter = Math.sqrt((4 * report.driver.sd) / Math.PI);
  const frame = Math.max(siAt(design, 'driver.size') ?? 0, diameter * 1.16);
  const port = design.enclosure.family === 'ported' ? design.enclosure.ports?.[0] : undefined;
  const figures = report.figures.ports[0];
  const height = port && figures ? passage(design, figures.area) : 0;
  const box = boxFor(volume, frame);
  const driver = { diameter, frame, depth: frame * 0.42, middle: box.height / 2 };
  if (!port || !figures) return { box, driver, port: null };
  const middle = port.shape === 'slot' ? height / 2 : Math.max(height / 2 + 0.02, height * 0.9);
  const lifted = Math.min(box.height - frame * 0.53, middle + height / 2 + 0.015 + frame / 2);
  const room = Math.max(0, box.depth - height);
  return {
    box,
    driver: { ...driver, middle: Math.max(driver.middle, lifted) },
    port: {
      height,
      middle,
      length: figures.length,
      folded: Math.max(0, figures.length - room - WALL),
    },
  };
}

function passage(design: RawDesign, area: number): number {
  const slot = design.enclosure.ports?.[0]?.shape === 'slot';
  return (slot ? siAt(design, 'enclosure.ports[0].height') : null) ?? Math.sqrt((4 * area) / Math.PI);
}
