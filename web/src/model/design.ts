// Changes to a design file, each returning a new one. Nothing acoustic is computed here.

import type {
  RawDesign,
  RawDriver,
  RawEnclosure,
  RawLinked,
  RawPort,
  RawSegment,
  Typed,
} from '../schema/types';
import tables from './quantities.json' with { type: 'json' };
import { fieldAt, readTyped, unitNamed, writeTyped } from './units';

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

/** Pairs of places of which one alone may be written. */
const EITHER = [
  ['signal.drive.power', 'signal.drive.voltage'],
  ['signal.amplifier.power', 'signal.amplifier.voltage'],
];

/** Volume and sizes of a box: where all are stated, the one that was set longest ago follows. */
const LINKED: Record<string, RawLinked> = {
  'enclosure.volume': 'volume',
  'enclosure.front.volume': 'volume',
  'body.width': 'width',
  'body.height': 'height',
  'body.depth': 'depth',
};

function withOrder(design: RawDesign, path: string, value: Typed | null): RawDesign {
  const set = LINKED[path];
  const { body } = design;
  if (!set || !body) return design;
  const others = (body.order ?? []).filter((one) => one !== set);
  const order = value === null ? others : [...others, set];
  return order.length ? { ...design, body: { ...body, order } } : unordered(design);
}

/** A design but for the order in which its values were set. */
export function unordered(design: RawDesign): RawDesign {
  if (!design.body?.order) return design;
  const { order: _, ...body } = design.body;
  return { ...design, body };
}

/**
 * Writes a value. Where two values say the same thing the last one touched wins: a tuning drops the
 * lengths of the ports and the last missing length drops the tuning, a voltage drops the power. Of volume and sizes
 * all stay written, and the order in which they were set says which of them follows.
 */
export function withValue(design: RawDesign, path: string, value: Typed | null): RawDesign {
  let next = withOrder(replaced(design, steps(path), value) as RawDesign, path, value);
  for (const chamber of ['enclosure', 'enclosure.front']) next = withOneTuning(next, chamber, path);
  for (const pair of EITHER) {
    const other = pair.find((one) => one !== path);
    if (pair.includes(path) && other) next = replaced(next, steps(other), null) as RawDesign;
  }
  return next;
}

function withOneTuning(design: RawDesign, chamber: string, touched: string): RawDesign {
  const ports = portsAt(design, chamber);
  if (touched === `${chamber}.tuning`) {
    return withPorts(
      design,
      chamber,
      ports.map(({ length: _, ...port }) => port as RawPort),
    );
  }
  if (!touched.startsWith(`${chamber}.ports`) || !ports.length || !ports.every((port) => port.length)) {
    return design;
  }
  return replaced(design, steps(`${chamber}.tuning`), null) as RawDesign;
}

/** The ports of a chamber, `enclosure` or `enclosure.front`. */
export function portsAt({ enclosure }: RawDesign, chamber: string): RawPort[] {
  return (chamber === 'enclosure' ? enclosure.ports : enclosure.front?.ports) ?? [];
}

/** Other ports for a chamber. */
export function withPorts(design: RawDesign, chamber: string, ports: RawPort[]): RawDesign {
  if (!ports.length && !portsAt(design, chamber).length) return design;
  const { enclosure } = design;
  const next =
    chamber === 'enclosure'
      ? { ...enclosure, ports }
      : { ...enclosure, front: { ...enclosure.front, ports } };
  return { ...design, enclosure: next };
}

/** Anything at a place: a choice, a branch, or nothing. */
export function withBranch(design: RawDesign, path: string, branch: unknown): RawDesign {
  return replaced(design, steps(path), branch as Typed | null) as RawDesign;
}

/** How full a chamber is, or that its fill is weighed. */
export type Fill = NonNullable<RawEnclosure['fill']> | 'weighed';

/** What fill by weight is of, as the list of fills names it. */
export const FILL_MATERIALS = (['polyester', 'wool', 'glass', 'mineral'] as const).map(
  (id) => [id, tables.fills.find((fill) => fill.id === id)?.name.toLowerCase() ?? id] as const,
);

/** Fill in a chamber; none of its own where null. What was typed of absorption and gain would hide what it does. */
export function withFill(design: RawDesign, chamber: string, fill: Fill | null): RawDesign {
  const here = chamber === 'enclosure' ? design.enclosure : design.enclosure.front;
  const weighed = fill === 'weighed';
  const was = tables.amounts.find(({ id }) => id === (here?.fill ?? 'full'))?.density || 10;
  const branches = {
    fill: weighed ? null : fill,
    fill_density: weighed ? (here?.fill_density ?? `${was} kg/m3`) : null,
    fill_material: weighed ? (here?.fill_material ?? null) : null,
    gain: null,
    qa: fill ? null : 100,
  };
  return Object.entries(branches).reduce(
    (next, [name, branch]) => withBranch(next, `${chamber}.${name}`, branch),
    design,
  );
}

