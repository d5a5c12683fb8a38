import { describe, expect, it } from 'vitest';
import { report, sealedReport } from '../testing/report';
import { LANES } from './lane';

const lane = (id: string) => {
  const found = LANES.find((one) => one.id === id);
  if (!found) throw new Error(id);
  return found;
};

describe('the lanes', () => {
  it('show 45 dB of level under the largest clean output, on round numbers', () => {
    expect(lane('level').range([report], report)).toEqual([70, 115]);
    const loud = { ...report, max_output: { ...report.max_output, level: [80, 150, null, 112, 112] } };
    // No more than 12 dB above what is played.
    expect(lane('level').range([loud], loud)).toEqual([75, 120]);
  });

  it('have one for radiators only where there are any, and a line for each of several openings', () => {
    expect(lane('radiator').present?.([report, sealedReport])).toBe(false);
    const twin = { ...sealedReport, curves: { ...sealedReport.curves, radiator_travel: [[9, 8, 3, 1, 0]] } };
    expect(lane('radiator').present?.([report, twin])).toBe(true);
    expect(lane('air').present?.([twin])).toBe(false);
    expect(lane('air').extras?.(report)).toEqual([]);
    const horn = {
      ...report,
      curves: {
        ...report.curves,
        air_speed: [
          [1, 2, 3, 2, 1],
          [0, 1, 1, 1, 0],
        ],
        air_labels: ['Throat', 'Mouth'],
      },
    };
    expect(
      lane('air')
        .extras?.(horn)
        .map((extra) => extra.label),
    ).toEqual(['Throat', 'Mouth']);
  });

  it('always show Xmax, and no more than twice as far', () => {
    const [, top] = lane('travel').range([report], report);
    expect(top).toBeGreaterThan(11.5);
    expect(top).toBeLessThanOrEqual(23);
    expect(lane('travel').limit?.(report)).toEqual({ from: 11.5, label: 'past Xmax' });
    const unknown = { ...report, driver: { ...report.driver, xmax: null } };
    expect(lane('travel').limit?.(unknown)).toBeNull();
    expect(lane('travel').range([unknown], unknown)).toEqual([0, 30]);
  });

  it('always show the 17 and the 34 m/s', () => {
    const air = lane('air');
    expect(air.line?.at).toBe(17);
    expect(air.limit?.(report)?.from).toBe(34);
    expect(air.range([report], report)[1]).toBeGreaterThan(34);
  });

  it('have no air speed where there is no port, and the fastest where there are several', () => {
    const air = lane('air');
    expect(air.values(sealedReport.curves)).toBeNull();
    const two = {
      ...report.curves,
      air_speed: [
        [1, 2, 3, 4, 5],
        [5, 4, 3, 2, 1],
      ],
    };
    expect(air.values(two)).toEqual([5, 4, 3, 4, 5]);
    expect(air.values(two)).toBe(air.values(two));
    expect(air.values(report.curves)).toBe(report.curves.air_speed[0]);
  });

  it('tell the phase beside the impedance', () => {
    expect(lane('impedance').secondary?.(report.curves, 2)).toBe('-30°');
  });

  it('leave the delay below 16 Hz out of the range', () => {
    expect(lane('delay').range([report], report)).toEqual([0, 30]);
  });
});
