// A report as the server answers, for tests of what is made of it.

import type { Quantity, Report, Trace } from '../schema/types';

/** A computed line over the frequencies of the report. */
export function drawn(quantity: Quantity, values: number[]): Trace {
  return { quantity, origin: 'simulated', frequency: [10, 20, 40, 80, 160], values };
}

export const report: Report = {
  conditions: '80 W into 4 Ω (17.9 V), half space',
  drive: 'amplifier',
  volts: 17.9,
  space: 'half',
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
    used: ['fs', 're', 'sd', 'qms', 'qes', 'vas'],
    doubts: [],
    reconciling: [],
    hints: [],
  },
  used: {
    count: 1,
    nominal: 4,
    re: 3.4,
    fs: 24,
    qms: 5.4,
    qes: 0.381,
    qts: 0.356,
    vas: 0.0633,
    mms: 0.118,
    sd: 0.0346,
    xmax: 0.0115,
    pe: 300,
    trapped: null,
  },
  as_built: {
    volumes: [0.044, null],
    fills: [null, null],
    sizes: [0.6, 0.36, 0.33],
    outside: [0.6, 0.36, 0.33],
    follows: ['depth'],
    forbids: [],
  },
  figures: {
    reference: 'piston',
    f3_upper: null,
    ripple: 0,
    excursion_minimum: { value: 0.001, frequency: 28.6 },
    radiator_travel: null,
    fastest_opening: 'Port 1',
    efficiency: { value: 0.012, frequency: 40 },
    fb_rear: null,
    notch: null,
    rear_ports: [],
    passage: null,
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
  traces: [
    drawn('level', [70, 95, 106, 106, 105]),
    { ...drawn('level', [80, 103, 109, 112, 112]), origin: 'limit' },
    drawn('excursion', [25, 10, 6, 2, 0.5]),
    { ...drawn('air_speed', [9, 15, 8, 2, 1]), label: 'Port 1' },
    { ...drawn('impedance', [6, 32, 12, 5, 3.5]), phase: [40, 0, -30, -10, 5] },
    drawn('group_delay', [40, 22, 9, 3, 1]),
  ],
  ribbon: [
    { from: 10, to: 26, limit: 'cone' },
    { from: 26, to: 34, limit: 'air' },
    { from: 34, to: 160, limit: 'heat' },
  ],
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
    fastest_opening: null,
    excursion_minimum: null,
    ports: [],
  },
  traces: report.traces.filter(({ quantity }) => quantity !== 'air_speed'),
};

/** With some figures changed. */
export function withFigures(change: Partial<Report['figures']>, of: Report = report): Report {
  return { ...of, figures: { ...of.figures, ...change } };
}
