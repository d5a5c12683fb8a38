// The one frequency axis.

import { logarithmic } from '../model/scale';

/** Position of a frequency on a logarithmic axis, 0 to 1. */
export function fraction(frequency: number, from: number, to: number): number {
  return logarithmic([from, to], [0, 1])(frequency);
}

/** Frequency at a position, 0 to 1. */
export function frequencyAt(position: number, from: number, to: number): number {
  return from * (to / from) ** position;
}

/** Index of the point nearest to a frequency, the points being spaced evenly in octaves. */
export function nearest(frequencies: readonly number[], frequency: number): number {
  const last = frequencies.length - 1;
  const [from, to] = [frequencies[0] ?? 1, frequencies[last] ?? 2];
  return Math.min(last, Math.max(0, Math.round(fraction(frequency, from, to) * last)));
}

export interface Landmark {
  frequency: number;
  label: string;
  meaning: string;
  /** On which side of its tick the label stands; neighbours stand apart. */
  anchor: 'start' | 'middle' | 'end';
}

/** Lowest notes that builders aim at: equal temperament, A4 at 440 Hz. */
export const LANDMARKS: Landmark[] = [
  { frequency: 16.35, label: 'C0', meaning: 'lowest C of a 32-foot organ stop', anchor: 'middle' },
  { frequency: 30.87, label: 'B0', meaning: 'low B of a five-string bass', anchor: 'end' },
  { frequency: 32.7, label: 'C1', meaning: 'lowest pedal C of an organ, 16-foot', anchor: 'start' },
  { frequency: 41.2, label: 'E1', meaning: 'low E of a four-string bass', anchor: 'start' },
  { frequency: 82.41, label: 'E2', meaning: 'low E of a guitar', anchor: 'middle' },
  { frequency: 130.81, label: 'C3', meaning: 'C below middle C', anchor: 'middle' },
  { frequency: 261.63, label: 'C4', meaning: 'middle C', anchor: 'middle' },
];

/** Where the effects channel of films plays, Hz (common practice). */
export const FILM = { from: 20, to: 120, label: 'film effects' };

/** Ticks of a logarithmic rule: every whole lead digit, the larger ones with a name. */
export function ticks(from: number, to: number): { frequency: number; named: boolean }[] {
  const all = [];
  for (let decade = 10 ** Math.floor(Math.log10(from)); decade <= to; decade *= 10) {
    for (let tenth = 10; tenth < 100; tenth += tenth < 30 ? 1 : tenth < 60 ? 2 : 5) {
      const frequency = (decade * tenth) / 10;
      if (frequency >= from * 0.9999 && frequency <= to * 1.0001) {
        all.push({ frequency, named: [10, 15, 20, 30, 50, 70].includes(tenth) });
      }
    }
  }
  return all;
}
