import type { RawPreset } from '../../schema/types';

/** Presets to begin with (common practice). */
export const USUAL_PRESETS: readonly RawPreset[] = [
  { name: 'Films', filters: [{ kind: 'high_pass', order: 4, frequency: '15 Hz' }] },
  {
    name: 'Rock',
    filters: [
      { kind: 'high_pass', order: 2, frequency: '25 Hz' },
      { kind: 'low_shelf', frequency: '40 Hz', gain: '-4 dB', q: 0.71 },
    ],
  },
  {
    name: 'Bass guitar',
    filters: [
      { kind: 'high_pass', order: 4, frequency: '30 Hz' },
      { kind: 'parametric', frequency: '80 Hz', gain: '2 dB', q: 1 },
    ],
  },
];
