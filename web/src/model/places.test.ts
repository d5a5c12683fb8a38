import { describe, expect, it } from 'vitest';
import type { RawListeningPlace } from '../schema/types';
import { nookBench } from '../testing/nook';
import {
  archivePlace,
  inside,
  keepPlace,
  movedTo,
  NEW_PLACES,
  placesOn,
  snapped,
  withoutItem,
} from './places';
import type { Kept } from './workbench';

const room = NEW_PLACES.room;
const at = (place: RawListeningPlace, which: 'cabinets' | 'seats', index = 0) => {
  const item = place[which]?.[index];
  return [item?.across, item?.along, item?.up];
};

describe('a place', () => {
  it('keeps what is moved within its walls, with its outline', () => {
    expect(at(movedTo(room, 'seats', 0, [0, 1], [1.234, 9]), 'seats')).toEqual(['1.23 m', '5 m', '1.1 m']);
    expect(at(movedTo(room, 'cabinets', 0, [0, 1], [-3, 2], [0.2, 0.3]), 'cabinets')).toEqual([
      '0.2 m',
      '2 m',
      undefined,
    ]);
    // From the side along and up; on the floor nothing is written.
    expect(at(movedTo(room, 'cabinets', 0, [1, 2], [1, 0.4]), 'cabinets')).toEqual(['0.5 m', '1 m', '0.4 m']);
    expect(at(movedTo(room, 'cabinets', 0, [1, 2], [1, -1]), 'cabinets')[2]).toBeUndefined();
    // In the open there are no walls.
    expect(at(movedTo(NEW_PLACES.outdoors, 'seats', 0, [0, 1], [-40, 90]), 'seats')[0]).toBe('-40 m');
  });

  it('lays against a wall what comes near it', () => {
    const wall = [4, 5] as const;
    expect(snapped([0.3, 2.5], [0.25, 0.2], wall)).toEqual([0.25, 2.5]);
    expect(snapped([3.7, 4.72], [0.25, 0.2], wall)).toEqual([3.75, 4.8]);
    expect(snapped([0.3, 2.5], [0.25, 0.2], null)).toEqual([0.3, 2.5]);
  });

  it('brings in what new walls leave outside', () => {
    const areas = [{ left: '1 m', right: '4 m', below: '0 m', above: '5 m' }];
    const small = inside({ ...room, width: '2 m', areas });
    expect(at(small, 'seats', 1)[0]).toBe('1.7 m');
    expect(at(small, 'seats', 0)).toEqual(at(room, 'seats', 0));
    expect(small.areas?.[0]).toEqual({ left: '1 m', right: '2 m', below: '0 m', above: '5 m' });
    expect(inside(NEW_PLACES.outdoors)).toBe(NEW_PLACES.outdoors);
  });

  it('is made, heard in, pulled, undone, archived, and then heard nowhere', () => {
    const sent: string[] = [];
    const bench = nookBench(({ kind, id }) => sent.push(`${kind} ${id}`));
    const listening = () => bench.snapshot().listening.place;
    expect(listening()).toBeNull();
    keepPlace(bench, { id: 'p', place: room }, 'new place');
    expect(listening()).toBe('p');
    for (const along of ['3 m', '2 m']) {
      bench.previewKept('place', 'p', { ...room, seats: [{ across: '1 m', along }] });
    }
    expect(sent).toHaveLength(1);
    bench.commit('seat');
    expect(sent).toEqual(['place p', 'place p']);
    expect(bench.snapshot().undo).toBe('seat');
    bench.undo();
    expect(placesOn(bench.snapshot())[0]?.place).toEqual(room);
    bench.redo();
    archivePlace(bench, placesOn(bench.snapshot())[0] as { id: string; place: RawListeningPlace });
    expect([placesOn(bench.snapshot()), listening()]).toEqual([[], null]);
    expect(withoutItem(room, 'seats', 0).seats).toEqual(room.seats?.slice(1));
  });

  it('is the first that a build keeps, until another is chosen or none', () => {
    const kept: Kept[] = ['a', 'b'].map((id) => ({ kind: 'place', id, content: room, archived: id === 'a' }));
    const first = nookBench(undefined, { kept });
    expect(first.snapshot().listening).toEqual({ place: 'b', preset: null });
    const view = { activeId: 'v0', shown: ['v0'], listening: { place: null, preset: null } };
    expect(nookBench(undefined, { kept, view }).snapshot().listening.place).toBeNull();
  });
});
