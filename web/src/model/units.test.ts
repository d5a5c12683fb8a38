import { describe, expect, it } from 'vitest';
import vectors from '../../../core/units/tests/vectors.json';
import { fieldAt, parseQuantity, readField, readTyped, significant, unitNamed, writeTyped } from './units';

describe('quantities are read as the core reads them', () => {
  it.each(vectors)('$text', (vector) => {
    const reading = parseQuantity(vector.text, vector.dimension);
    const expected = vector.si;
    if (expected === null) {
      expect(reading.ok).toBe(false);
    } else {
      expect(reading.ok && reading.value.si).toBeCloseTo(expected, 12);
    }
  });
});

describe('what a person types into a field', () => {
  const volume = fieldAt('enclosure.volume');
  const diameter = fieldAt('enclosure.ports[2].diameter');

  it('takes a bare number in the unit that is shown', () => {
    const cuft = unitNamed('cuft') ?? null;
    const reading = readField('1.5', volume, cuft);
    expect(reading.ok && reading.value.si).toBeCloseTo(0.042475, 5);
  });

  it('names value and range where it is outside', () => {
    const reading = readField('0 l', volume, null);
    expect(!reading.ok && reading.reason).toContain('0 l is outside 0.1 l to 10000 l');
  });

  it('refuses NaN, words and units of something else', () => {
    for (const text of ['NaN', 'wide', '10 Hz', '', '-5 mm', '1e9 m']) {
      expect(readField(text, diameter, null).ok, text).toBe(false);
    }
  });
});

describe('values are written', () => {
  it('with significant digits and whole digits kept', () => {
    expect(significant(0.0123456, 3)).toBe('0.0123');
    expect(significant(12345, 3)).toBe('12345');
    expect(significant(40, 3)).toBe('40');
    expect(significant(0, 3)).toBe('0');
  });

  it('so that they are read back the same', () => {
    for (const [si, path] of [
      [0.044, 'enclosure.volume'],
      [29.5, 'enclosure.tuning'],
      [7, 'enclosure.ql'],
    ] as const) {
      const field = fieldAt(path);
      const typed = writeTyped(si, unitNamed(field.unit) ?? null);
      expect(readTyped(typed, field.dimension)?.si).toBeCloseTo(si, 9);
    }
  });
});
