// The pipes and flared kits that a person can get: those that are easily had, until the list is written anew.

import tables from './quantities.json' with { type: 'json' };
import { Stored } from './stored';

export interface Pipe {
  name: string;
  /** Diameters, m. */
  outside: number;
  inside: number;
  /** Of a flared kit: radius of its flares and width of its flange, m; 0 or absent of a plain pipe. */
  flare?: number;
  flange?: number;
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

/** What a port made of it is: its bore, its wall, and the flares and flange of a kit; none of a plain pipe. */
export function madeOf({ outside, inside, flare = 0, flange = 0 }: Pipe) {
  const mm = (metres: number, digits: number) => `${(metres * 1e3).toFixed(digits)} mm`;
  const ofKit = (metres: number) => (metres > 0 ? mm(metres, 0) : null);
  return {
    diameter: mm(inside, 1),
    build: {
      wall: mm((outside - inside) / 2, 2),
      outer_flare: ofKit(flare),
      inner_flare: ofKit(flare),
      flange: ofKit(flange),
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
