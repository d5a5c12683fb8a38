import { describe, expect, it } from 'vitest';
import { hertz } from '../../model/units';
import type { Check } from '../../schema/types';
import { report, sealedReport, withFigures } from '../../testing/report';
import { chips, strip } from './figures';

const chip = (id: string, of = report) => chips(of).find((one) => one.id === id);

describe('the strip of figures', () => {
  it('shows a ported box by tuning, port and air, a sealed one by resonance and Q', () => {
    expect(chips(report).map((one) => one.id)).toEqual(['f3', 'fb', 'port', 'air', 'cone', 'load', 'level']);
    expect(chips(sealedReport).map((one) => one.id)).toEqual(['f3', 'fc', 'qtc', 'cone', 'load', 'level']);
  });

  it('shows a line by its way, radiators by their travel, a horn by its passband', () => {
    const passage = { length: 2.75, volume: 0.105, start: 0.05, end: 0.03, cutoff: null, resonance: 24 };
    const line = withFigures({ passage, ports: [], fb: 24, fastest_opening: 'Mouth' });
    expect(chips(line).map((one) => one.id)).toEqual(['f3', 'fb', 'way', 'air', 'cone', 'load', 'level']);
    expect(chip('way', line)).toMatchObject({ figure: '2.75 m', words: 'holds 105 l' });
    expect(chip('air', line)?.name).toBe('Air in the mouth');
    const twin = withFigures({ radiator_travel: { value: 0.0082, frequency: 27 }, notch: 13, ports: [] });
    expect(chip('radiator', twin)?.figure).toBe('8.2 mm');
    expect(chip('fb', twin)?.words).toBe('notch at 13 Hz');
    const horn = {
      ...withFigures({
        reference: 'passband',
        f3_upper: 230,
        ripple: 1.9,
        fb: null,
        qtc: 0.6,
        efficiency: { value: 0.31, frequency: 90 },
      }),
      space: 'quarter',
    };
    expect(chip('f3', horn)).toMatchObject({ figure: '28.3 to 230 Hz', words: 'from A0, ripple 1.9 dB' });
    expect(chip('qtc', horn)).toBeUndefined();
    expect(chip('level', horn)).toMatchObject({
      name: 'SPL at 1 m, against a wall',
      words: 'efficiency up to 31 %',
    });
  });

  it('names the lowest note', () => {
    expect(chip('f3')?.figure).toBe('28.3 Hz A0');
    expect(chip('f3', withFigures({ f3: null, f10: null }))?.figure).toBe('–');
  });

  it.each([
    [12, 'met', 'quiet with straight edges'],
    [17, 'met', 'quiet with straight edges'],
    [17.1, 'careful', 'over 17: flare both ends'],
    [34, 'careful', 'over 17: flare both ends'],
    [34.1, 'short', 'over 34: make it wider'],
  ])('judges %d m/s in the port as %s', (value, verdict, words) => {
    const judged = chip('air', withFigures({ air_speed: { value, frequency: 27 } }));
    expect(judged).toMatchObject({ verdict, words });
  });

  it('judges the travel of the cone by Xmax, and does not where Xmax is unknown', () => {
    expect(chip('cone')).toMatchObject({
      verdict: 'met',
      figure: '6.3 of 11.5 mm',
      words: 'within Xmax above 21 Hz',
    });
    const far = withFigures({ excursion_in_band: { value: 0.0145, frequency: 40 } });
    expect(chip('cone', far)).toMatchObject({ verdict: 'short', words: 'over Xmax by 3 mm' });
    const everywhere = withFigures({ within_xmax_above: 5 });
    expect(chip('cone', everywhere)?.words).toBe('within Xmax everywhere');
    const unknown = { ...report, driver: { ...report.driver, xmax: null } };
    expect(chip('cone', unknown)).toMatchObject({
      verdict: 'plain',
      figure: '6.3 mm',
      words: 'Xmax not given',
    });
  });

  it.each([
    [0.5, 'tight, falls early'],
    [0.71, 'flat'],
    [0.9, 'a little full'],
    [1.3, 'boomy'],
  ])('calls Qtc %d %s', (qtc, words) => {
    expect(chip('qtc', withFigures({ qtc }, sealedReport))?.words).toBe(words);
  });

  it('explains every figure in a sentence', () => {
    for (const one of [...chips(report), ...chips(sealedReport)]) {
      expect(one.meaning.length, one.id).toBeGreaterThan(40);
      expect(one.meaning).toMatch(/\.$/);
    }
  });
});

it('a frequency that is not there is a dash', () => {
  expect([hertz(null), hertz(undefined), hertz(41.23)]).toEqual(['–', '–', '41.2 Hz']);
});

describe('the strip beside a brief', () => {
  const check = (id: string, verdict: Check['verdict']): Check => ({
    id,
    name: id,
    reached: '28 Hz',
    words: 'asked: 30 Hz',
    verdict,
    ratio: 1.07,
    why: 'so it is',
  });

  it('says what is asked first, and no figure twice', () => {
    const ids = strip(report, [check('lowest', 'met'), check('air', 'short')]).map(({ id }) => id);
    expect(ids).toEqual(['brief-lowest', 'brief-air', 'fb', 'port', 'cone', 'load', 'level']);
    expect(strip(report, [])).toEqual(chips(report));
  });

  it('shows every check, however many, and what cannot be said with care', () => {
    const all = ['lowest', 'loudness', 'size', 'air', 'cone', 'load', 'cost', 'family'];
    const shown = strip(
      report,
      all.map((id) => check(id, 'unknown')),
    );
    expect(shown.map(({ id }) => id)).toEqual(all.map((id) => `brief-${id}`));
    expect(shown.every(({ verdict }) => verdict === 'careful')).toBe(true);
  });
});
