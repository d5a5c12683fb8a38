// The pipes and flared kits that a person can get: those that are easily had, until the list is written anew.

import tables from './meanings.json' with { type: 'json' };
import { Stored } from './stored';

export interface Pipe {
  name: string;
  /** Diameters, m. */
  outside: number;
  inside: number;
  /** Of a flared kit: radius of its flares and width of its flange, m; 0 or absent of a plain pipe. */
  flare?: number;
  flange?: number;
  /** What it is joined and closed with, m: corner of an elbow to its shoulder, depth of a socket, across a coupling, length of a cap; the
   * usual ones where absent. */
  elbow?: number;
  socket?: number;
  coupling?: number;
  cap?: number;
}

interface Pipes {
  /** Null where nothing was changed. */
  list: readonly Pipe[] | null;
}

export const USUAL_PIPES: readonly Pipe[] = tables.pipes;

export const pipes = new Stored<Pipes>('oak-drum:pipes', { list: null });

const sound = (pipe: unknown): pipe is Pipe => {
  const { name, outside, inside } = (pipe ?? {}) as Partial<Pipe>;
  return typeof name === 'string' && Number(inside) > 0 && Number(outside) > Number(inside);
};

/** Pipes to choose from; what is not a pipe is left out. */
export function pipesOf({ list }: Pipes): readonly Pipe[] {
  return Array.isArray(list) ? list.filter(sound) : USUAL_PIPES;
}

/** What a port made of it is: its bore, its wall, the flares and flange of a kit, and its fittings; null of what is not known. */
export function madeOf({ outside, inside, flare, flange, elbow, socket, coupling, cap }: Pipe) {
  const mm = (metres: number, digits: number) => `${(metres * 1e3).toFixed(digits)} mm`;
  const known = (metres: number | undefined, digits: number) => (metres ? mm(metres, digits) : null);
  return {
    diameter: mm(inside, 1),
    build: {
      wall: mm((outside - inside) / 2, 2),
      outer_flare: known(flare, 0),
      inner_flare: known(flare, 0),
      flange: known(flange, 0),
      elbow: known(elbow, 1),
      socket: known(socket, 1),
      coupling: known(coupling, 1),
      cap: known(cap, 1),
    },
  };
}

/** The list with another pipe at a place; without it where none is given. */
export function withPipe(list: readonly Pipe[], at: number, pipe: Pipe | null): Pipe[] {
  const next = [...list];
  if (pipe) next[at] = pipe;
  else next.splice(at, 1);
  return next;
}
