// How a variant is told apart everywhere: shape, dash and colour together.

export type Glyph = 'disc' | 'triangle' | 'square' | 'lozenge';

export interface Mark {
  /** Name of the colour's custom property, `--oak`. */
  colour: string;
  glyph: Glyph;
  hollow: boolean;
  /** Line and gap lengths, px. */
  dash: number[];
}

const BASE: [string, Glyph, number[]][] = [
  ['--oak', 'disc', []],
  ['--river', 'triangle', [7, 4]],
  ['--moss', 'square', [2, 3]],
  ['--plum', 'lozenge', [9, 3, 2, 3]],
];

/** Eight marks: the four of the palette, then the same four hollow and with longer dashes. */
export const MARKS: Mark[] = [false, true].flatMap((hollow) =>
  BASE.map(([colour, glyph, dash]) => ({
    colour,
    glyph,
    hollow,
    dash: hollow ? (dash.length ? dash.map((length) => length * 2) : [16, 3]) : dash,
  })),
);

/** The mark of the variant at a place in its build. */
export function markAt(place: number): Mark {
  return MARKS[place % MARKS.length] as Mark;
}

/** Outline of a glyph in a square from -1 to 1, as SVG path data. */
export const OUTLINE: Record<Glyph, string> = {
  disc: 'M-1 0A1 1 0 1 0 1 0A1 1 0 1 0-1 0Z',
  triangle: 'M0-1.05L1.1 0.95H-1.1Z',
  square: 'M-0.9-0.9H0.9V0.9H-0.9Z',
  lozenge: 'M0-1.25L1.1 0L0 1.25L-1.1 0Z',
};
