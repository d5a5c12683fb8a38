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
  /** Hz, rising. */
  frequency: readonly number[];
  values: readonly (number | null)[];
}

/** An area around the first line that its real value may lie in. */
export interface Band {
  frequency: readonly number[];
  low: readonly number[];
  high: readonly number[];
}
