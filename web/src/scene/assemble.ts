// The model of the core as a few surfaces.

import { Vector3 } from 'three';
import type { ModelReport } from '../schema/types';
import { board, piece, tube } from './boards';
import { diaphragm } from './driver_shape';
import { type ScaleFigure, scaleFigureFor, stand } from './scale_figure';
import { Surface, vector } from './surface';

/** Everything there is to draw of a box, by what it is made of. */
export interface Assembly {
  /** Boards, braces, fold boards, pipes' walls: closed, so that a cut through them has a face. */
  wood: Surface;
  /** Tubes of ports. */
  tubes: Surface;
  /** Drivers and radiators. */
  moving: Surface;
  /** Air in slots, and openings that no board has a hole for. */
  air: Surface;
  /** Fill. */
  fill: Surface;
  figure: Surface;
  scale: ScaleFigure;
  low: Vector3;
  high: Vector3;
}

const isWood = (name: string) =>
  /^(brace|partition|fold board|closing board|end board|strip|corner)/.test(name);
const isMoving = (name: string) => /^(driver|radiator)/.test(name);

/** How far boards and parts move apart at most, as a share of the box's size. */
const APART = 0.45;

/** The surfaces of a box, drawn apart by a share from 0 to 1. */
export function assemble(model: ModelReport, exploded: number): Assembly {
  const [low = new Vector3(), high = new Vector3()] = model.bounds.map(vector);
  const size = high.clone().sub(low).length();
  const apart = exploded * APART * size;
  const made: Assembly = {
    wood: new Surface(),
    tubes: new Surface(),
    moving: new Surface(),
    air: new Surface(),
    fill: new Surface(),
    figure: new Surface(),
    scale: scaleFigureFor(high.y - low.y),
    low,
    high,
  };
  const opened = new Set<string>();
  for (const panel of model.panels) {
    for (const name of board(made.wood, panel, model.parts, apart)) opened.add(name);
    made.wood.close(`board ${panel.face}`);
  }
  for (const part of model.parts) {
    const normal = part.mouth ? vector(part.normal).normalize() : new Vector3();
    if (isMoving(part.name)) {
      // It comes out before its board does.
      diaphragm(made.moving, part, part.name.startsWith('radiator'), 1.9 * apart);
      made.moving.close(part.name);
    } else if (isWood(part.name)) {
      for (const shape of part.pieces) piece(made.wood, shape, new Vector3());
      made.wood.close(part.name);
    } else if (part.round && part.mouth) {
      const shift = normal.clone().multiplyScalar(1.4 * apart);
      pipe(made.tubes, part, shift);
      made.tubes.close(part.name);
    } else {
      const shift = normal.clone().multiplyScalar(apart);
      for (const shape of part.pieces) piece(made.air, shape, shift);
      if (part.mouth && !opened.has(part.name)) patch(made.air, part, shift);
      made.air.close(part.name);
    }
  }
  for (const faces of model.fills) {
    for (const face of faces) made.fill.polygon(face.map(vector), []);
  }
  if (model.fills.length) made.fill.close('fill');
  // Level with the front, where the box does not hide it.
  const beside = new Vector3(high.x + 0.62 * made.scale.width + 0.06 * size, low.y, high.z);
  stand(made.figure, made.scale, beside);
  made.figure.close(made.scale.name);
  return made;
}

/** A port's tube with its bore; its ends widen as its pieces do. */
function pipe(surface: Surface, part: ModelReport['parts'][number], shift: Vector3): void {
  const bore = (part.size[0] ?? 0) / 2;
  for (const shape of part.pieces) {
    if (shape.shape !== 'rod') {
      piece(surface, shape, shift);
      continue;
    }
    const outer = shape.radii.map((radius) => radius) as [number, number];
    // The opening is the bore's unless it is flared; a wall is never nothing.
    const inner = outer.map((radius) =>
      Math.min(radius * 0.94, Math.max(radius - 0.006, Math.min(bore, radius * 0.94))),
    ) as [number, number];
    tube(surface, [vector(shape.from).add(shift), vector(shape.to).add(shift)], outer, inner);
  }
}

/** An opening without a hole of its own: a plate just before its board. */
function patch(surface: Surface, part: ModelReport['parts'][number], shift: Vector3): void {
  const normal = vector(part.normal).normalize();
  const middle = vector(part.mouth ?? []).add(shift);
  const across = Math.abs(normal.x) > 0.7 ? new Vector3(0, 0, 1) : new Vector3(1, 0, 0);
  const up = new Vector3().crossVectors(normal, across).normalize();
  const [width = 0, height = 0] = part.size;
  const at = (u: number, v: number) =>
    middle
      .clone()
      .addScaledVector(across, (u * width) / 2)
      .addScaledVector(up, (v * height) / 2)
      .addScaledVector(normal, 0.002);
  const corners = [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)];
  surface.polygon(corners, []);
}
