// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest';
import { asRead, inches, inWords, preferences, rememberUnit, unitOf } from './preferences';
import { fieldAt, unitNamed } from './units';

const depth = fieldAt('brief.depth');
const volume = fieldAt('enclosure.volume');

beforeEach(() => preferences.reset());

describe('units of a person', () => {
  it('show what was typed until another is chosen', () => {
    expect(asRead('44 l', volume)).toBe('44 l');
    preferences.set({ units: { volume: 'cuft' } });
    expect(asRead('44 l', volume)).toBe('1.554 cuft');
    expect(unitOf(volume, '44 l')?.symbol).toBe('cuft');
    expect(asRead('1.5 cuft', volume)).toBe('1.5 cuft');
  });

  it('write inches as a rule has them, to the nearest 32nd', () => {
    expect(inches(11.338)).toBe('11 11/32');
    expect(inches(11.3125)).toBe('11 5/16');
    expect(inches(0.5)).toBe('1/2');
    expect(inches(3)).toBe('3');
    expect(inches(1 / 32)).toBe('1/32');
    expect(inches(0)).toBe('0');
    expect(inches(3.999)).toBe('4');
    preferences.set({ units: { length: 'in' } });
    // Common practice: 288 mm is 11 11/32 in, rounded up to the next 32nd.
    expect(asRead('288 mm', depth)).toBe('11 11/32 in');
  });

  it('are chosen for one field by typing', () => {
    preferences.set({ units: { length: 'mm' } });
    rememberUnit(depth, unitNamed('in') ?? null);
    expect(asRead('254 mm', depth)).toBe('10 in');
    expect(asRead('254 mm', fieldAt('brief.width'))).toBe('254 mm');
    rememberUnit(depth, unitNamed('mm') ?? null);
    expect(asRead('254 mm', depth)).toBe('254 mm');
  });

  it('reach the words too, and leave speeds and compliances alone', () => {
    preferences.set({ units: { length: 'in', volume: 'cuft' } });
    expect(inWords('448 mm, 14.2 l to spare, 17 m/s, 0.5 mm/N')).toBe(
      '17 5/8 in, 0.501 cuft to spare, 17 m/s, 0.5 mm/N',
    );
    preferences.set({ units: { length: 'in', area: 'in2' } });
    expect(inWords('70 cm², now 25.8 cm2, 12 cm')).toBe('10.9 in², now 4 in², 4 23/32 in');
    // A bolt is called by its thread, whatever its length is read in.
    expect(inWords('8 bolts M6 × 50.8 mm')).toBe('8 bolts M6 × 2 in');
    preferences.reset();
    expect(inWords('448 mm')).toBe('448 mm');
  });

  it('reach every size of several, and what is said in large units', () => {
    preferences.set({ units: { length: 'in', mass: 'oz' } });
    expect(inWords('610 × 508 × 254 mm')).toBe('24 1/32 × 20 × 10 in');
    // A value and its error are one quantity.
    expect(inWords('acts as one of 508 ± 25.4 mm, at 24.0 ± 0.1 Hz')).toBe(
      'acts as one of 20 ± 1 in, at 24.0 ± 0.1 Hz',
    );
    expect(inWords('The path comes out 2.34 m long, 96 dB at 1 m, 90 dB at 2 m')).toBe(
      'The path comes out 7.68 ft long, 96 dB at 1 m, 90 dB at 6.56 ft',
    );
    expect(inWords('28.4 kg with its driver, 120 g more')).toBe('62.6 lb with its driver, 4.23 oz more');
    preferences.set({ units: { length: 'cm', mass: 'g' } });
    expect(inWords('2.34 m, 28.4 kg, 610 mm')).toBe('2.34 m, 28.4 kg, 61 cm');
  });
});
