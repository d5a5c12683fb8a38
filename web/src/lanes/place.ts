// Where values and frequencies of a lane stand on the screen, for what is laid over it.

export interface LanePlace {
  /** The lane. */
  lane: string;
  /** Lowest and highest frequency on show, Hz. */
  span: readonly [number, number];
  width: number;
  height: number;
  /** px of a frequency from the left, and back. */
  x: (frequency: number) => number;
  frequency: (x: number) => number;
  /** px of a value from the top. */
  y: (value: number) => number;
  /** px of one unit of the value. */
  perUnit: number;
  /** The active variant's value at a frequency, Hz. */
  at: (frequency: number) => number | null;
}
