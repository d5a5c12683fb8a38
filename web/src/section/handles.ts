// What can be taken by the hand in the drawing, and what a pull does to the design.

import { withBody, withFold } from '../model/body';
import { siAt, valueAt, withValue } from '../model/design';
import { unitOf } from '../model/preferences';
import { fieldAt, writeTyped } from '../model/units';
import type { RawDesign, RawFace } from '../schema/types';
import type { Part, Scene, Subject } from './scene';

export interface Handle {
  id: string;
  /** What is pulled, such as `Length of the port`. */
  label: string;
  /** Where it stands, m. */
  x: number;
  y: number;
  /** Along which axis it goes. */
  axis: 'x' | 'y';
  /** The value it stands for, as written. */
  said: string;
  /** The design after a pull of so many metres along the axis; null where that cannot be. */
  pull: (metres: number) => RawDesign | null;
}

type Of<Kind extends Part['kind']> = Extract<Part, { kind: Kind }>;

/** A value as the file has it, in the unit it was typed in. */
function written(design: RawDesign, path: string, si: number): RawDesign | null {
  const field = fieldAt(path);
  if (si < field.min || si > field.max) return null;
  return withValue(design, path, writeTyped(si, unitOf(field, valueAt(design, path)), 4));
}

/** All handles of a drawing. */
export function handlesOf({ design, report, body }: Subject, scene: Scene): Handle[] {
  return [
    ...ports({ design, report }, scene),
    ...box({ design, report }, scene),
    ...placed(design, body, scene),
    ...folded(design, body, scene),
    ...partition({ design, report }, scene),
    ...ways(design, scene),
    ...baffle(design, scene),
  ];
}

const millimetres = (metres: number) => `${(metres * 1e3).toFixed(0)} mm`;

function ports({ design, report }: Subject, scene: Scene): Handle[] {
  const found = scene.parts.filter((part): part is Of<'port'> & Part => part.kind === 'port');
  // Equal ones share their length.
  const seen = new Set<string>();
  return found.flatMap((part): Handle[] => {
    const path = part.target && `${part.target.path}.length`;
    if (!path || seen.has(path)) return [];
    seen.add(path);
    const index = Number(/\[(\d+)\]/.exec(path)?.[1] ?? 0);
    const rear = report.figures.rear_ports;
    const list = path.startsWith('enclosure.front') || !rear.length ? report.figures.ports : rear;
    const length = siAt(design, path) ?? list[index]?.length;
    if (!length) return [];
    const leftward = part.open !== 'left';
    return [
      {
        id: path,
        label: `Length of port ${index + 1}`,
        x: leftward ? part.at.x : part.at.x + part.at.width,
        y: part.at.y + part.at.height / 2,
        axis: 'x',
        said: millimetres(length),
        pull: (metres) => written(design, path, length + (leftward ? -metres : metres)),
      },
    ];
  });
}

/** Driver and braces, moved along the sheet. */
function placed(design: RawDesign, body: Subject['body'], scene: Scene): Handle[] {
  if (!body) return [];
  const room = scene.parts.find((part): part is Of<'walls'> & Part => part.kind === 'walls')?.inner[0];
  const driver = scene.parts.find((part): part is Of<'driver'> & Part => part.kind === 'driver');
  const built = body.parts.find(({ kind }) => kind === 'driver');
  const handles: Handle[] = [];
  if (driver && built?.face && driver.facing !== 'up' && driver.facing !== 'down') {
    const up = built.at[1] ?? 0;
    const begun = design.body?.driver
      ? design
      : withBody(design, { driver: { face: built.face as RawFace } });
    handles.push({
      id: 'driver-up',
      label: 'Height of the driver',
      x: driver.x + (driver.facing === 'right' ? 0.02 : -0.02),
      y: driver.y,
      axis: 'y',
      said: millimetres(up),
      pull: (metres) => written(begun, 'body.driver.up', up + metres),
    });
  }
  for (const [index, brace] of (design.body?.braces ?? []).entries()) {
    if (!room || brace.along === 'width') continue;
    const level = brace.along === 'height';
    const long = body.inside[level ? 1 : 2] ?? 0;
    const at = siAt(design, `body.braces[${index}].at`) ?? long / 2;
    handles.push({
      id: `brace-${index}`,
      label: `Place of brace ${index + 1}`,
      x: room.x + (level ? 0.04 : at),
      y: room.y + (level ? at : 0.04),
      axis: level ? 'y' : 'x',
      said: millimetres(at),
      pull: (metres) => written(design, `body.braces[${index}].at`, at + metres),
    });
  }
  return handles;
}

