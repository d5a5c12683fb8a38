// What is looked at stands in the address, so that a link, Back and a reload lead to it again.

import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** The address as it stands, with one more part, or without it. */
export function addressWith(name: string, value: string | null): URLSearchParams {
  const params = new URLSearchParams(window.location.search);
  if (value) params.set(name, value);
  else params.delete(name);
  return params;
}

/** One of some states, kept in the address; the first is the usual one and is not written. */
export function useInAddress<State extends string>(
  name: string,
  states: readonly State[],
): [State, (next: State) => void] {
  const [params, setParams] = useSearchParams();
  const [usual] = states as readonly [State];
  const written = params.get(name) as State | null;
  const state = written !== null && states.includes(written) ? written : usual;
  const set = useCallback(
    (next: State) => setParams(() => addressWith(name, next === usual ? null : next), { replace: true }),
    [name, usual, setParams],
  );
  return [state, set];
}
