// Where a build is listened to: its documents, and changes to one, each returning a new one.

import type { RawListeningPlace, RawSeat, RawStand, Typed } from '../schema/types';
import { readTyped } from './units';
import type { Bench, Kept, Workbench } from './workbench';

export interface KeptPlace {
  id: string;
  place: RawListeningPlace;
}

const asPlace = ({ id, content }: Kept): KeptPlace => ({ id, place: content as RawListeningPlace });

/** The places of a build that are not archived. */
export function placesOn({ kept }: Pick<Bench, 'kept'>): KeptPlace[] {
  return kept.filter(({ kind, archived }) => kind === 'place' && !archived).map(asPlace);
}

/** Those that are archived. */
export function archivedPlaces({ kept }: Pick<Bench, 'kept'>): KeptPlace[] {
  return kept.filter(({ kind, archived }) => kind === 'place' && archived).map(asPlace);
}

/** Makes or changes a place, or brings one back, and listens there. */
export function keepPlace(workbench: Workbench, { id, place }: KeptPlace, label: string): void {
  workbench.keep({ kind: 'place', id, content: place, archived: false }, label);
  workbench.listen({ place: id });
}

export function archivePlace(workbench: Workbench, { id, place }: KeptPlace): void {
  workbench.keep({ kind: 'place', id, content: place, archived: true }, 'archive');
}

/** A length as a place has it, m. */
export const metres = (typed: Typed | null | undefined): number | null =>
  readTyped(typed, 'length')?.si ?? null;

/** A length as it is written, to the centimetre. */
export const inMetres = (length: number): string => `${Number(length.toFixed(2)) || 0} m`;

export type Item = 'cabinets' | 'seats';

/** What is chosen on the plan. */
export interface Chosen {
  which: Item;
  at: number;
}

/** Where a cabinet or seat is, m. */
export function whereIs(item: RawStand | RawSeat): [number, number, number | null] {
  return [metres(item.across) ?? 0, metres(item.along) ?? 0, metres(item.up)];
}

/** Inside a room, m; null in the open. */
export function sizeOf(place: RawListeningPlace): [number, number, number] | null {
  if (place.kind === 'outdoors') return null;
  const size = [metres(place.width), metres(place.length), metres(place.height)];
  return size.every((side) => side !== null) ? (size as [number, number, number]) : null;
}

/** One of several replaced. */
export function withItem<Which extends Item>(
  place: RawListeningPlace,
  which: Which,
  at: number,
  item: NonNullable<RawListeningPlace[Which]>[number],
): RawListeningPlace {
  const list = [...(place[which] ?? [])];
  list[at] = item as never;
  return { ...place, [which]: list };
}

export function withoutItem(place: RawListeningPlace, which: Item, at: number): RawListeningPlace {
  return { ...place, [which]: (place[which] ?? []).filter((_, index) => index !== at) };
}

/** Along which axes a view lies: from above across and along, from the side along and up. */
export type Axes = readonly [0 | 1, 1 | 2];
const NAMES = ['across', 'along', 'up'] as const;

/** A cabinet or seat moved to a point of a view, within the room. */
export function movedTo(
  place: RawListeningPlace,
  which: Item,
  at: number,
  axes: Axes,
  point: readonly [number, number],
  /** How far its outline reaches from its middle along the axes, m. */
  reach: readonly [number, number] = [0, 0],
): RawListeningPlace {
  const item = place[which]?.[at];
  const size = sizeOf(place);
  if (!item) return place;
  const next: Record<string, unknown> = { ...item };
  axes.forEach((axis, k) => {
    const wanted = point[k] ?? 0;
    const upright = axis === 2;
    const [low, high] = size
      ? [upright ? 0 : (reach[k] ?? 0), size[axis] - (upright ? 0 : (reach[k] ?? 0))]
      : [upright ? 0 : -500, upright ? 20 : 500];
    const within = high < low ? (size?.[axis] ?? 0) / 2 : Math.min(high, Math.max(low, wanted));
    if (upright && which === 'cabinets' && within < 0.005) delete next.up;
    else next[NAMES[axis] as string] = inMetres(within);
  });
  return withItem(place, which, at, next as never);
}

/** How near an edge comes to a wall before it goes there, m. */
const SNAP = 0.12;

/** A point whose outline lies near a wall laid against it. */
export function snapped(
  point: readonly [number, number],
  reach: readonly [number, number],
  size: readonly [number, number] | null,
): [number, number] {
  if (!size) return [point[0], point[1]];
  const along = (k: 0 | 1) => {
    const [low, high] = [reach[k], size[k] - reach[k]];
    if (Math.abs(point[k] - low) < SNAP) return low;
    if (Math.abs(point[k] - high) < SNAP) return high;
    return point[k];
  };
  return [along(0), along(1)];
}

/** A room in new walls: what stood outside is brought in. */
export function inside(place: RawListeningPlace): RawListeningPlace {
  const size = sizeOf(place);
  if (!size) return place;
  const bring = <Of extends RawStand | RawSeat>(item: Of): Of => {
    const next = { ...item };
    NAMES.forEach((name, axis) => {
      const at = metres(item[name]);
      const most = size[axis] ?? 0;
      if (at !== null && at > most) next[name] = inMetres(most - Math.min(0.3, most / 2));
    });
    return next;
  };
  const areas = place.areas?.map((area) => {
    const next = { ...area };
    for (const [name, axis] of [
      ['right', 0],
      ['above', 1],
      ['left', 0],
      ['below', 1],
    ] as const) {
      if ((metres(area[name]) ?? 0) > size[axis]) next[name] = inMetres(size[axis]);
    }
    return next;
  });
  return {
    ...place,
    cabinets: (place.cabinets ?? []).map(bring),
    seats: (place.seats ?? []).map(bring),
    ...(areas && { areas }),
  };
}

/** Places to begin with. */
export const NEW_PLACES: Record<RawListeningPlace['kind'], RawListeningPlace> = {
  room: {
    name: 'Living room',
    kind: 'room',
    width: '4 m',
    length: '5 m',
    height: '2.5 m',
    absorption: '10 %',
    cabinets: [{ across: '0.5 m', along: '4.6 m', turned: '180 deg' }],
    seats: [
      { name: 'Left', across: '1.6 m', along: '1.5 m', up: '1.1 m' },
      { name: 'Right', across: '2.4 m', along: '1.5 m', up: '1.1 m' },
    ],
  },
  car: {
    name: 'Car',
    kind: 'car',
    width: '1.4 m',
    length: '2.6 m',
    height: '1.15 m',
    absorption: '15 %',
    leak: '8 Hz',
    cabinets: [{ across: '0.7 m', along: '0.35 m' }],
    seats: [
      { name: 'Driver', across: '0.4 m', along: '1.8 m', up: '0.9 m' },
      { name: 'Passenger', across: '1 m', along: '1.8 m', up: '0.9 m' },
    ],
  },
  outdoors: {
    name: 'Field',
    kind: 'outdoors',
    cabinets: [{ across: '0 m', along: '0 m' }],
    seats: [
      { name: 'Front', across: '0 m', along: '4 m', up: '1.6 m' },
      { name: 'Far', across: '0 m', along: '20 m', up: '1.6 m' },
    ],
    battery: { capacity: '600 Wh', usable: '80 %', efficiency: '75 %', idle: '10 W' },
  },
};