/** One more stretch at the end of the way, going on as the last one ended. */
export function withSegment(design: RawDesign): RawDesign {
  const segments = design.enclosure.passage?.segments ?? [];
  const added: RawSegment = { flare: 'conical', length: '0.5 m' };
  const passage = { ...design.enclosure.passage, segments: [...segments, added] };
  return { ...design, enclosure: { ...design.enclosure, passage } };
}

/** Without one stretch of the way; the first keeps an area to begin with. */
export function withoutSegment(design: RawDesign, at: number): RawDesign {
  const segments = design.enclosure.passage?.segments ?? [];
  const left = segments.filter((_, index) => index !== at);
  const [first, ...rest] = left;
  if (!first) return design;
  const begun = { ...first, start: first.start ?? segments[0]?.start ?? null };
  const passage = { ...design.enclosure.passage, segments: [begun, ...rest] };
  return { ...design, enclosure: { ...design.enclosure, passage } };
}

/** A starting point takes the place of the cabinet; what other kinds used is kept in the file. */
export function withStart(design: RawDesign, start: RawDesign): RawDesign {
  const { ports, tuning, front, radiator, passage, baffle_path, vent_resistance } = design.enclosure;
  const others = { ports, tuning, front, radiator, passage, baffle_path, vent_resistance };
  const kept = Object.fromEntries(Object.entries(others).filter(([, value]) => value !== undefined));
  const enclosure = { ...kept, ...start.enclosure } as RawEnclosure;
  const body = design.body ?? start.body;
  return { ...design, enclosure, ...(body && { body }), notes: start.notes ?? '' };
}

/** Another shape of a port with the same area, unless that shape has been given sizes before. */
export function withShape(design: RawDesign, chamber: string, at: number, shape: Shape): RawDesign {
  const ports = portsAt(design, chamber).map((port, index) => (index === at ? shaped(port, shape) : port));
  return withPorts(design, chamber, ports);
}

const SLOT_RATIO = 8;

function shaped(port: RawPort, shape: Shape): RawPort {
  const millimetres = unitNamed('mm') ?? null;
  const metres = (typed: Typed | null | undefined) => readTyped(typed, 'length')?.si ?? 0.1;
  const next: RawPort = { ...port, shape };
  const area = {
    round: () => (Math.PI / 4) * metres(port.diameter) ** 2,
    slot: () => metres(port.width) * metres(port.height),
    corner: () => metres(port.side) ** 2 / 2,
  }[port.shape]();
  if (shape === 'round' && !next.diameter) {
    next.diameter = writeTyped(Math.sqrt((4 * area) / Math.PI), millimetres, 3);
  }
  if (shape === 'corner' && !next.side) next.side = writeTyped(Math.sqrt(2 * area), millimetres, 3);
  if (shape === 'corner') next.inner_end = 'two_walls';
  if (shape === 'slot' && !(next.width && next.height)) {
    const height = Math.sqrt(area) / Math.sqrt(SLOT_RATIO);
    next.height = writeTyped(height, millimetres, 3);
    next.width = writeTyped(height * SLOT_RATIO, millimetres, 3);
    next.inner_end = 'one_wall';
  }
  if (shape === 'round') next.inner_end = 'free';
  return next;
}

/** A port that ends otherwise in the box: between both sides it is as wide as the box, else it needs a width of its own. */
export function withInnerEnd(
  design: RawDesign,
  chamber: string,
  at: number,
  inner_end: NonNullable<RawPort['inner_end']>,
): RawDesign {
  const ended = (port: RawPort): RawPort => {
    if (port.shape !== 'slot') return { ...port, inner_end };
    if (inner_end === 'three_walls') {
      const { width: _, ...rest } = port;
      return { ...rest, inner_end };
    }
    const height = readTyped(port.height, 'length')?.si ?? 0.03;
    const width = port.width ?? writeTyped(height * SLOT_RATIO, unitNamed('mm') ?? null, 3);
    return { ...port, width, inner_end };
  };
  const ports = portsAt(design, chamber);
  return withPorts(
    design,
    chamber,
    ports.map((port, index) => (index === at ? ended(port) : port)),
  );
}

/** A driver and a drive, before anything is put around it. */
export function firstDesign(driver: RawDriver): RawDesign {
  return {
    format: 'oak-drum/design',
    version: 2,
    name: 'First try',
    driver,
    enclosure: { family: 'sealed' },
    signal: { drive: { voltage: '2.83 V' } },
  };
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
