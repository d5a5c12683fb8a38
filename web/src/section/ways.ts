// Lines and horns: the way drawn unrolled, to scale, with what stands at its ends.

import { siAt } from '../model/design';
import { significant } from '../model/units';
import { areaAt, type Stretch, stretchesOf } from '../model/way';
import { boxFor, driverSize } from './geometry';
import { DRIVER, type Part, type Rect, type Scene, type Subject, WALL } from './scene';

const STEPS = 24;

/** Half the height of a round way at a part of a stretch. */
const halfHeight = (stretch: Stretch, part: number) => Math.sqrt(areaAt(stretch, part) / Math.PI);

function wayParts(all: Stretch[]): Part[] {
  return all.map((stretch, at): Part => {
    const points = Array.from({ length: STEPS + 1 }, (_, step): [number, number] => {
      const part = step / STEPS;
      return [stretch.from + (stretch.to - stretch.from) * part, halfHeight(stretch, part)];
    });
    const target = {
      path: `enclosure.passage.segments[${at}]`,
      label: `Path${all.length > 1 ? ` ${at + 1}` : ''}: edit its length and area`,
    };
    return { kind: 'way', edge: points, fill: stretch.filled, target };
  });
}

/** Half the height at a place along the way. */
function halfAt(all: Stretch[], x: number): number {
  const here = all.find((stretch) => x <= stretch.to) ?? all.at(-1);
  return here ? halfHeight(here, (x - here.from) / Math.max(1e-6, here.to - here.from)) : 0;
}

export function layOutWay(subject: Subject): Scene | null {
  const { design, report } = subject;
  const all = stretchesOf(design);
  const last = all.at(-1);
  if (!last || !report.figures.passage) return null;
  const { family } = design.enclosure;
  const size = driverSize(subject);
  const volume = report.as_built.volumes[0] ?? null;
  const parts: Part[] = [];
  let left = -WALL;
  const chamber = (at: Rect) => {
    left = at.x - WALL;
    const label = family === 'front_horn' ? 'Rear chamber: edit the volume' : 'Chamber: edit the volume';
    const outer = {
      x: at.x - WALL,
      y: at.y - WALL,
      width: at.width + 2 * WALL,
      height: at.height + 2 * WALL,
    };
    parts.push({ kind: 'walls', outer, inner: [at], target: { path: 'enclosure.volume', label } });
  };
  const driver = (x: number, y: number, facing: 'right' | 'left' | 'up') =>
    parts.push({ kind: 'driver', x, y, facing, ...size, target: DRIVER });

  if (volume !== null && family !== 'line' && family !== 'mass_loaded_line' && family !== 'tapped_horn') {
    const { width, height } = boxFor(volume, size.frame);
    const depth = volume / (width * height);
    chamber({ x: -WALL - depth, y: -height / 2, width: depth, height });
    parts.push(...wayParts(all));
    if (family === 'front_horn') driver(0, 0, 'right');
    else driver(-2 * WALL - depth, 0, 'left');
  } else {
    parts.push(...wayParts(all));
    const at = siAt(design, 'enclosure.passage.driver_at') ?? 0;
    const place = Math.max(at, size.frame / 2);
    driver(place, halfAt(all, place) + WALL, 'up');
    const front = family === 'tapped_horn' ? siAt(design, 'enclosure.passage.front_at') : null;
    if (front !== null) {
      const high = halfAt(all, place) + size.depth;
      const points: [number, number][] = [
        [place, high],
        [front, Math.max(high, halfAt(all, front) + 0.06)],
        [front, halfAt(all, front) - 0.02],
      ];
      parts.push({ kind: 'flow', points });
    }
  }
  const end = portAtEnd(subject, last, parts);
  const flowEnd: [number, number] = [end + 0.06, 0];
  parts.push({ kind: 'flow', points: [[family === 'front_horn' ? size.depth * 0.4 : 0.03, 0], flowEnd] });
  return {
    extent: extentOf(parts, left, end),
    parts,
    dimensions: dimensions(last, end),
    title: 'The path unrolled, to scale',
  };
}

/** The port that ends a mass-loaded line; where the drawing ends. */
function portAtEnd({ design, report }: Subject, last: Stretch, parts: Part[]): number {
  const port = design.enclosure.family === 'mass_loaded_line' ? report.figures.ports[0] : undefined;
  if (!port) return last.to;
  const height = Math.sqrt((4 * port.area) / Math.PI);
  parts.push({
    kind: 'port',
    at: { x: last.to, y: -height / 2, width: port.length, height },
    open: 'both',
    text: `${significant(port.length * 1000, 3)} mm`,
    target: { path: 'enclosure.ports[0]', label: 'Port: edit its size' },
  });
  return last.to + port.length;
}

function dimensions(last: Stretch, end: number): Scene['dimensions'] {
  return [
    {
      from: 0,
      to: last.to,
      at: -Infinity,
      text: `${significant(last.to, 3)} m along its middle`,
      upright: false,
    },
  ].filter(() => end > 0);
}

function extentOf(parts: Part[], left: number, end: number): Rect {
  let [low, high, right, far] = [0, 0, end, left];
  const see = (x: number, y: number) => {
    low = Math.min(low, y);
    high = Math.max(high, y);
    right = Math.max(right, x);
    far = Math.min(far, x);
  };
  for (const part of parts) {
    if (part.kind === 'walls') {
      see(part.outer.x, part.outer.y);
      see(part.outer.x, part.outer.y + part.outer.height);
    }
    if (part.kind === 'way') {
      for (const [x, y] of part.edge) {
        see(x, y + WALL);
        see(x, -y - WALL);
      }
    }
    if (part.kind === 'driver') {
      const reach = part.facing === 'left' ? -part.depth * 0.1 : 0;
      see(part.x + reach, part.y + (part.facing === 'up' ? part.depth * 0.2 : part.frame / 2));
      see(part.x, part.y - (part.facing === 'up' ? part.depth : part.frame / 2));
    }
    if (part.kind === 'flow') for (const [x, y] of part.points) see(x, y);
  }
  return { x: far, y: low, width: right - far, height: high - low };
}
