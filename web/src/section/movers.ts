// Which part of the drawing moves as which mover of the solution.

import type { Motion, Mover } from '../schema/types';
import type { Facing, Part, Scene } from './scene';

export interface Moving {
  part: Part;
  mover: Mover;
  /** Outward on the sheet: x to the right, y down. */
  outward: [number, number];
}

const OUTWARD: Record<Facing, [number, number]> = { right: [1, 0], left: [-1, 0], up: [0, -1], down: [0, 1] };

/** Parts that move, with what moves them. */
export function movingParts(scene: Scene, motion: Motion): Moving[] {
  const { movers } = motion;
  const [cone, inner] = movers.filter(({ kind }) => kind === 'cone');
  const radiator = movers.find(({ kind }) => kind === 'radiator');
  const ways = scene.parts.filter(({ kind }) => kind === 'way');
  const drivers = scene.parts.filter((part) => part.kind === 'driver');
  const last = drivers.at(-1);
  const ports = scene.parts.filter(({ kind }) => kind === 'port').length;
  return scene.parts.flatMap((part): Moving[] => {
    if (part.kind === 'driver' && cone && last?.kind === 'driver') {
      // Of a pair the one inside is drawn first. What is outward is told by the one in the wall; with air between them
      // both move almost alike.
      const inside = drivers.indexOf(part) % 2 === 0;
      return [{ part, mover: (inside && inner) || cone, outward: OUTWARD[last.facing] }];
    }
    if (part.kind === 'radiator' && radiator)
      return [{ part, mover: radiator, outward: OUTWARD[part.facing] }];
    if (part.kind === 'port') {
      const mover = portMover(part, movers);
      return mover ? [{ part, mover, outward: [part.open === 'left' ? -1 : 1, 0] }] : [];
    }
    if (part.kind === 'mouth' || (part === ways.at(-1) && ports === 0)) {
      const mouth = movers.filter(({ kind, sound }) => kind === 'port' && sound).at(-1);
      const outward = part.kind === 'mouth' ? OUTWARD[part.facing] : OUTWARD.right;
      return mouth ? [{ part, mover: mouth, outward }] : [];
    }
    return [];
  });
}

/** Ports are called after their chamber, and numbered where there are several. */
function portMover(part: Part, movers: Mover[]): Mover | undefined {
  const path = part.target?.path ?? '';
  const number = Number(/\[(\d+)\]/.exec(path)?.[1] ?? 0) + 1;
  const names = path.startsWith('enclosure.front') ? ['Front port', 'Port'] : ['Rear port', 'Port'];
  const wanted = names.flatMap((name) => [`${name} ${number}`, ...(number === 1 ? [name] : [])]);
  return wanted.map((name) => movers.find(({ label }) => label === name)).find((mover) => mover);
}

/** Largest way that anything goes on the sheet, px. */
const LARGEST = 20;

/** Pixels on the sheet for a metre of travel: everything by the same, so that what hardly moves is seen hardly moving. */
export function magnification(moving: Moving[]): number {
  const most = Math.max(1e-9, ...moving.map(({ mover }) => mover.travel));
  return LARGEST / most;
}

/** Where a mover stands at a moment (degrees of the cycle), in px outward. */
export function placeAt({ travel, phase }: Mover, moment: number, scale: number): number {
  return travel * scale * Math.cos(((moment + phase) * Math.PI) / 180);
}
