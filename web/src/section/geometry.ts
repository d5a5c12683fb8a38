// The section of each kind of cabinet of whose box nothing is known: usual proportions with the right net volumes.

import { portsAt, siAt } from '../model/design';
import { measure, unitOf } from '../model/preferences';
import { fieldAt, significant } from '../model/units';
import { DRIVER, type DriverSize, type Part, type Rect, type Scene, type Subject, WALL } from './scene';

/** Height, width and depth of a box that looks usual, common practice. */
const PROPORTIONS = { height: 1.26, width: 1, depth: 0.79 };

export interface Box {
  depth: number;
  height: number;
  width: number;
}

/** A box of a net volume whose front holds a driver. */
export function boxFor(volume: number, frame: number): Box {
  const unit = Math.cbrt(volume / (PROPORTIONS.height * PROPORTIONS.width * PROPORTIONS.depth));
  const width = Math.max(unit * PROPORTIONS.width, frame * 1.08);
  const height = Math.max(unit * PROPORTIONS.height, frame * 1.12);
  return { width, height, depth: volume / (width * height) };
}

/** Sizes of one driver. */
export function driverSize({ design, report }: Subject): DriverSize {
  const diameter = Math.sqrt((4 * report.driver.sd) / Math.PI);
  const frame = Math.max(siAt(design, 'driver.size') ?? 0, diameter * 1.16);
  return { diameter, frame, depth: siAt(design, 'driver.depth') ?? frame * 0.42 };
}

export const millimetres = (metres: number): string => `${Math.round(metres * 1000)} mm`;

function around(inner: Rect): Rect {
  return {
    x: inner.x - WALL,
    y: inner.y - WALL,
    width: inner.width + 2 * WALL,
    height: inner.height + 2 * WALL,
  };
}

function sized(outer: Rect): Scene['dimensions'] {
  return [
    {
      from: outer.x,
      to: outer.x + outer.width,
      at: outer.y,
      text: `${millimetres(outer.width)}, at usual proportions`,
      upright: false,
    },
    {
      from: outer.y,
      to: outer.y + outer.height,
      at: outer.x,
      text: millimetres(outer.height),
      upright: true,
    },
  ];
}

/** Drivers in a wall, the second of an isobaric pair behind the first. */
function drivers(
  subject: Subject,
  size: DriverSize,
  x: number,
  y: number,
  facing: 'right' | 'left' | 'up',
): Part[] {
  const pair = subject.design.driver_array?.isobaric;
  const one: Part = { kind: 'driver', x, y, facing, ...size, target: DRIVER };
  if (!pair) return [one];
  const back = facing === 'left' ? 1 : -1;
  const turned = pair.arrangement !== 'in_line';
  const distance = pair.arrangement === 'face_to_face' ? 0.35 : pair.arrangement === 'in_line' ? 1.05 : 2.05;
  const shift = back * distance * size.depth;
  const opposite = facing === 'right' ? 'left' : 'right';
  return [{ ...one, x: x + shift, facing: turned && facing !== 'up' ? opposite : facing }, one];
}

interface Passage {
  /** Height of a port's passage in the section, m. */
  height: number;
  length: number;
  slot: boolean;
}

/** The ports of a chamber as they came out. */
function passages({ design, report }: Subject, chamber: string): Passage[] {
  const rear = report.figures.rear_ports;
  const found = chamber === 'enclosure' && rear.length ? rear : report.figures.ports;
  return portsAt(design, chamber).flatMap((port, at) => {
    const { length, area } = found[at] ?? {};
    if (!length || !area) return [];
    const slot = port.shape === 'slot';
    const height =
      (slot ? siAt(design, `${chamber}.ports[${at}].height`) : null) ?? Math.sqrt((4 * area) / Math.PI);
    return [{ height, length, slot }];
  });
}

/** Ports one above the other in a wall at `x`, leading into a chamber towards `inward`; and their top. */
function ports(
  found: Passage[],
  chamber: string,
  inner: Rect,
  wall: 'right' | 'left',
): { parts: Part[]; top: number } {
  let free = inner.y;
  const parts = found.flatMap((port, at): Part[] => {
    const bottom = free + (port.slot ? 0 : 0.02);
    free = bottom + port.height + 0.012;
    const room = Math.max(0.02, inner.width - 0.6 * port.height);
    const straight = Math.min(port.length, room + WALL);
    const folded = port.length - straight;
    const x = wall === 'right' ? inner.x + inner.width + WALL - straight : inner.x - WALL;
    const rect = { x, y: bottom, width: straight, height: port.height };
    const text = `${significant(port.length * 1000, 3)} mm${folded > 0.01 ? ', folded' : ''}`;
    const target = {
      path: `${chamber}.ports[${at}]`,
      label: at ? `Port ${at + 1}: edit its size` : 'Port: edit its size',
    };
    const end = wall === 'right' ? x : x + straight;
    const middle = bottom + port.height / 2;
    const mouth = wall === 'right' ? x + straight : x;
    const up = Math.min(folded, inner.y + inner.height - middle);
    const points: [number, number][] = [
      [mouth, middle],
      [end, middle],
      ...(up > 0.01 ? [[end, middle + up] as [number, number]] : []),
    ];
    return [
      { kind: 'port', at: rect, open: wall, text, target },
      { kind: 'flow', points },
    ];
  });
  return { parts, top: free };
}

/** The volume as built, read in the unit that was typed, and how much fill is in it. */
export function fillText({ design, report }: Subject, chamber: string): string {
  const [at, here] =
    chamber === 'enclosure' ? ([0, design.enclosure] as const) : ([1, design.enclosure.front] as const);
  const words = { none: '', lined: ', lined', half: ', half filled', full: ', filled', packed: ', packed' };
  const built = report.as_built.volumes[at];
  const unit = unitOf(fieldAt(`${chamber}.volume`), here?.volume ?? null);
  const volume = built == null ? '' : measure(built, unit, 4);
  return `${volume}${here?.fill ? words[here.fill] : ''}`;
}

