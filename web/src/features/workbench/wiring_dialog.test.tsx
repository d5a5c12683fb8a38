// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ChangeStep, RawDesign, WiringOption } from '../../schema/types';
import { slot } from '../../testing/nook';
import { report } from '../../testing/report';
import { WiringDialog } from './WiringDialog';

const asked: number[][] = [];
let ways: WiringOption[] = [];
let steps: ChangeStep[] = [];
vi.mock('../../api/queries/design', () => ({
  useWirings: (_: unknown, ...range: number[]) => {
    asked.push(range);
    return { data: ways, error: null };
  },
  useChanges: () => ({ data: steps, error: null }),
}));

const way = (change: Partial<WiringOption>): WiringOption => ({
  series: 1,
  parallel: 1,
  load: 4,
  resistance: 3.4,
  gain: 0,
  reason: 'One alone.',
  ...change,
});
const step = (change: Partial<ChangeStep>): ChangeStep => ({
  id: 'sheet',
  name: 'as on the sheet',
  fs: 24,
  qts: 0.356,
  vas: 0.0633,
  load: 4,
  level: 89.4,
  f3: 28.3,
  ...change,
});

function open(design: RawDesign, least: number | null) {
  const onWire = vi.fn();
  render(
    <WiringDialog
      open
      design={design}
      report={report}
      least={least}
      onWire={onWire}
      onClose={() => undefined}
    />,
  );
  return onWire;
}
const choose = (label: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name: label }), { target: { value } });

beforeEach(() => {
  asked.splice(0);
  ways = [way({}), way({ series: 2, parallel: 2, load: 4, gain: 6, reason: 'Every group sees half.' })];
  steps = [step({}), step({ id: 'mass', name: '20 g glued on', fs: 22.3, level: 88.1 })];
});
afterEach(cleanup);

describe('wiring', () => {
  it('is asked for the load that the amplifier of the brief stands', () => {
    open(slot, 4);
    expect(asked.at(-1)).toEqual([1, 4, 100]);
    choose('Load', '8-16');
    choose('How many drivers', '4');
    expect(asked.at(-1)).toEqual([4, 8, 16]);
    cleanup();
    open(slot, null);
    expect(asked.at(-1)).toEqual([1, 0, 100]);
  });

  it('warns where what is wired is below that load, and only there', () => {
    open(slot, 8);
    expect(screen.getByText(/it may overheat or shut off/).textContent).toContain('Below the 8 Ω');
    cleanup();
    open(slot, 4);
    expect(screen.queryByText(/it may overheat/)).toBeNull();
  });

  it('is said in words, with what a meter reads', () => {
    open(slot, null);
    expect(
      within(screen.getByRole('region', { name: 'As it is wired' })).getByText(/A meter should read/)
        .textContent,
    ).toBe('one driver. A meter should read about 3.4 Ω.');
  });

  it('is taken with its counts alone, and keeps what else is said of the drivers', () => {
    const onWire = open({ ...slot, driver_array: { series: 2, added_mass: '20 g' } } as RawDesign, null);
    fireEvent.click(screen.getByRole('button', { name: 'Use 2 groups of 2 in series' }));
    expect(onWire).toHaveBeenLastCalledWith({ added_mass: '20 g', series: 2, parallel: 2 });
    fireEvent.click(screen.getByRole('button', { name: 'Use one driver' }));
    expect(onWire).toHaveBeenLastCalledWith({ added_mass: '20 g' });
  });

  it('says that there is none rather than nothing', () => {
    ways = [];
    open(slot, null);
    expect(screen.getByText('No wiring gives a load in that range.')).toBeTruthy();
  });

  it('sets off what each change did against what it left', () => {
    open(slot, null);
    const table = within(screen.getByRole('region', { name: 'What each change does' }));
    const cells = within(table.getByRole('row', { name: /20 g glued on/ })).getAllByRole('cell');
    expect(cells.map(({ textContent }) => textContent)).toEqual([
      '22.3',
      '0.356',
      '63.3',
      '4.0',
      '88.1',
      '28.3',
    ]);
    expect(cells.map(({ className }) => className.includes('font-bold'))).toEqual([
      true,
      false,
      false,
      false,
      true,
      false,
    ]);
  });
});
