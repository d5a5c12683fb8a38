// What limits it along the frequency axis, laid out once for the screen, pictures and paper.

import { logarithmic } from '../model/scale';
import type { RibbonPiece } from '../schema/types';

const LOOKS: Record<string, { words: string; short: string; fill: string }> = {
  voltage: { words: 'amplifier voltage', short: 'volts', fill: '--ribbon-voltage' },
  current: { words: 'amplifier current', short: 'amps', fill: '--ribbon-current' },
  heat: { words: 'coil heat', short: 'heat', fill: '--ribbon-heat' },
  cone: { words: 'cone travel', short: 'cone', fill: '--ribbon-cone' },
  radiator: { words: 'radiator travel', short: 'radiator', fill: '--ribbon-radiator' },
  air: { words: 'air speed', short: 'air', fill: '--ribbon-air' },
  nothing: { words: 'no limit given', short: '–', fill: '--paper' },
};
/** Width of a letter, px. */
const LETTER = 6.6;

/** What a piece is called in full. */
export function limitName({ limit }: RibbonPiece): string {
  return LOOKS[limit]?.words ?? limit;
}

export interface LaidPiece {
  piece: RibbonPiece;
  left: number;
  right: number;
  /** Name of its colour. */
  fill: string;
  /** What there is room for in it; empty where there is none. */
  words: string;
}

/** The pieces that are on show, between two edges (px). */
export function layRibbon(
  pieces: readonly RibbonPiece[],
  [from, to]: readonly [number, number],
  edges: readonly [number, number],
): LaidPiece[] {
  const x = logarithmic([from, to], edges);
  return pieces
    .filter((piece) => piece.to > from && piece.from < to)
    .map((piece) => {
      const look = LOOKS[piece.limit];
      const [left, right] = [x(Math.max(from, piece.from)), x(Math.min(to, piece.to))];
      const room = right - left - 6;
      const words = [look?.words ?? '', look?.short ?? ''].find((text) => text.length * LETTER < room);
      return { piece, left, right, fill: look?.fill ?? '--paper', words: words ?? '' };
    });
}
