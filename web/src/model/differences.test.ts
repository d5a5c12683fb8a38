// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest';
import { sealed, slot } from '../testing/nook';
import { withValue } from './design';
import { differences, nameOf } from './differences';
import { preferences } from './preferences';

beforeEach(() => preferences.reset());

describe('where designs differ', () => {
  it('is nowhere in the same', () => {
    expect(differences([slot, structuredClone(slot), { ...slot }])).toEqual([]);
  });

  it('is told place by place, for any number of designs', () => {
    const larger = withValue(slot, 'enclosure.volume', '50 l');
    const wider = withValue(larger, 'enclosure.ports[0].width', '30 cm');
    expect(differences([slot, larger, wider])).toEqual([
      { place: 'enclosure.volume', values: ['44 l', '50 l', '50 l'] },
      { place: 'enclosure.ports.0.width', values: ['250 mm', '250 mm', '30 cm'] },
    ]);
  });

  it('names filters and parts by their place in the chain', () => {
    const chain = (frequency: string) =>
      ({ ...slot, signal: { filters: [{ kind: 'low_shelf', frequency, gain: '3 dB' }] } }) as typeof slot;
    const found = differences([slot, chain('40 Hz')]);
    expect(found.map(({ place }) => nameOf(place))).toEqual([
      'Filter 1: kind',
      'Filter 1: Frequency',
      'Filter 1: Gain',
    ]);
    expect(found[0]?.values).toEqual(['–', 'low shelf']);
    const [moved] = differences([chain('40 Hz'), chain('50 Hz')]);
    expect(moved?.values).toEqual(['40 Hz', '50 Hz']);
    expect(nameOf(moved?.place ?? '')).toBe('Filter 1: Frequency');
  });

  it('is told where only one has a thing at all', () => {
    const found = differences([slot, sealed]);
    const at = (place: string) => found.find((one) => one.place === place)?.values;
    expect(at('enclosure.family')).toEqual(['ported', 'sealed']);
    expect(at('enclosure.tuning')).toEqual(['29 Hz', '–']);
    expect(at('driver.fs')).toBeUndefined();
  });

  it('is written in the units of the reader and under names that people know', () => {
    preferences.set({ units: { volume: 'cuft' } });
    const larger = withValue(slot, 'enclosure.volume', '50 l');
    expect(differences([slot, larger])[0]?.values).toEqual(['1.554 cuft', '1.766 cuft']);
    expect(nameOf('enclosure.volume')).toBe('Vb');
    expect(nameOf('enclosure.front.volume')).toBe('Vb, front');
    expect(nameOf('enclosure.ports.0.width')).toBe('Width');
    expect(nameOf('enclosure.family')).toBe('Kind of cabinet');
    expect(nameOf('driver_array.isobaric.coils_in_series')).toBe('coils in series');
  });
});
