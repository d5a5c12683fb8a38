// A box as the server reports it, cut down to what a test looks at.

import type { BodyReport, ChamberReport } from '../schema/types';

export const chamber = (change: Partial<ChamberReport>): ChamberReport => ({
  name: 'Chamber',
  gross: 0.0502,
  entries: [
    { what: 'Driver', volume: 0.0031, estimated: true },
    { what: 'Port', volume: 0.0031, estimated: false },
  ] as ChamberReport['entries'],
  net: 0.044,
  wanted: 0.044,
  gain: 1,
  bounds: [
    [0, 0, 0],
    [0.564, 0.324, 0.275],
  ],
  ...change,
});

export const box = (change: Partial<BodyReport>): BodyReport =>
  ({
    outside: [0.6, 0.36, 0.311],
    inside: [0.564, 0.324, 0.275],
    solved: [false, false, true],
    sizes: [0.6, 0.36, 0.311],
    volume_follows: false,
    outside_volume: 0.0672,
    chambers: [chamber({})],
    tuning: { symbol: 'Fb', frequency: 29.04 },
    parts: [],
    panels: [],
    findings: [],
    waves: [],
    waves_verdict: 'Nothing that matters.',
    fills: [],
    ports: [],
    radiators: null,
    damping: null,
    fold: null,
    drawings: [],
    ...change,
  }) as unknown as BodyReport;
