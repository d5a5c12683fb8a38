// From a drawing in metres to the screen.

import type { DrawingReport } from '../../api/types';

export interface Fit {
  x: (metres: number) => number;
  y: (metres: number) => number;
  /** Pixels for a metre. */
  scale: number;
  /** Left and lower edge of what is drawn. */
  left: number;
  bottom: number;
}

const MARGIN = { left: 66, right: 20, top: 14, bottom: 62 };

/** The drawing as large as its place allows, in the middle of it. */
export function scaled({ extent }: DrawingReport, width: number, height: number): Fit {
  const [[x0 = 0, y0 = 0] = [], [x1 = 1, y1 = 1] = []] = extent;
  const across = Math.max(60, width - MARGIN.left - MARGIN.right);
  const down = Math.max(60, height - MARGIN.top - MARGIN.bottom);
  const scale = Math.min(across / (x1 - x0), down / (y1 - y0));
  const left = MARGIN.left + (across - (x1 - x0) * scale) / 2;
  const top = MARGIN.top + (down - (y1 - y0) * scale) / 2;
  return {
    scale,
    left,
    bottom: top + (y1 - y0) * scale,
    x: (metres) => left + (metres - x0) * scale,
    y: (metres) => top + (y1 - metres) * scale,
  };
}

export interface PartShapes {
  part: string;
  /** Whether choosing it leads anywhere. */
  opens: boolean;
  strokes: DrawingReport['strokes'];
  rings: DrawingReport['rings'];
}

/** Strokes and rings of one part after the other, in the order of drawing. */
export function grouped({ strokes, rings }: DrawingReport): PartShapes[] {
  const groups: PartShapes[] = [];
  const group = (part: string): PartShapes => {
    const last = groups.at(-1);
    if (last?.part === part) return last;
    const opens = part !== 'room' && part !== 'front room';
    const made: PartShapes = { part, opens, strokes: [], rings: [] };
    groups.push(made);
    return made;
  };
  for (const stroke of strokes) group(stroke.part).strokes.push(stroke);
  for (const ring of rings) group(ring.part).rings.push(ring);
  return groups;
}

/** Which values a part leads to. */
export function tabOf(part: string): 'sizes' | 'air' | 'waves' | 'boards' {
  const moves = ['port', 'front port', 'driver', 'radiator', 'fold board', 'closing board', 'mouth', 'way'];
  if (moves.some((name) => part.startsWith(name))) return 'air';
  if (part.startsWith('fill')) return 'waves';
  if (part.startsWith('brace')) return 'boards';
  return 'sizes';
}
