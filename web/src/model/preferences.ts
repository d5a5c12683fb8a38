// In which units a person likes to read what is written in any.

import type { Typed } from '../schema/types';
import { restorePath } from './restore';
import { Stored } from './stored';
import {
  type Field,
  readTyped,
  shown,
  significant,
  type Unit,
  unitsOf,
  usualUnit,
  writeTyped,
} from './units';

export interface Preferences {
  /** Symbol of the unit for each dimension; what is missing is read as it was typed. */
  units: Readonly<Record<string, string>>;
  /** The same for single fields, by path; typing a value in another unit sets it. */
  fields: Readonly<Record<string, string>>;
  /** Whether frequencies carry the name of the nearest note. */
  notes: boolean;
}

export const preferences = new Stored<Preferences>(
  'oak-drum:units',
  { units: {}, fields: {}, notes: false },
  (state) => ({
    ...state,
    fields: Object.fromEntries(Object.entries(state.fields).map(([path, unit]) => [restorePath(path), unit])),
  }),
);

/** Dimensions that people read in different units. */
export const CHOICES: { dimension: string; name: string; units: string[] }[] = [
  { dimension: 'length', name: 'Lengths', units: ['mm', 'cm', 'm', 'in'] },
  { dimension: 'volume', name: 'Volumes', units: ['l', 'cuft'] },
  { dimension: 'area', name: 'Areas', units: ['cm2', 'mm2', 'in2'] },
  { dimension: 'mass', name: 'Masses', units: ['g', 'kg', 'oz'] },
];

/** The unit in which a person reads a field; null where it is read as typed. */
export function preferredUnit(field: Field): Unit | null {
  const { units, fields } = preferences.snapshot();
  const symbol = fields[field.path] ?? units[field.dimension];
  return unitsOf(field.dimension).find((unit) => unit.symbol === symbol) ?? null;
}

/** A person typed a unit into a field, so that is the one to read it in. */
export function rememberUnit(field: Field, unit: Unit | null): void {
  const { units, fields } = preferences.snapshot();
  const shown = fields[field.path] ?? units[field.dimension];
  if (!shown || !unit || unit.symbol === shown) return;
  preferences.set({ fields: { ...fields, [field.path]: unit.symbol } });
}

const PARTS = 32;

/** Inches as a rule has them: to the nearest 32nd. */
export function inches(value: number): string {
  const parts = Math.round(Math.abs(value) * PARTS);
  const sign = value < 0 ? '-' : '';
  const whole = Math.floor(parts / PARTS);
  let [top, bottom] = [parts % PARTS, PARTS];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  if (!top) return `${sign}${whole}`;
  return `${sign}${whole ? `${whole} ` : ''}${top}/${bottom}`;
}

/** An SI value in a unit, as a person reads it. */
export function measure(si: number, unit: Unit | null, digits = 4): string {
  if (!unit) return significant(si, digits);
  if (unit.symbol === 'in') return `${inches(si / unit.factor)} in`;
  return String(writeTyped(si, unit, digits));
}

/** What is written in a field as a person reads it. */
export function asRead(typed: Typed, field: Field): Typed {
  const unit = preferredUnit(field);
  const quantity = unit && readTyped(typed, field.dimension);
  return quantity && quantity.unit !== unit ? measure(quantity.si, unit) : typed;
}

/** Quantities in words, the 6 of an M6 bolt left alone; of several sizes one after the other, or a value with its error, only the last has its unit. */
const SPOKEN =
  /(at )?(?<![\w.,])(\d+(?:[.,]\d+)?(?: [×±] \d+(?:[.,]\d+)?)*)(\s?)(mm[²2]|cm[²2]|mm|cm|m|l|g|kg)(?![\w/²³·])/g;
const SPOKEN_OF: Record<string, string> = {
  mm2: 'area',
  cm2: 'area',
  mm: 'length',
  cm: 'length',
  m: 'length',
  l: 'volume',
  g: 'mass',
  kg: 'mass',
};
/** What is said in large units stays in large ones. */
const LARGE: Record<string, Record<string, string>> = {
  m: { in: 'ft' },
  kg: { oz: 'lb', lb: 'lb' },
};

/** Words with the quantities in them as a person reads them. */
export function inWords(text: string): string {
  const { units } = preferences.snapshot();
  return text.replace(SPOKEN, (all, at: string | undefined, numbers: string, _, spelt: string) => {
    const symbol = spelt.replace('²', '2');
    // A level is told at 1 m whatever else is measured in.
    if (at && numbers === '1' && symbol === 'm') return all;
    const dimension = SPOKEN_OF[symbol] ?? '';
    const chosen = units[dimension] ?? '';
    const named = LARGE[symbol] ? LARGE[symbol][chosen] : chosen;
    const wanted = unitsOf(dimension).find((unit) => unit.symbol === named);
    const written = unitsOf(dimension).find((unit) => unit.symbol === symbol);
    if (!wanted || !written || wanted === written) return all;
    const each = numbers
      .split(/( [×±] )/)
      .map((part) =>
        / [×±] /.test(part) ? part : measure(Number(part.replace(',', '.')) * written.factor, wanted, 3),
      );
    const ending = ` ${wanted.symbol}`;
    return (at ?? '') + each.map((one) => one.replace(ending, '')).join('') + shown(ending);
  });
}

/** The unit a field is read and typed in: preferred, else as typed, else the usual one. */
export function unitOf(field: Field, typed: Typed | null): Unit | null {
  return preferredUnit(field) ?? readTyped(typed, field.dimension)?.unit ?? usualUnit(field);
}
