// How a place lies on the sheet, and what stands in it.

import { type Axes, type Item, metres, sizeOf, whereIs } from '../../model/places';
import { readTyped } from '../../model/units';
import type { PlaceReport, RawListeningPlace } from '../../schema/types';
import type { Size } from '../../ui/size';

/** A cabinet or a seat, as it is drawn. */
export interface Drawn {
  which: Item;
  at: number;
  name: string;
  /** Middle of the underside of a cabinet; the ears of a seat, m. */
  place: [number, number, number];
  /** Of a cabinet: its outline on the plan over its middle, m; the two corners of its front last. */
  outline: [number, number][];
  height: number;
  /** Which way its front faces, rad. */
  turned: number;
  inverted: boolean;
}

export interface Frame {
  low: [number, number];
  high: [number, number];
  /** Where the first cabinet stands, m. */
  middle: [number, number];
  /** px of a metre. */
  scale: number;
  x: (metres: number) => number;
  y: (metres: number) => number;
  /** Metres of a point of the sheet. */
  at: (x: number, y: number) => [number, number];
  metres: typeof metres;
}

/** Where a cabinet whose box is not known yet reaches to, m. */
const UNKNOWN = 0.2;
const UNKNOWN_HEIGHT = 0.4;
/** Ears where nothing is said, m. */
const EARS = 1.2;

/** What is put into a place; outlines are those of the report, moved to where things are now. */
export function itemsOf(place: RawListeningPlace, report: PlaceReport | undefined): Drawn[] {
  const cabinets = (place.cabinets ?? []).map((stand, at): Drawn => {
    const [across, along, up] = whereIs(stand);
    const told = report?.cabinets[at];
    const outline = told?.outline.length
      ? told.outline.map(([x = 0, y = 0]): [number, number] => [x - (told.at[0] ?? 0), y - (told.at[1] ?? 0)])
      : ([
          [-UNKNOWN, -UNKNOWN],
          [UNKNOWN, -UNKNOWN],
          [UNKNOWN, UNKNOWN],
          [-UNKNOWN, UNKNOWN],
        ] as [number, number][]);
    return {
      which: 'cabinets',
      at,
      name: `Cabinet ${at + 1}`,
      place: [across, along, up ?? 0],
      outline,
      height: told?.height ?? UNKNOWN_HEIGHT,
      turned: readTyped(stand.turned, 'angle')?.si ?? 0,
      inverted: stand.inverted ?? false,
    };
  });
  const seats = (place.seats ?? []).map((seat, at): Drawn => {
    const [across, along, up] = whereIs(seat);
    return {
      which: 'seats',
      at,
      name: seat.name || `Seat ${at + 1}`,
      place: [across, along, up ?? EARS],
      outline: [],
      height: 0,
      turned: 0,
      inverted: false,
    };
  });
  return [...cabinets, ...seats];
}

/** How far a cabinet reaches from its middle along the axes of a view, m. */
export function reachOf({ outline, height }: Drawn, axes: Axes): [number, number] {
  const along = (axis: number) =>
    axis === 2 ? height : Math.max(0, ...outline.map((corner) => Math.abs(corner[axis] ?? 0)));
  return [along(axes[0]), along(axes[1])];
}

/** Around the drawing for its rules, px: left, right, above, below. */
const MARGIN = [30, 22, 10, 26] as const;
/** Around what stands in the open, m. */
const AROUND = 2;

/** The frame of a view; null before there is room for it. */
export function frameOf(
  place: RawListeningPlace,
  items: readonly Drawn[],
  axes: Axes,
  size: Size,
): Frame | null {
  const [width, height] = [size.width - MARGIN[0] - MARGIN[1], size.height - MARGIN[2] - MARGIN[3]];
  if (width < 40 || height < 40) return null;
  const inside = sizeOf(place);
  const spread = (axis: 0 | 1, of: (...values: number[]) => number, way: number) =>
    of(...items.map((item) => item.place[axes[axis]]), 0) + way * AROUND;
  const low: [number, number] = inside ? [0, 0] : [spread(0, Math.min, -1), spread(1, Math.min, -1)];
  const high: [number, number] = inside
    ? [inside[axes[0]], inside[axes[1]]]
    : [spread(0, Math.max, 1), spread(1, Math.max, 1)];
  const scale = Math.min(width / (high[0] - low[0]), height / (high[1] - low[1]));
  if (!inside) {
    // What is left of the sheet shows more of the field.
    const more = [width / scale - (high[0] - low[0]), height / scale - (high[1] - low[1])];
    for (const axis of [0, 1] as const) {
      low[axis] -= (more[axis] ?? 0) / 2;
      high[axis] += (more[axis] ?? 0) / 2;
    }
  }
  const left = MARGIN[0] + (width - (high[0] - low[0]) * scale) / 2;
  const bottom = MARGIN[2] + height - (height - (high[1] - low[1]) * scale) / 2;
  const first = items[0]?.place ?? [0, 0, 0];
  return {
    low,
    high,
    middle: [first[axes[0]], first[axes[1]]],
    scale,
    x: (metres) => left + (metres - low[0]) * scale,
    y: (metres) => bottom - (metres - low[1]) * scale,
    at: (x, y) => [low[0] + (x - left) / scale, low[1] + (bottom - y) / scale],
    metres,
  };
}
