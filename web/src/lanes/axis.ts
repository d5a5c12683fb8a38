// The one frequency axis.

/** Position of a frequency on a logarithmic axis, 0 to 1. */
export function fraction(frequency: number, from: number, to: number): number {
  return Math.log(frequency / from) / Math.log(to / from);
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

const NAMES = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'];

/** Name of the nearest note, equal temperament with A4 at 440 Hz (ISO 16). */
export function noteAt(frequency: number): string {
  const semitones = Math.round(12 * Math.log2(frequency / 440)) + 57;
  return `${NAMES[((semitones % 12) + 12) % 12]}${Math.floor(semitones / 12)}`;
}

export interface Landmark {
  frequency: number;
  label: string;
  meaning: string;
}

/** Lowest notes that builders aim at: equal temperament, A4 at 440 Hz. */
export const LANDMARKS: Landmark[] = [
  { frequency: 16.35, label: 'C0', meaning: 'lowest C of a 32-foot organ stop' },
  { frequency: 30.87, label: 'B0', meaning: 'low B of a five-string bass' },
  { frequency: 41.2, label: 'E1', meaning: 'low E of a bass' },
  { frequency: 55, label: 'A1', meaning: 'A string of a bass' },
  { frequency: 82.41, label: 'E2', meaning: 'low E of a guitar' },
  { frequency: 130.81, label: 'C3', meaning: 'C below middle C' },
  { frequency: 261.63, label: 'C4', meaning: 'middle C' },
];

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

/** The next larger number of 1, 1.5, 2, 3, 4, 5, 6, 8 times a power of ten. */
export function roundUp(value: number): number {
  if (!(value > 0)) return 1;
  const decade = 10 ** Math.floor(Math.log10(value));
  const lead = [1, 1.5, 2, 3, 4, 5, 6, 8, 10].find((step) => step >= (value / decade) * 0.9999) ?? 10;
  return lead * decade;
}
