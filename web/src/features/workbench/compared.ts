// Figures of variants beside each other, and which of them does best in each.

import { inWords } from '../../model/preferences';
import { hertz, significant } from '../../model/units';
import type { Report } from '../../schema/types';

interface Figure {
  name: string;
  of: (report: Report) => number | null | undefined;
  write: (value: number) => string;
  /** Which way is better, with its word; absent where neither is by itself. */
  better?: ['low' | 'high', string];
}

const millimetres = (metres: number) => inWords(`${significant(metres * 1e3, 3)} mm`);
const decibels = (level: number) => `${level.toFixed(1)} dB`;

export const FIGURES: readonly Figure[] = [
  { name: 'F3', of: ({ figures }) => figures.f3, write: hertz, better: ['low', 'lower'] },
  { name: 'F10', of: ({ figures }) => figures.f10, write: hertz, better: ['low', 'lower'] },
  { name: 'Fb or Fc', of: ({ figures }) => figures.fb ?? figures.fc, write: hertz },
  { name: 'Qtc', of: ({ figures }) => figures.qtc, write: (value) => significant(value, 3) },
  { name: 'SPL', of: ({ figures }) => figures.reference_level, write: decibels, better: ['high', 'louder'] },
  {
    name: 'Peak',
    of: ({ figures }) => figures.level_peak.value - figures.reference_level,
    write: decibels,
    better: ['low', 'more even'],
  },
  {
    name: 'Cone travel from F3 up',
    of: ({ figures }) => figures.excursion_in_band?.value,
    write: millimetres,
    better: ['low', 'less'],
  },
  {
    name: 'Air speed',
    of: ({ figures }) => figures.air_speed?.value,
    write: (value) => `${significant(value, 3)} m/s`,
    better: ['low', 'slower'],
  },
  {
    name: 'Port length',
    of: ({ figures }) => figures.ports[0]?.length,
    write: millimetres,
    better: ['low', 'shorter'],
  },
  {
    name: 'Pipe resonance',
    of: ({ figures }) => figures.ports[0]?.pipe_resonance,
    write: hertz,
    better: ['high', 'farther out of the way'],
  },
  {
    name: 'Group delay',
    of: ({ figures }) => figures.group_delay.value * 1e3,
    write: (value) => `${significant(value, 3)} ms`,
    better: ['low', 'less'],
  },
  {
    name: 'Lowest impedance',
    of: ({ figures }) => figures.impedance_minimum.value,
    write: (value) => `${significant(value, 3)} Ω`,
    better: ['high', 'easier to drive'],
  },
  {
    name: 'Efficiency, highest',
    of: ({ figures }) => figures.efficiency.value * 100,
    write: (value) => `${significant(value, 2)} %`,
    better: ['high', 'more'],
  },
  {
    name: 'Air in the box',
    of: ({ as_built }) => as_built.volumes.reduce<number>((sum, one) => sum + (one ?? 0), 0) || null,
    write: (volume) => inWords(`${(volume * 1e3).toFixed(1)} l`),
    better: ['low', 'smaller'],
  },
];

export interface ComparedRow {
  name: string;
  values: string[];
  /** Which one is best, by its place; null where none is, or they are alike. */
  best: number | null;
  /** By how much, in words. */
  verdict: string;
}

/** What differs by less is alike. */
const ALIKE = 0.01;

/** Every figure in which variants differ; a report may be still to come. */
export function compared(reports: readonly (Report | undefined)[], names: readonly string[]): ComparedRow[] {
  return FIGURES.map((figure): ComparedRow => {
    const numbers = reports.map((report) => report && figure.of(report));
    const values = numbers.map((value, at) =>
      reports[at] === undefined ? '…' : value == null ? '–' : figure.write(value),
    );
    const row = { name: figure.name, values, best: null, verdict: '' };
    const { better } = figure;
    const known = numbers.flatMap((value, at) => (value == null ? [] : [{ value, at }]));
    if (!better || known.length < 2) return row;
    const [way, word] = better;
    const [first, second] = known.toSorted((a, b) => (way === 'low' ? a.value - b.value : b.value - a.value));
    if (!first || !second) return row;
    const by = Math.abs(first.value - second.value);
    if (by < ALIKE * Math.max(Math.abs(first.value), Math.abs(second.value)))
      return { ...row, verdict: 'alike' };
    return { ...row, best: first.at, verdict: `${names[first.at]}: ${word} by ${figure.write(by)}` };
  }).filter(({ values }) => new Set(values).size > 1);
}
