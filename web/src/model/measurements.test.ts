import { describe, expect, it } from 'vitest';
import type { RawDesign, RawMeasurement, ReadMeasurement } from '../schema/types';
import {
  asColumns,
  asText,
  type KeptMeasurement,
  madeFor,
  measurementOf,
  measurementsOn,
  plusMinus,
  usedFor,
} from './measurements';

const design = { name: 'Slot' } as RawDesign;

function made(
  id: string,
  of: RawMeasurement['of'],
  at: string,
  more: Partial<RawMeasurement> = {},
): KeptMeasurement {
  const measurement = {
    of,
    source: 'text',
    at,
    variant: 'Slot',
    points: [[10, 5, 0]],
    ...more,
  } as RawMeasurement;
  return { id, measurement };
}

describe('measurements', () => {
  it('stand newest first, archived ones left out', () => {
    const kept = [
      {
        kind: 'measurement',
        id: 'a',
        archived: false,
        content: made('a', 'seat', '2026-05-01T10:00:00Z').measurement,
      },
      {
        kind: 'measurement',
        id: 'b',
        archived: false,
        content: made('b', 'seat', '2026-05-02T10:00:00Z').measurement,
      },
      {
        kind: 'measurement',
        id: 'c',
        archived: true,
        content: made('c', 'seat', '2026-05-03T10:00:00Z').measurement,
      },
      { kind: 'entry', id: 'd', archived: false, content: {} },
    ] as const;
    expect(measurementsOn({ kept }).map(({ id }) => id)).toEqual(['b', 'a']);
  });

  it('of a box say something of that variant alone, of drivers and the chain of all', () => {
    const all = [
      made('box', 'impedance_box', '2026-05-03T10:00:00Z'),
      made('other', 'impedance_box', '2026-05-02T10:00:00Z', { variant: 'Closed' }),
      made('free', 'impedance_free', '2026-05-01T10:00:00Z', { variant: 'Closed' }),
      made('chain', 'loopback', '2026-05-01T10:00:00Z', { variant: 'Closed' }),
    ];
    expect(usedFor(all, design).map(({ id }) => id)).toEqual(['box', 'free', 'chain']);
    expect(usedFor(all, { name: 'Closed' } as RawDesign).map(({ id }) => id)).toEqual([
      'other',
      'free',
      'chain',
    ]);
  });

  it('of a box say something of the variant that was made from them, too', () => {
    const all = [
      made('box', 'impedance_box', '2026-05-03T10:00:00Z'),
      made('closed', 'impedance_box', '2026-05-02T10:00:00Z', { variant: 'Closed' }),
    ];
    const asMeasured = {
      name: 'Slot · as measured',
      measured: { found: { of: 'Slot' } },
    } as Partial<RawDesign> as RawDesign;
    expect(usedFor(all, asMeasured).map(({ id }) => id)).toEqual(['box']);
    const again = [
      made('own', 'impedance_box', '2026-05-04T10:00:00Z', { variant: asMeasured.name }),
      ...all,
    ];
    expect(usedFor(again, asMeasured).map(({ id }) => id)).toEqual(['own']);
  });

  it('are used once each, the newest, driver by driver, unless they are left out', () => {
    const all = [
      made('bad', 'impedance_box', '2026-05-04T10:00:00Z', { left_out: true }),
      made('new', 'impedance_box', '2026-05-03T10:00:00Z'),
      made('old', 'impedance_box', '2026-05-02T10:00:00Z'),
      made('second', 'nearfield_cone', '2026-05-02T09:00:00Z', { driver: 2 }),
      made('first', 'nearfield_cone', '2026-05-02T08:00:00Z'),
    ];
    const used = usedFor(all, design);
    expect(used.map(({ id }) => id)).toEqual(['new', 'second', 'first']);
    expect(madeFor(used, { of: 'nearfield_cone', driver: 1 })?.id).toBe('first');
    expect(madeFor(used, { of: 'nearfield_cone', driver: 2 })?.id).toBe('second');
    expect(madeFor(used, { of: 'seat' })).toBeUndefined();
  });

  it('at several levels and angles stand beside each other', () => {
    const all = [
      made('loud', 'nearfield_cone', '2026-05-03T10:00:00Z', { sweep_level: -12 }),
      made('soft', 'nearfield_cone', '2026-05-02T10:00:00Z', { sweep_level: -18 }),
      made('again', 'nearfield_cone', '2026-05-01T10:00:00Z', { sweep_level: -18 }),
      made('side', 'seat', '2026-05-01T10:00:00Z', { angle: '45 deg' }),
      made('front', 'seat', '2026-05-01T09:00:00Z'),
    ];
    const used = usedFor(all, design);
    expect(used.map(({ id }) => id)).toEqual(['loud', 'soft', 'side', 'front']);
    expect(madeFor(used, { of: 'nearfield_cone', driver: 1 })?.id).toBe('loud');
  });

  it('hold what was read and what is known of it, and nothing that is not', () => {
    const read: ReadMeasurement = {
      points: [[10, 5, 1]],
      phased: true,
      rows: 1,
      form: '',
      harmonics: [],
      remarks: ['one'],
    };
    const found = measurementOf('seat', 'text', design, read, { notes: '', driver: null }, new Date(0));
    expect(Object.keys(found).sort()).toEqual([
      'at',
      'of',
      'phased',
      'points',
      'remarks',
      'source',
      'variant',
    ]);
    expect(found.variant).toBe('Slot');
  });

  it('are written as a text that anything reads', () => {
    const { measurement } = made('a', 'impedance_box', '2026-05-01T10:00:00Z', { phased: true });
    expect(asText(measurement).split('\n').slice(1)).toEqual([
      'Frequency (Hz)\tZ (ohm)\tPhase (deg)',
      '10\t5\t0',
      '',
    ]);
    const { measurement: level } = made('a', 'seat', '2026-05-01T10:00:00Z', { phased: false });
    expect(asText(level)).toContain('Level (dB)\n10\t5\n');
  });
});

describe('a value with its error', () => {
  it('is told to the digit that the error leaves, and no further than four', () => {
    expect(plusMinus({ value: 24.031, se: 0.061 })).toBe('24.0 ± 0.2');
    expect(plusMinus({ value: 21.6, se: 0.0012 })).toBe('21.60 ± 0.01');
    expect(plusMinus({ value: 180.2, se: 5.4 })).toBe('180 ± 11');
    expect(plusMinus({ value: 0.359, se: 0.0015 })).toBe('0.359 ± 0.003');
    expect(plusMinus({ value: 24, se: 0 })).toBe('24.00');
  });

  it('beside each other go into a text with their own frequencies, however many each has', () => {
    const text = asColumns([
      {
        name: 'Cone\tone',
        points: [
          [10, 80],
          [20, 81.234],
        ],
      },
      { name: 'Port', points: [[12.5, 70]] },
    ]);
    expect(text.split('\n')).toEqual([
      'Frequency (Hz)\tCone one\tFrequency (Hz)\tPort',
      '10.000\t80.00\t12.500\t70.00',
      '20.000\t81.23\t\t',
    ]);
    expect(asColumns([])).toBe('');
  });
});
