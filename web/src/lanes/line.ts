// What a plot draws: lines and the area around one.

import type { Mark } from '../model/mark';

/** Width left of every plot for the numbers of its axis, px. */
export const GUTTER = 40;
export const PADDING = 7;

export interface Line {
  place: number;
  mark: Mark;
  strong: boolean;
  /** Belongs to the active variant beside its main line; drawn thin and without marks. */
  secondary: boolean;
  /** Measured instead of computed; drawn in ink. */
  measured?: boolean;
  /** Hz, rising. */
  frequency: readonly number[];
  values: readonly (number | null)[];
}

/** Dash of what stands beside a variant's main line, px. */
const BESIDE: readonly number[] = [3, 3];

/** How a line is drawn: the name of its colour, its width and dash, px. */
export function strokeOf({ mark, strong, secondary, measured }: Omit<Line, 'frequency' | 'values'>): {
  colour: string;
  width: number;
  dash: readonly number[];
} {
  if (measured) return { colour: '--ink', width: 1.5, dash: [] };
  if (secondary) return { colour: mark.colour, width: 1, dash: BESIDE };
  return { colour: mark.colour, width: strong ? 2.2 : 1.6, dash: mark.dash };
}

/** An area around the first line that its real value may lie in. */
export interface Band {
  frequency: readonly number[];
  low: readonly number[];
  high: readonly number[];
}
