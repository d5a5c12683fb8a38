// Changes to a design file, each returning a new one. Nothing acoustic is computed here.

import type { RawDesign, RawDriver, RawEnclosure, RawPort, Typed } from '../api/types';
import { fieldAt, readTyped, unitNamed, writeTyped } from './units';

export type Family = RawEnclosure['family'];
export type Shape = RawPort['shape'];

type Branch = Record<string, unknown>;

function steps(path: string): (string | number)[] {
  return path.split('.').flatMap((part) => {
    const [, name = '', index] = /^(\w+)(?:\[(\d+)\])?$/.exec(part) ?? [];
    return index === undefined ? [name] : [name, Number(index)];
  });
}

/** What is written at a place such as `enclosure.ports[0].diameter`. */
export function valueAt(design: RawDesign, path: string): Typed | null {
  let here: unknown = design;
  for (const step of steps(path)) here = (here as Branch | null | undefined)?.[step];
  return typeof here === 'string' || typeof here === 'number' ? here : null;
}

/** The SI value at a place; null where nothing usable is written. */
export function siAt(design: RawDesign, path: string): number | null {
  return readTyped(valueAt(design, path), fieldAt(path).dimension)?.si ?? null;
}

function replaced(here: unknown, [step, ...rest]: (string | number)[], value: Typed | null): unknown {
  if (step === undefined) return value;
  if (Array.isArray(here)) return here.map((item, at) => (at === step ? replaced(item, rest, value) : item));
  const { [step]: inner, ...others } = (here ?? {}) as Branch;
  const next = replaced(inner, rest, value);
  if (next === null) return others;
  // An existing name keeps its place in the file.
  return inner === undefined ? { ...others, [step]: next } : { ...(here as Branch), [step]: next };
}

/**
 * Writes a value. Where two values say the same thing the last one touched wins: a tuning drops the
 * lengths of the ports and the last missing length drops the tuning, a voltage drops the power.
 */
export function withValue(design: RawDesign, path: string, value: Typed | null): RawDesign {
  let next = replaced(design, steps(path), value) as RawDesign;
  if (path === 'enclosure.tuning') next = withoutLengths(next);
  else if (next.enclosure.ports?.length && next.enclosure.ports.every((port) => port.length)) {
    next = replaced(next, ['enclosure', 'tuning'], null) as RawDesign;
  }
  if (path === 'drive.power') next = replaced(next, ['drive', 'voltage'], null) as RawDesign;
  if (path === 'drive.voltage') next = replaced(next, ['drive', 'power'], null) as RawDesign;
  return next;
}

function withoutLengths(design: RawDesign): RawDesign {
  const ports = (design.enclosure.ports ?? []).map(({ length: _, ...port }) => port as RawPort);
  return { ...design, enclosure: { ...design.enclosure, ports } };
}

/** Another kind of cabinet; what the other kind used is kept in the file. */
export function withFamily(design: RawDesign, family: Family): RawDesign {
  const enclosure = { ...design.enclosure, family };
  if (family === 'ported' && !enclosure.ports?.length) {
    enclosure.ports = [{ shape: 'round', diameter: usualPort(design.driver) }];
  }
  if (family === 'ported' && !enclosure.tuning && !enclosure.ports?.some((port) => port.length)) {
    enclosure.tuning = design.driver.fs ?? '30 Hz';
  }
  return { ...design, enclosure };
}

/** A pipe size a builder would first try: a third of the cone's diameter, to the next 5 mm. */
function usualPort(driver: RawDriver): Typed {
  const area = readTyped(driver.sd, 'area')?.si ?? 0.035;
  const diameter = Math.sqrt((4 * area) / Math.PI) / 3;
  return `${Math.max(30, Math.round(diameter / 0.005) * 5)} mm`;
}

/** Another shape of the port with the same area, unless that shape has been given sizes before. */
export function withShape(design: RawDesign, shape: Shape): RawDesign {
  const ports = (design.enclosure.ports ?? []).map((port) => shaped(port, shape));
  return { ...design, enclosure: { ...design.enclosure, ports } };
}

const SLOT_RATIO = 8;

function shaped(port: RawPort, shape: Shape): RawPort {
  const millimetres = unitNamed('mm') ?? null;
  const metres = (typed: Typed | null | undefined) => readTyped(typed, 'length')?.si ?? 0.1;
  const next: RawPort = { ...port, shape };
  if (shape === 'round' && !next.diameter) {
    const area = metres(port.width) * metres(port.height);
    next.diameter = writeTyped(Math.sqrt((4 * area) / Math.PI), millimetres, 3);
  }
  if (shape === 'slot' && !(next.width && next.height)) {
    const height = Math.sqrt((Math.PI / 4) * metres(port.diameter) ** 2) / Math.sqrt(SLOT_RATIO);
    next.height = writeTyped(height, millimetres, 3);
    next.width = writeTyped(height * SLOT_RATIO, millimetres, 3);
    next.inner_end = 'one_wall';
  }
  if (shape === 'round') next.inner_end = 'free';
  return next;
}

/** A first design to tune from: the volume is the driver's Vas and the tuning its Fs. */
export function firstDesign(driver: RawDriver, vas: number): RawDesign {
  const volume = Math.min(0.4, Math.max(0.004, vas));
  const design: RawDesign = {
    format: 'oak-drum/design',
    version: 1,
    name: 'First try',
    driver,
    enclosure: { family: 'sealed', volume: writeTyped(volume, unitNamed('l') ?? null, 2), ql: 7, qa: 100 },
    drive: { voltage: '2.83 V' },
  };
  return withFamily(design, 'ported');
}

const LONGEST_NAME = 120;

/** A copy with a name that none of the others has: `Slot`, `Slot 2`, `Slot 3`. */
export function copyOf(design: RawDesign, others: readonly RawDesign[]): RawDesign {
  const base = (design.name ?? '').replace(/ \d+$/, '');
  const taken = new Set(others.map((other) => other.name));
  let number = 2;
  const named = () => `${base.slice(0, LONGEST_NAME - 4)} ${number}`;
  while (taken.has(named())) number += 1;
  return { ...design, name: named() };
}

/** Whether two files hold the same, wherever their fields stand. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return false;
  const [left, right] = [withoutNulls(a), withoutNulls(b)];
  return left.length === right.length && left.every(([name, value]) => same(value, (b as Branch)[name]));
}

function withoutNulls(value: object): [string, unknown][] {
  return Object.entries(value).filter(([, inner]) => inner !== null && inner !== undefined);
}
