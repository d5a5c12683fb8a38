// Lays out the section of a box from its boards: the side section as the core has it.

import { significant } from '../model/units';
import type { BodyReport } from '../schema/types';
import { driverSize, extras, fillText, millimetres } from './geometry';
import {
  DRIVER,
  type Facing,
  type Part,
  type Polygon,
  type Rect,
  type Scene,
  type Subject,
  type Target,
} from './scene';

type Place = readonly number[];
type Mounted = BodyReport['parts'][number];

function bounds(points: Polygon): Rect {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

/** Which way something looks on the sheet; null where it looks at or away from the reader. */
function facing([across = 0, up = 0, forward = 0]: Place): Facing | null {
  if (Math.abs(across) > 0.7) return null;
  if (Math.abs(up) > Math.abs(forward)) return up > 0 ? 'up' : 'down';
  return forward < 0 ? 'left' : 'right';
}

/** The section of a built box. */
export function layOutBuilt(subject: Subject, body: BodyReport): Scene | null {
  const side = body.drawings.find(({ view }) => view === 'side');
  const rear = side?.strokes.find(({ part }) => part === 'chamber');
  const panels = side?.strokes.find(({ part }) => part === 'boards');
  if (!side || !rear || !panels) return null;
  const corner = bounds(rear.points as Polygon);
  const flat = (points: readonly Place[]): Polygon =>
    points.map(([x = 0, y = 0]) => [x - corner.x, y - corner.y]);
  const put = ([, up = 0, forward = 0]: Place): [number, number] => [forward - corner.x, up - corner.y];
  const chambers = ['chamber', 'front chamber', 'unused space'].flatMap((name) =>
    side.strokes.filter(({ part }) => part === name),
  );
  const inner = chambers.map(({ points }) => flat(points));
  const outline = flat(panels.points);
  const outer = bounds(outline);
  const [room, before] = inner.map(bounds);
  if (!room) return null;
  const way: Target = { path: 'enclosure.passage.segments[0]', label: 'Path: edit its length and area' };
  const label = body.fold
    ? 'Chamber: edit the volume'
    : before
      ? 'Rear chamber: edit the volume'
      : 'Box: edit the volume';
  const parts: Part[] = [
    {
      kind: 'walls',
      outer,
      inner: inner.map(bounds),
      outlines: { outer: outline, inner },
      target: body.fold && !before ? way : { path: 'enclosure.volume', label },
    },
  ];
  if (before) {
    const front = { path: 'enclosure.front.volume', label: 'Front chamber: edit the volume' };
    parts.push({ kind: 'air', at: before, target: body.fold ? way : front });
  }
  for (const { points, part } of side.strokes) {
    if (part.startsWith('brace')) parts.push({ kind: 'board', at: bounds(flat(points)) });
    if ((part === 'partition' && body.fold) || part.startsWith('end board')) {
      parts.push({ kind: 'board', at: bounds(flat(points)) });
    }
  }
  parts.push(...foldParts(side.strokes, flat, body));
  if (subject.design.enclosure.family === 'aperiodic') parts.push(...extras(subject, room));
  parts.push(...body.parts.filter(({ kind }) => kind === 'port').flatMap((port) => portParts(port, put)));
  // Those beside each other stand in one place of the section.
  const seen = new Set<string>();
  for (const part of body.parts) {
    const key = `${part.kind} ${put(part.mouth).map((at) => at.toFixed(4))}`;
    if (seen.has(key)) continue;
    seen.add(key);
    parts.push(...cone(subject, part, put));
  }
  parts.push({
    kind: 'text',
    x: room.x + 0.01,
    y: room.y + room.height,
    text: body.fold && !before ? '' : fillText(subject, 'enclosure'),
  });
  if (before && !body.fold) {
    const text = fillText(subject, 'enclosure.front');
    parts.push({ kind: 'text', x: before.x + 0.01, y: before.y + before.height, text });
  }
  const [, height = 0, depth = 0] = body.outside;
  const open = body.solved.some(Boolean) && !subject.design.body;
  return {
    extent: outer,
    parts,
    dimensions: [
      {
        from: outer.x,
        to: outer.x + outer.width,
        at: outer.y,
        text: `${millimetres(depth)}${open ? ', at usual proportions' : ''}`,
        upright: false,
      },
      { from: outer.y, to: outer.y + outer.height, at: outer.x, text: millimetres(height), upright: true },
    ],
    title: body.fold
      ? 'The folded path, side section'
      : before
        ? 'Cabinet with two chambers, side section'
        : 'Cabinet, side section',
  };
}

/** The boards of a fold, its mouth, and the middle of the path. */
function foldParts(
  strokes: BodyReport['drawings'][number]['strokes'],
  flat: (points: readonly Place[]) => Polygon,
  body: BodyReport,
): Part[] {
  const parts: Part[] = [];
  const seen = new Set<number>();
  for (const { part, points } of strokes) {
    const shape = flat(points);
    const panel = /^fold board (\d+)$/.exec(part);
    if (panel || part === 'closing board') {
      const number = panel ? Number(panel[1]) - 1 : null;
      // What fills its corners comes after the board itself.
      const first = number !== null && !seen.has(number);
      if (number !== null) seen.add(number);
      parts.push({ kind: 'slab', points: shape, panel: first ? number : null });
    }
    if (part === 'mouth') {
      const looks = facing(body.parts.find(({ kind }) => kind === 'mouth')?.normal ?? [0, 0, 1]);
      parts.push({ kind: 'mouth', at: bounds(shape), facing: looks ?? 'right' });
    }
    if (part === 'way') parts.push({ kind: 'flow', points: shape });
  }
  return parts;
}

function cone(subject: Subject, part: Mounted, put: (place: Place) => [number, number]): Part[] {
  if (part.kind !== 'driver' && part.kind !== 'radiator') return [];
  const [x, y] = put(part.mouth);
  const looks = facing(part.normal);
  const radiator = { path: 'enclosure.radiator', label: 'Radiator: edit its mass' };
  const target = part.kind === 'driver' ? DRIVER : radiator;
  if (!looks)
    return [{ kind: 'disc', x, y, diameter: part.across, frame: part.frame ?? part.across, target }];
  if (part.kind === 'radiator') {
    return [{ kind: 'radiator', x, y, facing: looks, diameter: part.across, target }];
  }
  const size = driverSize(subject);
  const one: Part = { kind: 'driver', x, y, facing: looks, ...size, target };
  const pair = subject.design.driver_array?.isobaric;
  if (!pair) return [one];
  const distance = pair.arrangement === 'face_to_face' ? 0.35 : pair.arrangement === 'in_line' ? 1.05 : 2.05;
  const [, up = 0, forward = 0] = part.normal;
  const turned = pair.arrangement !== 'in_line';
  const away: Record<Facing, Facing> = { right: 'left', left: 'right', up: 'down', down: 'up' };
  const deep = distance * size.depth;
  const behind = { x: x - forward * deep, y: y - up * deep, facing: turned ? away[looks] : looks };
  return [{ ...one, ...behind }, one];
}

/** A port: its first leg as a passage, the whole as a way that air takes. */
function portParts(port: Mounted, put: (place: Place) => [number, number]): Part[] {
  const points = port.path.map(put);
  const [mouth, end] = points;
  if (!mouth || !end) return [];
  const chamber = port.chamber === 1 ? 'enclosure.front' : 'enclosure';
  const target = {
    path: `${chamber}.ports[${port.index}]`,
    label: port.index ? `Port ${port.index + 1}: edit its size` : 'Port: edit its size',
  };
  const length = port.path.slice(1).reduce((sum, to, at) => {
    const from = port.path[at] ?? [];
    return sum + Math.hypot(...[0, 1, 2].map((k) => (to[k] ?? 0) - (from[k] ?? 0)));
  }, 0);
  const folded = points.length > 2;
  const half = (port.tall ?? port.across) / 2;
  const looks = facing(port.normal);
  const text = `${significant(length * 1000, 3)} mm${folded ? ', folded' : ''}`;
  const flow: Part = { kind: 'flow', points };
  if (looks === null) {
    const [x, y] = mouth;
    return [{ kind: 'disc', x, y, diameter: 2 * half, frame: 2 * half, target }];
  }
  const [low, high] = [0, 1].map((k) => [
    Math.min(mouth[k] ?? 0, end[k] ?? 0),
    Math.max(mouth[k] ?? 0, end[k] ?? 0),
  ]);
  if (!low || !high) return [];
  const level = looks === 'right' || looks === 'left';
  const [x0 = 0, x1 = 0] = low;
  const [y0 = 0, y1 = 0] = high;
  const at = level
    ? { x: x0, y: y0 - half, width: x1 - x0, height: 2 * half }
    : { x: x0 - half, y: y0, width: 2 * half, height: y1 - y0 };
  const open = looks === 'left' ? 'left' : 'right';
  return [{ kind: 'port', at, open, text, target }, flow];
}
