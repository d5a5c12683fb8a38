// Where the values of a driver come from, and how one takes the place of another and back.

import type { RawDriver, RawSource, Typed } from '../../schema/types';

export function today(): string {
  return new Date().toISOString().slice(0, 10);
}

/** The same driver with a value typed anew, or without it; what was known of its source goes with a derived one. */
export function withValue(driver: RawDriver, name: string, typed: Typed | string | null): RawDriver {
  const { [name as keyof RawDriver]: _, ...others } = driver;
  const next = (typed === null ? others : { ...others, [name]: typed }) as RawDriver;
  const gone = typed === null || driver.sources?.[name]?.kind === 'derived';
  return gone ? withSource(next, name, null) : next;
}

export function withSource(driver: RawDriver, name: string, source: RawSource | null): RawDriver {
  const { [name]: _, ...others } = driver.sources ?? {};
  const { sources: __, ...rest } = driver;
  const sources = source ? { ...others, [name]: source } : others;
  return Object.keys(sources).length ? { ...rest, sources } : rest;
}

/** A value worked out from the others in the place of what was stated; the stated one is kept beside it. */
export function adopted(driver: RawDriver, name: string, typed: Typed): RawDriver {
  const was = driver[name as keyof RawDriver] as Typed | undefined;
  const source: RawSource = { kind: 'derived', on: today(), ...(was === undefined ? {} : { was }) };
  return withSource({ ...driver, [name]: typed }, name, source);
}

export function takenBack(driver: RawDriver, name: string): RawDriver {
  const was = driver.sources?.[name]?.was;
  return was == null ? driver : withSource({ ...driver, [name]: was }, name, null);
}
