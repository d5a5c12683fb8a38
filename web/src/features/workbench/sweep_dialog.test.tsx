// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../../model/preferences';
import type { Sweep, SweepStep } from '../../schema/types';
import { slot } from '../../testing/nook';
import { SweepDialog } from './SweepDialog';

interface Asked {
  parameter: string | null;
  from: number | null;
  to: number | null;
}
const asked: Asked[] = [];
let sweep: Sweep;
vi.mock('../../api/queries/design', () => ({
  useSweep: ({ parameter, from, to }: Asked) => {
    asked.push({ parameter, from, to });
    return { data: sweep, error: null, isPending: false };
  },
}));
const drawn: { label: string; range: readonly [number, number] }[] = [];
vi.mock('./Chart', () => ({
  Chart: (one: { label: string; range: readonly [number, number] }) => {
    drawn.push(one);
    return <p>{one.label}</p>;
  },
}));
vi.mock('./Against', () => ({ Against: () => <p>Figures against it</p> }));

const at = (litres: number, f3: number | null): SweepStep =>
  ({
    value: litres / 1e3,
    label: `${litres} l`,
    design: { ...slot, enclosure: { ...slot.enclosure, volume: `${litres} l` } },
    problem: f3 === null ? 'The port is longer than the box.' : null,
    outcome:
      f3 === null
        ? null
        : { f3, level: [80, 93, 91], excursion: [60, 4, 1], excursion_in_band: 0.004, impedance: [4, 31, 8] },
  }) as unknown as SweepStep;

beforeEach(() => {
  asked.splice(0);
  drawn.splice(0);
  sweep = {
    parameters: [
      {
        id: 'volume',
        name: 'Volume',
        dimension: 'volume',
        unit: 'l',
        value: 0.044,
        label: '44 l',
        choices: false,
      },
      { id: 'turns', name: 'Turns', dimension: 'plain', unit: '', value: 0, label: 'none', choices: true },
    ],
    parameter: 'volume',
    from: 0.03,
    to: 0.06,
    frequency: [20, 40, 80],
    steps: [at(30, null), at(44, 28.3), at(60, 25.1)],
  };
});
afterEach(() => {
  cleanup();
  preferences.reset();
});

function open() {
  const on = { onUse: vi.fn(), onTry: vi.fn() };
  render(<SweepDialog design={slot} conditions="160 W into 4 Ω" {...on} onClose={() => undefined} />);
  return on;
}
const row = (name: RegExp) => within(screen.getByRole('row', { name }));

describe('one value varied', () => {
  it('says in which conditions, and marks what the variant has now', () => {
    open();
    expect(screen.getByText(/What the variant has now is among the steps. 160 W into 4 Ω/)).toBeTruthy();
    expect(row(/44 l/).getByText('now')).toBeTruthy();
    expect(row(/44 l/).queryByRole('button')).toBeNull();
  });

  it('gives the reason where a step cannot be built, and nothing to take of it', () => {
    open();
    expect(row(/30 l/).getByText('The port is longer than the box.')).toBeTruthy();
    expect(row(/30 l/).queryByRole('button')).toBeNull();
  });

  it('is taken into the variant, or beside it under a name of its own', () => {
    const { onUse, onTry } = open();
    fireEvent.click(screen.getByRole('button', { name: 'Use 60 l' }));
    expect(onUse.mock.calls[0]?.[0].enclosure.volume).toBe('60 l');
    fireEvent.click(screen.getByRole('button', { name: '60 l as a variant' }));
    expect(onTry.mock.calls[0]?.[0].name).toBe(`${slot.name}, 60 l`);
  });

  it('goes between ends that are typed with their units, and refuses what is none', () => {
    open();
    const [from, to] = [screen.getByLabelText('from'), screen.getByLabelText('to')];
    fireEvent.change(from, { target: { value: '1 cuft' } });
    fireEvent.keyDown(from, { key: 'Enter' });
    expect(asked.at(-1)?.from).toBeCloseTo(0.0283, 4);
    expect(asked.at(-1)?.to).toBeCloseTo(0.06, 9);
    const before = asked.at(-1);
    fireEvent.change(to, { target: { value: 'large' } });
    fireEvent.keyDown(to, { key: 'Enter' });
    expect(screen.getByRole('alert').textContent).toContain('large');
    expect(asked.at(-1)).toEqual(before);
  });

  it('of choices has neither ends nor a curve against it', () => {
    sweep = { ...sweep, parameter: 'turns' };
    open();
    expect(screen.queryByLabelText('from')).toBeNull();
    expect(screen.queryByText('Figures against it')).toBeNull();
  });

  it('draws travel no higher than the band needs, however the cone runs away below it', () => {
    open();
    expect(drawn.at(-1)?.range).toEqual([55, 95]);
    fireEvent.click(screen.getByRole('radio', { name: 'Cone travel' }));
    expect(drawn.at(-1)?.label).toContain('Cone travel, mm');
    expect(drawn.at(-1)?.range[1]).toBeLessThan(20);
    fireEvent.click(screen.getByRole('radio', { name: 'Impedance' }));
    expect(drawn.at(-1)?.range[1]).toBeGreaterThanOrEqual(31);
  });

  it('is read in the units of the reader', () => {
    preferences.set({ units: { volume: 'cuft' } });
    open();
    expect(screen.getByRole('row', { name: /1.55 cuft/ })).toBeTruthy();
    expect(screen.getByRole('combobox', { name: 'Value to vary' }).textContent).toContain(
      'Volume, now 1.55 cuft',
    );
  });
});
