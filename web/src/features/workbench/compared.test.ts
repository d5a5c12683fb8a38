import { describe, expect, it } from 'vitest';
import { report, sealedReport, withFigures } from '../../testing/report';
import { compared } from './compared';

const names = ['Slot', 'Sealed', 'Other'];
const row = (rows: ReturnType<typeof compared>, name: string) => rows.find((one) => one.name === name);

describe('variants beside each other', () => {
  it('say which does better in a figure, by how much, and in which direction', () => {
    const low = withFigures({ f3: 40 }, sealedReport);
    const rows = compared([report, low], names);
    expect(row(rows, 'F3')).toEqual({
      name: 'F3',
      values: ['28.3 Hz', '40 Hz'],
      best: 0,
      verdict: 'Slot: lower by 11.7 Hz',
    });
    const loud = withFigures({ reference_level: report.figures.reference_level + 3 });
    expect(row(compared([report, loud], names), 'SPL')).toMatchObject({
      best: 1,
      verdict: 'Sealed: louder by 3.0 dB',
    });
  });

  it('leave out what is the same, and call alike what nearly is', () => {
    expect(compared([report, report], names)).toEqual([]);
    const near = withFigures({ f3: (report.figures.f3 ?? 0) * 1.004 });
    expect(row(compared([report, near], names), 'F3')).toMatchObject({ best: null, verdict: 'alike' });
  });

  it('judge only what is better one way, and only what two of them have', () => {
    const rows = compared([report, sealedReport], names);
    expect(row(rows, 'Qtc')).toMatchObject({ values: ['–', '0.609'], best: null, verdict: '' });
    expect(row(rows, 'Air speed')).toMatchObject({ values: ['16.8 m/s', '–'], best: null, verdict: '' });
    expect(row(rows, 'Fb or Fc')).toMatchObject({ best: null, verdict: '' });
  });

  it('wait for a report that is still to come', () => {
    const third = withFigures({ f3: 20 });
    expect(row(compared([report, undefined, third], names), 'F3')).toMatchObject({
      values: ['28.3 Hz', '…', '20 Hz'],
      best: 2,
      verdict: 'Other: lower by 8.3 Hz',
    });
  });
});