/** The boards of a fold, moved across the channels they part. */
function folded(design: RawDesign, body: Subject['body'], scene: Scene): Handle[] {
  const fold = body?.fold;
  if (!fold) return [];
  const upright = design.body?.fold?.stack === 'upright';
  const slabs = scene.parts.filter((part): part is Of<'slab'> & Part => part.kind === 'slab');
  return slabs.flatMap((slab): Handle[] => {
    const middle = slab.panel === null ? undefined : fold.panels[slab.panel]?.middle;
    if (slab.panel === null || middle === undefined) return [];
    const number = slab.panel;
    const [x, y] = [0, 1].map((k) => {
      const all = slab.points.map((point) => point[k] ?? 0);
      return all.reduce((sum, one) => sum + one, 0) / all.length;
    });
    return [
      {
        id: `fold-${number}`,
        label: `Place of fold board ${number + 1}`,
        x: x ?? 0,
        y: y ?? 0,
        axis: upright ? 'x' : 'y',
        said: millimetres(middle),
        // Measured from the top or the front, so down and backwards.
        pull: (metres) => {
          const panels = [...(design.body?.fold?.panels ?? [])];
          while (panels.length <= number) panels.push({});
          const begun = withFold(design, { panels });
          return written(begun, `body.fold.panels[${number}].at`, middle - metres);
        },
      },
    ];
  });
}

/** A box keeps its proportions, so its height says all. */
function box({ design, report }: Subject, scene: Scene): Handle[] {
  if (scene.parts.some(({ kind }) => kind === 'slab')) return [];
  const walls = scene.parts.find((part): part is Of<'walls'> & Part => part.kind === 'walls');
  const [volume] = report.as_built.volumes;
  if (
    walls?.target?.path !== 'enclosure.volume' ||
    !volume ||
    scene.parts.some(({ kind }) => kind === 'air')
  ) {
    return [];
  }
  const { x, y, width, height } = walls.outer;
  return [
    {
      id: 'volume',
      label: 'Volume of the box',
      x: x + width / 2,
      y: y + height,
      axis: 'y',
      said: `${(volume * 1e3).toFixed(1)} l`,
      pull: (metres) => written(design, 'enclosure.volume', volume * ((height + metres) / height) ** 3),
    },
  ];
}

/** Between two chambers: what one gains the other loses. */
function partition({ design, report }: Subject, scene: Scene): Handle[] {
  const front = scene.parts.find((part): part is Of<'air'> & Part => part.kind === 'air');
  const [rear, before] = report.as_built.volumes;
  if (!front || !rear || !before || front.target?.path !== 'enclosure.front.volume') return [];
  const across = before / front.at.width;
  return [
    {
      id: 'partition',
      label: 'Partition between the chambers',
      x: front.at.x - 0.009,
      y: front.at.y + front.at.height * 0.94,
      axis: 'x',
      said: `${(rear * 1e3).toFixed(1)} l behind, ${(before * 1e3).toFixed(1)} l before`,
      pull: (metres) => {
        const moved = written(design, 'enclosure.volume', rear + metres * across);
        return moved && written(moved, 'enclosure.front.volume', before - metres * across);
      },
    },
  ];
}

function ways(design: RawDesign, scene: Scene): Handle[] {
  const all = scene.parts.filter((part): part is Of<'way'> & Part => part.kind === 'way');
  return all.flatMap((part, at): Handle[] => {
    const path = `enclosure.passage.segments[${at}]`;
    const [x = 0, half = 0] = part.edge.at(-1) ?? [];
    const length = siAt(design, `${path}.length`);
    const end = siAt(design, `${path}.end`);
    const name = all.length > 1 ? ` of path ${at + 1}` : ' of the path';
    const handles: Handle[] = [];
    if (length) {
      handles.push({
        id: `${path}.length`,
        label: `Length${name}`,
        x,
        y: 0,
        axis: 'x',
        said: `${length.toFixed(3)} m`,
        pull: (metres) => written(design, `${path}.length`, length + metres),
      });
    }
    if (end) {
      const radius = Math.sqrt(end / Math.PI);
      handles.push({
        id: `${path}.end`,
        label: `Area at the end${name}`,
        x,
        y: half,
        axis: 'y',
        said: `${(end * 1e4).toFixed(0)} cm²`,
        pull: (metres) => written(design, `${path}.end`, Math.PI * Math.max(0, radius + metres) ** 2),
      });
    }
    return handles;
  });
}

function baffle(design: RawDesign, scene: Scene): Handle[] {
  const panel = scene.parts.find((part): part is Of<'board'> & Part => part.kind === 'board');
  const round = siAt(design, 'enclosure.baffle_path');
  if (!panel || !round || panel.target?.path !== 'enclosure.baffle_path') return [];
  return [
    {
      id: 'baffle',
      label: 'Edge of the baffle',
      x: panel.at.x + panel.at.width / 2,
      y: panel.at.y + panel.at.height,
      axis: 'y',
      said: `${round.toFixed(2)} m round`,
      pull: (metres) => written(design, 'enclosure.baffle_path', round + 2 * metres),
    },
  ];
}
