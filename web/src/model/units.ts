// Quantities as typed, read and written as the core reads and writes them: the tables are generated from
// it, and both sides are tested with the same vectors.

import type { Typed } from '../schema/types';
import tables from './quantities.json' with { type: 'json' };

export interface Unit {
  dimension: string;
  symbol: string;
  aliases: string[];
  factor: number;
}

export interface Field {
  path: string;
  symbol: string;
  dimension: string;
  unit: string;
  min: number;
  max: number;
}

export interface Quantity {
  si: number;
  unit: Unit | null;
}

export type Reading = { ok: true; value: Quantity } | { ok: false; reason: string };

export const PLAIN = 'plain number';

const units: Unit[] = tables.units;
const fields = new Map<string, Field>(tables.fields.map((field) => [field.path, field]));

/** Both chambers hold the same values, and so do the stretches of a way and its stub. */
export function generic(path: string): string {
  return path
    .replace(/\[\d+\]/g, '')
    .replace('enclosure.front.', 'enclosure.')
    .replace('passage.stub.', 'passage.segments.');
}

/** Whether a quantity stands at a path. */
export function isField(path: string): boolean {
  return fields.has(generic(path));
}

/** The field at a path, whatever its list positions: `enclosure.ports[0].diameter`. */
export function fieldAt(path: string): Field {
  const field = fields.get(generic(path));
  if (!field) throw new Error(`no field ${path}`);
  return field;
}

export const allFields: readonly Field[] = tables.fields;

export const driverFields: Field[] = allFields.filter((field) => field.path.startsWith('driver.'));

export function unitsOf(dimension: string): Unit[] {
  return units.filter((unit) => unit.dimension === dimension);
}

/** An exact spelling wins over one that differs in case. */
export function unitNamed(name: string): Unit | undefined {
  const spelled = (unit: Unit) => [unit.symbol, ...unit.aliases];
  const lower = name.toLowerCase();
  return (
    units.find((unit) => spelled(unit).includes(name)) ??
    units.find((unit) => spelled(unit).some((spelling) => spelling.toLowerCase() === lower))
  );
}

export function usualUnit(field: Field): Unit | null {
  return unitsOf(field.dimension).find((unit) => unit.symbol === field.unit) ?? null;
}

