// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { SignalReport } from '../../schema/types';
import { slot } from '../../testing/nook';
import { ChainStrip } from './ChainStrip';
import { withFilters, withParts } from './filters';
import { Proposals } from './Proposals';

afterEach(cleanup);

const SIGNAL: SignalReport = {
  conditions: '160 W into 4 Ω (25.3 V), half space',
  volts: 25.3,
  filters: [
    { name: 'High-pass', effect: 'cone travel 45.0 → 11.4 mm, −0.3 dB at 30 Hz', caution: null },
    { name: 'Band', effect: '+6.0 dB at 20 Hz', caution: 'Boosts below the tuning of 29 Hz.' },
  ],
  chain: { most: [6, 20], travel: [0.045, 0.0114], lowest: null },
  amplifier: {
    power: 160,
    load: 4,
    volts: 25.3,
    current: null,
    verdicts: [{ name: 'Load', met: false, words: 'Nominal 4.0 Ω; the amplifier stands 8 Ω.' }],
  },
  built_in: [],
  cable: 0.1,
  cable_loss: 0.21,
  parts: [{ name: 'L', heat: 9, heat_at: 40, programme_heat: 1.8, current: 4, sold: [] }],
  proposals: [
    {
      id: 'protect',
      name: 'Protect the cone',
      words: 'High-pass 20.0 Hz.',
      filter: { kind: 'high_pass', frequency: '20 Hz' },
    },
    { id: 'flatten', name: 'Take the peak down', words: 'No peak.', filter: null },
  ],
  textbook: [],
  debates: [{ name: 'How large an amplifier?', words: 'At or under the rating, or several times it.' }],
  sealed: null,
  beams: 500,
};

const design = withParts(
  withFilters(slot, [
    { kind: 'high_pass', order: 4, frequency: '20 Hz' },
    { kind: 'parametric', frequency: '20 Hz', gain: '6 dB' },
    { kind: 'invert', bypassed: true },
  ]),
  [{ wiring: 'series', inductance: '8 mH' }],
);

function open(signal: SignalReport | null = SIGNAL) {
  const onSelect = vi.fn();
  render(
    <ChainStrip
      design={design}
      signal={signal ?? undefined}
      report={undefined}
      selected="amplifier"
      onSelect={onSelect}
      onFilter={vi.fn()}
      onMeasured={vi.fn()}
      onParts={vi.fn()}
    />,
  );
  return onSelect;
}

describe('the chain', () => {
  it('stands as it is wired, each block with what it does here', () => {
    open();
    const blocks = screen.getAllByRole('button', { pressed: undefined }).map((one) => one.textContent);
    const order = [
      'Signal',
      '1 High-pass',
      '2 Parametric band',
      '3 Inverted polarity',
      'Amplifier',
      'Cable',
      'In series',
      'Drivers',
    ];
    const found = order.map((name) => blocks.findIndex((block) => block?.startsWith(name)));
    expect(found).toEqual([...found].sort((a, b) => a - b));
    expect(found.every((at) => at >= 0)).toBe(true);
    const strip = screen.getByRole('list').textContent ?? '';
    // The first thing only: the panel has the rest.
    expect(strip).toContain('cone travel 45.0 → 11.4 mm');
    expect(strip).not.toContain('−0.3 dB at 30 Hz');
    expect(strip).toContain('boosts below the tuning');
    expect(strip).toContain('bypassed');
    expect(strip).toContain('Load: does not suit');
    expect(strip).toContain('1.8 W of heat');
  });

  it('is chosen from, and holds before anything is computed', () => {
    const onSelect = open();
    fireEvent.click(screen.getByRole('button', { name: /^Cable/ }));
    expect(onSelect).toHaveBeenCalledWith('cable');
    expect(screen.getByRole('button', { name: /^Amplifier/ }).getAttribute('aria-pressed')).toBe('true');
    cleanup();
    open(null);
    expect(screen.getByRole('button', { name: /^Amplifier/ }).textContent).toContain('not known');
  });
});

describe('filters that would help', () => {
  it('are added where there is one, and say why where there is none', () => {
    const onAdd = vi.fn();
    render(<Proposals signal={SIGNAL} onAdd={onAdd} />);
    expect(screen.getAllByRole('button').map((one) => one.getAttribute('aria-label'))).toEqual([
      'Add: Protect the cone',
    ]);
    fireEvent.click(screen.getByRole('button'));
    expect(onAdd).toHaveBeenCalledWith({ kind: 'high_pass', frequency: '20 Hz' });
    expect(screen.getByText('No peak.')).toBeTruthy();
    expect(screen.getByText('Where builders disagree')).toBeTruthy();
  });
});
