// From a drawing in metres to the screen.

import type { DrawingReport } from '../../schema/types';

export interface Fit {
  x: (metres: number) => number;
  y: (metres: number) => number;
  /** Pixels for a metre. */
  scale: number;
  /** Left and lower edge of what is drawn. */
  left: number;
  bottom: number;
}

/** How far the first row of measures stands from the drawing, and each next one from that, px. */
export const GAP = 16;
export const ROW = 22;

const MARGIN = { right: 20, top: 14, words: 18 };

/** Room for the rows of measures beside or below, px. */
function besides({ measures }: DrawingReport, upright: boolean): number {
  const rows = measures.filter((measure) => measure.upright === upright).map(({ row }) => row + 1);
  return GAP + ROW * (Math.max(1, ...rows) - 1) + MARGIN.words;
}

/** The drawing as large as its place allows, in the middle of it. */
export function scaled(drawing: DrawingReport, width: number, height: number): Fit {
  const { extent } = drawing;
  const margin = { ...MARGIN, left: besides(drawing, true), bottom: besides(drawing, false) };
  const [[x0 = 0, y0 = 0] = [], [x1 = 1, y1 = 1] = []] = extent;
  const across = Math.max(60, width - margin.left - margin.right);
  const down = Math.max(60, height - margin.top - margin.bottom);
  const scale = Math.min(across / (x1 - x0), down / (y1 - y0));
  const left = margin.left + (across - (x1 - x0) * scale) / 2;
  const top = margin.top + (down - (y1 - y0) * scale) / 2;
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

/** What a drawing names that is no part: nothing opens beside it. */
const SPACES = ['chamber', 'front chamber', 'unused space'];

/** Strokes and rings of one part after the other, in the order of drawing. */
export function grouped({ strokes, rings }: DrawingReport): PartShapes[] {
  const groups: PartShapes[] = [];
  const group = (part: string): PartShapes => {
    const last = groups.at(-1);
    if (last?.part === part) return last;
    const opens = !SPACES.includes(part);
    const made: PartShapes = { part, opens, strokes: [], rings: [] };
    groups.push(made);
    return made;
  };
  for (const stroke of strokes) group(stroke.part).strokes.push(stroke);
  for (const ring of rings) group(ring.part).rings.push(ring);
  return groups;
}

/** Which values a part leads to. */
export function tabOf(part: string): 'sizes' | 'air' | 'waves' | 'panels' {
  const moves = ['port', 'front port', 'driver', 'radiator', 'fold board', 'closing board', 'mouth', 'way'];
  if (moves.some((name) => part.startsWith(name))) return 'air';
  if (part.startsWith('fill')) return 'waves';
  if (part.startsWith('brace')) return 'panels';
  return 'sizes';
}
