import { describe, expect, it } from 'vitest';
import { markAt } from '../model/mark';
import type { Trace } from '../schema/types';
import { slot } from '../testing/nook';
import { drawn, report, sealedReport } from '../testing/report';
import { drawing } from './drawing';
import { extrasOf, isPresent, LANES, mainOf } from './lane';
import { strokeOf } from './line';
import type { Shown } from './shown';
import { phaseAt } from './trace';

const lane = (id: string) => {
  const found = LANES.find((one) => one.id === id);
  if (!found) throw new Error(id);
  return found;
};

function shownAs(of = report, traces: readonly Trace[] = of.traces): Shown {
  return { id: 'a', name: 'Slot', place: 0, mark: markAt(0), report: of, traces, design: slot };
}

const usual = shownAs();
const sealed = shownAs(sealedReport);
const two = shownAs(report, [
  ...sealedReport.traces,
  { ...drawn('air_speed', [1, 2, 3, 4, 5]), label: 'Throat' },
  { ...drawn('air_speed', [5, 4, 3, 2, 1]), label: 'Mouth' },
]);

describe('the lanes', () => {
  it('show 45 dB of level under the maximum clean level, on round numbers', () => {
    expect(lane('level').range([usual], usual)).toEqual([70, 115]);
    const limit = { ...drawn('level', []), origin: 'limit' as const, values: [80, 150, null, 112, 112] };
    const loud = shownAs(report, [drawn('level', [70, 95, 106, 106, 105]), limit]);
    // No more than 12 dB above what is played.
    expect(lane('level').range([loud], loud)).toEqual([75, 120]);
  });

  it('have one for radiators only where there are any, and a line for each of several openings', () => {
    expect(isPresent(lane('radiator'), [usual, sealed])).toBe(false);
    const twin = shownAs(report, [...sealedReport.traces, drawn('radiator_travel', [9, 8, 3, 1, 0])]);
    expect(isPresent(lane('radiator'), [usual, twin])).toBe(true);
    expect(isPresent(lane('air'), [twin])).toBe(false);
    expect(extrasOf(lane('air'), usual)).toEqual([]);
    expect(extrasOf(lane('air'), two).map(({ label }) => label)).toEqual(['Throat', 'Mouth']);
  });

  it('always show Xmax, and no more than twice as far', () => {
    const [, top] = lane('travel').range([usual], usual);
    expect(top).toBeGreaterThan(11.5);
    expect(top).toBeLessThanOrEqual(23);
    expect(lane('travel').limit?.(usual)).toEqual({ from: 11.5, label: 'past Xmax' });
    const unknown = shownAs({ ...report, driver: { ...report.driver, xmax: null } });
    expect(lane('travel').limit?.(unknown)).toBeNull();
    expect(lane('travel').range([unknown], unknown)).toEqual([0, 30]);
  });

  it('always show the 17 and the 34 m/s', () => {
    const air = lane('air');
    expect(air.line?.at).toBe(17);
    expect(air.limit?.(usual)?.from).toBe(34);
    expect(air.range([usual], usual)[1]).toBeGreaterThan(34);
  });

  it('have no air speed where there is no port, and the fastest where there are several', () => {
    const air = lane('air');
    expect(mainOf(air, sealed)).toBeNull();
    expect(mainOf(air, two)?.values).toEqual([5, 4, 3, 4, 5]);
    expect(mainOf(air, two)).toBe(mainOf(air, two));
    expect(mainOf(air, usual)).toBe(report.traces.find(({ quantity }) => quantity === 'air_speed'));
  });

  it('tell the phase beside the impedance', () => {
    expect(lane('impedance').phase).toBe(true);
    expect(phaseAt(mainOf(lane('impedance'), usual), 40)).toBe('-30°');
    expect(phaseAt(mainOf(lane('level'), usual), 40)).toBe('');
  });

  it('leave the delay below 16 Hz out of the range', () => {
    expect(lane('delay').range([usual], usual)).toEqual([0, 30]);
  });

  it('draw what was measured or is aimed at beside it, over its own frequencies', () => {
    const measured: Trace = {
      quantity: 'level',
      origin: 'measured',
      frequency: [18, 33, 90],
      values: [92, 104, 105],
    };
    const target: Trace = {
      ...measured,
      origin: 'target',
      label: 'films',
      frequency: [20, 80],
      values: [100, 100],
    };
    const both = shownAs(report, [...report.traces, measured, target]);
    const { lines, extras } = drawing(lane('level'), [both], both, undefined);
    expect(extras.map(({ label }) => label)).toEqual(['maximum clean level', 'measured', 'films']);
    expect(lines.map(({ frequency }) => frequency.length)).toEqual([5, 5, 3, 2]);
    // What was measured is drawn in ink, without a dash.
    expect(lines.map((line) => strokeOf(line)).map(({ colour, dash }) => [colour, dash.length > 0])).toEqual([
      ['--oak', false],
      ['--oak', true],
      ['--ink', false],
      ['--oak', true],
    ]);
    expect(lines.map(({ strong, secondary }) => [strong, secondary])).toEqual([
      [true, false],
      [false, true],
      [false, true],
      [false, true],
    ]);
  });
});
