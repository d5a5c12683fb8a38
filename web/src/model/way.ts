// The way of a line or horn as area along its length: its points, and what moving them does to the design.

import type { RawDesign, RawSegment } from '../schema/types';
import { siAt, valueAt, withValue } from './design';
import { unitOf } from './preferences';
import { type Field, fieldAt, writeTyped } from './units';

export type Flare = NonNullable<RawSegment['flare']>;

/** A segment of the way, m and m². */
export interface Stretch {
  from: number;
  to: number;
  start: number;
  end: number;
  flare: Flare;
  filled: boolean;
}

const placeOf = (at: number, name: 'length' | 'start' | 'end') => `enclosure.passage.segments[${at}].${name}`;

/** The segments of a design, one after the other; each begins with the area that the one before ends with, unless it says another. */
export function stretchesOf(design: RawDesign): Stretch[] {
  let at = 0;
  let area = 0;
  return (design.enclosure.passage?.segments ?? []).map((segment, index) => {
    const length = siAt(design, placeOf(index, 'length')) ?? 0;
    const start = siAt(design, placeOf(index, 'start')) ?? area;
    const end = siAt(design, placeOf(index, 'end')) ?? start;
    const stretch: Stretch = {
      from: at,
      to: at + length,
      start,
      end,
      flare: segment.flare ?? 'conical',
      filled: Boolean(segment.fill_density),
    };
    at += length;
    area = end;
    return stretch;
  });
}

/** Area at a part of a segment, 0 to 1: a drawing, near enough to the flare's own law. */
export function areaAt(
  { start, end, flare }: Pick<Stretch, 'start' | 'end' | 'flare'>,
  part: number,
): number {
  const [a, b] = [Math.sqrt(start), Math.sqrt(end)];
  if (flare === 'conical') return (a + (b - a) * part) ** 2;
  if (flare === 'parabolic') return start + (end - start) * part;
  if (flare === 'tractrix') return (a + (b - a) * (0.35 * part + 0.65 * part ** 2.2)) ** 2;
  if (flare === 'hyperbolic' && start > 0 && end > start) {
    // S = S0 cosh²(m x): T = 0, a catenoid.
    const bend = Math.acosh(Math.sqrt(end / start));
    return start * Math.cosh(bend * part) ** 2;
  }
  return start > 0 ? start * (end / start) ** part : end * part;
}

/** A point of the curve: where a segment begins or ends. */
export interface WayPoint {
  /** Which, from 0 at the beginning. */
  index: number;
  /** m. */
  at: number;
  /** m². */
  area: number;
}

export function pointsOf(design: RawDesign): WayPoint[] {
  const all = stretchesOf(design);
  const [first] = all;
  if (!first) return [];
  return [
    { index: 0, at: 0, area: first.start },
    ...all.map(({ to, end }, at) => ({ index: at + 1, at: to, area: end })),
  ];
}

/** A value as the file has it, in the unit it was typed in, within what is allowed. */
function written(design: RawDesign, path: string, si: number): RawDesign {
  const field: Field = fieldAt(path);
  const within = Math.min(field.max, Math.max(field.min, si));
  return withValue(design, path, writeTyped(within, unitOf(field, valueAt(design, path)), 4));
}

/** Least length of a segment when a point is moved between its neighbours, m. */
const LEAST = 0.01;

/** A point moved to a place (m) and an area (m²). Between two segments the others stay where they are; the last one makes the way longer. */
export function withPoint(design: RawDesign, index: number, at: number, area: number): RawDesign {
  const all = stretchesOf(design);
  const [before, after] = [all[index - 1], all[index]];
  let next = design;
  if (before) {
    const most = after ? after.to - LEAST : Number.POSITIVE_INFINITY;
    const place = Math.min(most, Math.max(before.from + LEAST, at));
    next = written(next, placeOf(index - 1, 'length'), place - before.from);
    if (after) next = written(next, placeOf(index, 'length'), after.to - place);
    next = written(next, placeOf(index - 1, 'end'), area);
  }
  // A segment with an area of its own to begin with keeps one.
  if (after && (index === 0 || valueAt(design, placeOf(index, 'start')) !== null)) {
    next = written(next, placeOf(index, 'start'), area);
  }
  return next;
}

const FITTED: readonly Flare[] = ['conical', 'parabolic', 'exponential', 'hyperbolic', 'tractrix'];

/** The flare of a segment that comes nearest to an area (m²) at its middle. */
export function withBend(design: RawDesign, segment: number, middle: number): RawDesign {
  const stretch = stretchesOf(design)[segment];
  const passage = design.enclosure.passage;
  if (!stretch || !passage) return design;
  const off = (flare: Flare) =>
    Math.abs(Math.log(areaAt({ ...stretch, flare }, 0.5) / Math.max(1e-9, middle)));
  const flare = FITTED.reduce((best, one) => (off(one) < off(best) ? one : best));
  const segments = (passage.segments ?? []).map((one, at) => (at === segment ? { ...one, flare } : one));
  return { ...design, enclosure: { ...design.enclosure, passage: { ...passage, segments } } };
}

/** One more point in the middle of the longest segment, on the curve as it is. */
export function withPointAdded(design: RawDesign): RawDesign {
  const all = stretchesOf(design);
  const { passage } = design.enclosure;
  const longest = all.reduce(
    (best, one, at) => (one.to - one.from > (all[best]?.to ?? 0) - (all[best]?.from ?? 0) ? at : best),
    0,
  );
  const stretch = all[longest];
  const segment = passage?.segments?.[longest];
  if (!stretch || !segment || !passage) return design;
  const half = (stretch.to - stretch.from) / 2;
  const { start: _, ...follower } = segment;
  const segments = [
    ...(passage.segments ?? []).slice(0, longest),
    segment,
    follower as RawSegment,
    ...(passage.segments ?? []).slice(longest + 1),
  ];
  let next: RawDesign = { ...design, enclosure: { ...design.enclosure, passage: { ...passage, segments } } };
  next = written(next, placeOf(longest, 'length'), half);
  next = written(next, placeOf(longest + 1, 'length'), half);
  return written(next, placeOf(longest, 'end'), areaAt(stretch, 0.5));
}

/** Height at both ends of each segment where it is built between sides so far apart (m): what a straight board does. */
export function inWood(
  stretches: readonly Stretch[],
  width: number,
): { length: number; heights: [number, number] }[] {
  return stretches.map(({ from, to, start, end }) => ({
    length: to - from,
    heights: [start / width, end / width],
  }));
}
