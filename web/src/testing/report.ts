// A report as the server answers, for tests of what is made of it.

import type { Report } from '../api/types';

export const report: Report = {
  volts: 17.9,
  driver: {
    nominal: 4,
    re: 3.4,
    le: 1.15e-3,
    fs: 24,
    qms: 5.4,
    qes: 0.381,
    qts: 0.356,
    vas: 0.0633,
    cms: 3.7e-4,
    mms: 0.118,
    bl: 12.6,
    sd: 0.0346,
    xmax: 0.0115,
    pe: 300,
    vd: 4e-4,
    ebp: 63,
    eta0: 0.0023,
    level_1w: 85.7,
    level_2v83: 89.4,
    suspension_from: 'vas',
    doubts: [],
  },
  figures: {
    reference_level: 106.1,
    f3: 28.3,
    f6: 25,
    f10: 21.9,
    level_peak: { value: 107.1, frequency: 316 },
    excursion_in_band: { value: 0.0063, frequency: 41 },
    within_xmax_above: 21,
    air_speed: { value: 16.8, frequency: 27 },
    impedance_minimum: { value: 3.42, frequency: 183 },
    group_delay: { value: 0.0207, frequency: 27 },
    fc: null,
    qtc: null,
    fb: 29,
    fb_helmholtz: 29.4,
    fb_impedance: 28.2,
    ports: [{ length: 0.4476, area: 0.007, pipe_resonance: 315 }],
  },
  curves: {
    frequency: [10, 20, 40, 80, 160],
    level: [70, 95, 106, 106, 105],
    phase: [170, 90, 0, -20, -40],
    group_delay: [40, 22, 9, 3, 1],
    excursion: [25, 10, 6, 2, 0.5],
    air_speed: [[9, 15, 8, 2, 1]],
    impedance: [6, 32, 12, 5, 3.5],
    impedance_phase: [40, 0, -30, -10, 5],
    current: [3, 1, 2, 3, 4],
  },
};

/** The same box closed. */
export const sealedReport: Report = {
  ...report,
  figures: {
    ...report.figures,
    fc: 42.3,
    qtc: 0.609,
    fb: null,
    fb_helmholtz: null,
    fb_impedance: null,
    air_speed: null,
    ports: [],
  },
  curves: { ...report.curves, air_speed: [] },
};

/** With some figures changed. */
export function withFigures(change: Partial<Report['figures']>, of: Report = report): Report {
  return { ...of, figures: { ...of.figures, ...change } };
}