export function box(subject: Subject): Scene | null {
  const { design } = subject;
  const volume = subject.report.as_built.volumes[0] ?? null;
  if (volume === null) return null;
  const size = driverSize(subject);
  const { width, height } = boxFor(volume, size.frame);
  const inner: Rect = { x: 0, y: 0, width: volume / (width * height), height };
  const outer = around(inner);
  const found = design.enclosure.family === 'ported' ? passages(subject, 'enclosure') : [];
  const led = ports(found, 'enclosure', inner, 'right');
  const lifted = Math.min(height - 0.53 * size.frame, led.top + size.frame / 2);
  const middle = found.length ? Math.max(height / 2, lifted) : height / 2;
  const parts: Part[] = [
    {
      kind: 'walls',
      outer,
      inner: [inner],
      target: { path: 'enclosure.volume', label: 'Box: edit the volume' },
    },
    ...extras(subject, inner),
    ...led.parts,
    ...drivers(subject, size, inner.width + WALL, middle, 'right'),
    { kind: 'text', x: 0.01, y: height, text: fillText(subject, 'enclosure') },
  ];
  return { extent: outer, parts, dimensions: sized(outer), title: 'Cabinet, side section' };
}

/** Radiators in roof and floor, or a vent in the back. */
export function extras({ design }: Subject, inner: Rect): Part[] {
  const { family } = design.enclosure;
  if (family === 'aperiodic') {
    const tall = inner.height * 0.22;
    const at = { x: inner.x - WALL, y: inner.y + inner.height * 0.2, width: WALL, height: tall };
    return [
      { kind: 'vent', at, target: { path: 'enclosure.vent_resistance', label: 'Vent: edit its resistance' } },
    ];
  }
  const area = family === 'passive_radiator' ? siAt(design, 'enclosure.radiator.area') : null;
  if (!area) return [];
  const diameter = Math.min(Math.sqrt((4 * area) / Math.PI), inner.height * 0.92);
  const target = { path: 'enclosure.radiator', label: 'Radiator: edit its mass' };
  const y = inner.y + inner.height / 2;
  return [{ kind: 'radiator', x: inner.x - WALL, y, facing: 'left', diameter, target }];
}

export function bandpass(subject: Subject): Scene | null {
  const { design } = subject;
  const [behind, before] = subject.report.as_built.volumes;
  if (behind == null || before == null) return null;
  const size = driverSize(subject);
  const { width, height } = boxFor(behind + before, size.frame);
  const rear: Rect = { x: 0, y: 0, width: behind / (width * height), height };
  const front: Rect = { x: rear.width + WALL, y: 0, width: before / (width * height), height };
  const outer = around({ ...rear, width: rear.width + WALL + front.width });
  const { family } = design.enclosure;
  const frontPorts = ports(passages(subject, 'enclosure.front'), 'enclosure.front', front, 'right');
  const rearFound = family === 'bandpass4' ? [] : passages(subject, 'enclosure');
  const rearPorts = ports(rearFound, 'enclosure', rear, family === 'bandpass6_series' ? 'right' : 'left');
  const top = Math.max(frontPorts.top, rearPorts.top);
  const middle = Math.max(height / 2, Math.min(height - 0.53 * size.frame, top + size.frame / 2));
  const parts: Part[] = [
    {
      kind: 'walls',
      outer,
      inner: [rear],
      target: { path: 'enclosure.volume', label: 'Rear chamber: edit the volume' },
    },
    {
      kind: 'air',
      at: front,
      target: { path: 'enclosure.front.volume', label: 'Front chamber: edit the volume' },
    },
    ...rearPorts.parts,
    ...frontPorts.parts,
    ...drivers(subject, size, front.x, middle, 'right'),
    { kind: 'text', x: 0.01, y: height, text: fillText(subject, 'enclosure') },
    { kind: 'text', x: front.x + 0.01, y: height, text: fillText(subject, 'enclosure.front') },
  ];
  return { extent: outer, parts, dimensions: sized(outer), title: 'Cabinet with two chambers, side section' };
}

export function baffle(subject: Subject): Scene {
  const { design } = subject;
  const size = driverSize(subject);
  const open = design.enclosure.family === 'open_baffle';
  const round = open ? (siAt(design, 'enclosure.baffle_path') ?? 0.5) : 0;
  const half = open ? Math.max(round / 2, size.frame * 0.56) : size.frame * 1.1;
  const at: Rect = { x: 0, y: -half, width: WALL, height: 2 * half };
  const target = open
    ? { path: 'enclosure.baffle_path', label: 'Baffle: edit its path' }
    : { path: 'drive', label: 'Wall: edit the drive' };
  const deep = size.depth * 1.4;
  const parts: Part[] = [
    { kind: 'board', at, target },
    ...drivers(subject, size, WALL, 0, 'right'),
    ...(open
      ? [
          {
            kind: 'flow' as const,
            points: [
              [-size.depth, 0.02],
              [-size.depth, half + 0.05],
              [size.depth * 0.8, half + 0.05],
              [size.depth * 0.8, 0],
            ] as [number, number][],
          },
        ]
      : []),
  ];
  const extent = { x: -deep, y: -half - 0.02, width: 2 * deep, height: 2 * half + 0.1 };
  const dimensions = open
    ? [{ from: -half, to: half, at: -deep, text: `path ${significant(round, 3)} m`, upright: true }]
    : [];
  return {
    extent,
    parts,
    dimensions,
    title: open ? 'Open baffle, side section' : 'Driver in a wall, section',
  };
}