/** `12`, `-3.5`, `0,9`, `1.2e-3`, `5/16`, `11 5/16`, `11-5/16`; a text where it is none. */
export function parseNumber(written: string): number | string {
  const text = written.trim().replaceAll('−', '-');
  const none = `"${written.trim()}" is not a number`;
  if (text === '') return 'nothing was written';
  if (text.includes('/')) return fraction(text) ?? none;
  const plain = text.replaceAll(',', '.');
  if (!/^[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?$/.test(plain)) return none;
  const ambiguous = /^[-+]?0*[1-9]\d*,\d{3}$/.test(text);
  if (ambiguous)
    return `the comma in "${text}" may mark thousands or decimals; write a point, or leave the comma out`;
  const value = Number(plain);
  return Number.isFinite(value) ? value : none;
}

function fraction(text: string): number | string | undefined {
  const parts = /^(-)?\s*(?:(\d+)[ -]\s*)?(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (!parts) return undefined;
  const [, sign, whole, top, bottom] = parts;
  if (Number(bottom) === 0) return `"${text}" divides by zero`;
  return (sign ? -1 : 1) * (Number(whole ?? 0) + Number(top) / Number(bottom));
}

/** Reads a quantity of a known dimension. A unit must be written wherever there is one. */
export function parseQuantity(written: string, dimension: string): Reading {
  const text = written.trim();
  const note = dimension === 'frequency' ? noteNamed(text) : null;
  if (note !== null) return { ok: true, value: { si: note, unit: unitNamed('Hz') ?? null } };
  const gauge = dimension === 'area' ? gaugeNamed(text) : null;
  if (gauge !== null) return { ok: true, value: { si: gauge, unit: unitNamed('mm2') ?? null } };
  const start = unitStart(text);
  const name = text.slice(start).trim();
  const number = parseNumber(text.slice(0, start).trimEnd());
  if (typeof number === 'string') {
    const reason = name && text.slice(0, start).trim() === '' ? `"${text}" is not a number` : number;
    return { ok: false, reason };
  }
  if (name === '') {
    if (dimension === PLAIN) return { ok: true, value: { si: number, unit: null } };
    return { ok: false, reason: `a unit is missing; write it with ${choices(dimension)}` };
  }
  const unit = unitNamed(name);
  if (unit?.dimension === dimension) return { ok: true, value: { si: number * unit.factor, unit } };
  const what = unit
    ? `"${name}" is a unit of ${unit.dimension}, not of ${dimension}`
    : `"${name}" is not a unit of ${dimension}`;
  return { ok: false, reason: `${what}; write it with ${choices(dimension)}` };
}

const STEPS: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

/** Hz of a note written as in `E1`, `Bb0`, `F#2`: equal temperament, A4 at 440 Hz. */
function noteNamed(text: string): number | null {
  const [, letter, bend, octave] = /^([A-Ga-g])([#♯b♭]?)(-1|\d)$/.exec(text) ?? [];
  if (!letter || octave === undefined) return null;
  const bent = bend === '' ? 0 : /[#♯]/.test(bend ?? '') ? 1 : -1;
  const semitones = 12 * Number(octave) + (STEPS[letter.toUpperCase()] ?? 0) + bent - 57;
  return 440 * 2 ** (semitones / 12);
}

/** m² of a wire gauge written as in `AWG 16` or `16 AWG` (ASTM B258). */
function gaugeNamed(text: string): number | null {
  const gauge = /^(?:awg\s*(\d{1,2})|(\d{1,2})\s*awg)$/i.exec(text);
  const number = Number(gauge?.[1] ?? gauge?.[2]);
  if (!gauge || number > 40) return null;
  return (Math.PI / 4) * (0.127e-3 * 92 ** ((36 - number) / 39)) ** 2;
}

function choices(dimension: string): string {
  const symbols = unitsOf(dimension).map((unit) => unit.symbol);
  if (symbols.length < 2) return symbols[0] ?? 'no unit';
  return `${symbols.slice(0, -1).join(', ')} or ${symbols.at(-1)}`;
}

/** Position at which the number ends and the unit begins. */
function unitStart(text: string): number {
  for (let at = 0; at < text.length; at += 1) {
    const character = text.charAt(at);
    const exponent =
      /[eE]/.test(character) && /\d/.test(text.charAt(at - 1)) && /[\d+-]/.test(text.charAt(at + 1));
    if (!exponent && !/[\d\s+\-−.,/]/.test(character)) return at;
  }
  return text.length;
}

/** Reads what a file holds. */
export function readTyped(typed: Typed | null | undefined, dimension: string): Quantity | null {
  if (typed === null || typed === undefined) return null;
  if (typeof typed === 'number') return dimension === PLAIN ? { si: typed, unit: null } : null;
  const reading = parseQuantity(typed, dimension);
  return reading.ok ? reading.value : null;
}

/** A number with so many significant digits, without exponent, whole digits never dropped. */
export function significant(value: number, digits: number): string {
  if (Math.abs(value) < Number.MIN_VALUE) return '0';
  const decimals = Math.min(12, Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(value)))));
  const text = value.toFixed(decimals);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

/** What is written into a file for an SI value in a unit. */
export function writeTyped(si: number, unit: Unit | null, digits = 4): Typed {
  return unit ? `${significant(si / unit.factor, digits)} ${unit.symbol}` : Number(significant(si, digits));
}

/** Reads what a person typed into a field; a bare number is taken in the unit the field shows. */
export function readField(written: string, field: Field, shown: Unit | null): Reading {
  const bare = parseNumber(written);
  const reading =
    typeof bare === 'number'
      ? ({ ok: true, value: { si: bare * (shown?.factor ?? 1), unit: shown } } as const)
      : parseQuantity(written, field.dimension);
  if (!reading.ok) return { ok: false, reason: `${reading.reason}; ${rangeOf(field)} is allowed` };
  const { si } = reading.value;
  const slack = 1e-9 * Math.abs(si);
  if (si < field.min - slack || si > field.max + slack) {
    return { ok: false, reason: `${written.trim()} is outside ${rangeOf(field)}` };
  }
  return reading;
}

export function rangeOf(field: Field): string {
  const unit = usualUnit(field);
  return `${writeTyped(field.min, unit)} to ${writeTyped(field.max, unit)}`;
}

const DISPLAY: Record<string, string> = {
  ohm: 'Ω',
  cm2: 'cm²',
  mm2: 'mm²',
  m2: 'm²',
  in2: 'in²',
  cm3: 'cm³',
  degC: '°C',
  uH: 'µH',
};

/** A file's spelling of a value or unit as people like to read it. */
export function shown(text: Typed): string {
  return String(text).replace(/(ohm|cm2|mm2|m2|in2|cm3|degC|uH)$/, (symbol) => DISPLAY[symbol] ?? symbol);
}

/** A frequency as it is read. */
export function hertz(value: number | null | undefined, digits = 3): string {
  return value ? `${significant(value, digits)} Hz` : '–';
}
