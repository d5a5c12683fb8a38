// The pipes that a person can get: those that are easily had, until the list is written anew.

import tables from './quantities.json';
import { Stored } from './stored';

export interface Pipe {
  name: string;
  /** Diameters, m. */
  outside: number;
  inside: number;
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

/** The list with another pipe at a place; without it where none is given. */
export function withPipe(list: readonly Pipe[], at: number, pipe: Pipe | null): Pipe[] {
  const next = [...list];
  if (pipe) next[at] = pipe;
  else next.splice(at, 1);
  return next;
}
