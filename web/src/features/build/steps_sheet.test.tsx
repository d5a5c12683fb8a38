// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../../model/preferences';
import type { Workbench } from '../../model/workbench';
import { entriesOn, progressOn } from '../../model/workshop';
import type { Step } from '../../schema/types';
import { nookBench } from '../../testing/nook';
import { item, plan, sheetProps, step } from '../../testing/plan';
import { StepsSheet } from './StepsSheet';

let joined = false;
vi.mock('../../api/queries/companion', () => ({
  useCompanions: () => ({ data: { links: joined ? [{ state: 'joined' }] : [] }, dataUpdatedAt: 1 }),
}));
vi.mock('./PhoneDialog', () => ({ PhoneDialog: () => <p>A code to scan</p> }));

const measure = step({
  id: 'inspect.thickness',
  phase: 'arrive',
  phase_name: 'What arrived',
  title: 'Measure the boards',
  how: 'At 3 places, 100 mm from the edge.',
  check: 'Within 0.3 mm of each other.',
  measures: { what: 'thickness', material: 'birch_ply', drawn: 0.018 } as Step['measures'],
});
const hole = step({
  id: 'holes.test',
  phase: 'holes',
  phase_name: 'Holes',
  title: 'Try the hole in scrap',
  check: 'The driver drops in.',
  fails: { mistake: 'The hole is too small.', fix: 'A ring and a bush enlarge it by 2 mm.' },
  parts: ['driver'],
  panels: [1, 4],
  clamps: [4, 0.36],
  wait: ['Glue dries', 24],
  caution: 'Hold the router with both hands.',
  methods: [
    ['Router', 'A clean edge.'],
    ['Jigsaw', 'Slower.'],
  ],
  reach: { through: 'driver cut-out', width: 0.254, passes: true },
});

let bench: Workbench;
const onShow = vi.fn();
function draw() {
  const of = plan({ steps: [measure, hole], items: [item({ id: 'driver', name: 'Heron 250/4' })] });
  return <StepsSheet {...sheetProps(bench, of, onShow)} />;
}
function open() {
  const view = render(draw());
  bench.subscribe(() => view.rerender(draw()));
}

beforeEach(() => {
  bench = nookBench();
  joined = false;
  onShow.mockReset();
});
afterEach(() => {
  cleanup();
  preferences.reset();
});

const box = (name: string) => screen.getByRole('checkbox', { name }) as HTMLInputElement;
const measured = () => screen.getByRole('textbox') as HTMLInputElement;

describe('steps', () => {
  it('open at the next to be done, and at the one after it once that is ticked', () => {
    open();
    expect(screen.getByRole('button', { name: /Measure the boards/ }).getAttribute('aria-expanded')).toBe(
      'true',
    );
    expect(screen.getByText(/0 of 2 done; next: measure the boards/)).toBeTruthy();
    fireEvent.click(box('Measure the boards done'));
    expect(progressOn(bench.snapshot()).ticks?.map(({ step }) => step)).toEqual(['inspect.thickness']);
    expect(screen.getByText(/1 of 2 done; next: try the hole in scrap/)).toBeTruthy();
    expect(screen.getByRole('button', { name: /Try the hole/ }).getAttribute('aria-expanded')).toBe('true');
    fireEvent.click(box('Measure the boards done'));
    expect(progressOn(bench.snapshot()).ticks).toEqual([]);
  });

  it('stand under the part of the work they belong to, with what they take', () => {
    open();
    expect(screen.getAllByRole('heading').map(({ textContent }) => textContent)).toEqual([
      'What arrived',
      'Holes',
    ]);
    fireEvent.click(screen.getByRole('button', { name: /Try the hole/ }));
    const facts = (name: string) => screen.getByText(name).nextElementSibling?.textContent;
    expect(facts('Parts')).toBe('Heron 250/4');
    expect(facts('Boards')).toBe('no. 1; no. 4');
    expect(facts('Clamps')).toBe('4, opening 360 mm');
    expect(facts('Wait')).toBe('Glue dries, 24 h');
    expect(screen.queryByText('Tools')).toBeNull();
    expect(screen.getByText(/Through the driver cut-out, 254 mm wide/)).toBeTruthy();
    expect(screen.getByText('Where builders differ').closest('details')?.open).toBe(false);
  });

  it('that fail are marked, and make an entry in the log with what to do', () => {
    open();
    fireEvent.click(screen.getByRole('button', { name: /Try the hole/ }));
    fireEvent.click(screen.getByRole('button', { name: 'The check failed…' }));
    expect(progressOn(bench.snapshot()).ticks?.[0]).toMatchObject({ step: 'holes.test', failed: true });
    expect(entriesOn(bench.snapshot())[0]?.entry).toMatchObject({
      step: 'holes.test',
      mistake: 'The hole is too small.',
      fix: 'A ring and a bush enlarge it by 2 mm.',
    });
    expect(onShow).toHaveBeenCalledWith('log');
    expect(box('Try the hole in scrap done').checked).toBe(false);
    expect(screen.getByText(/its check failed/)).toBeTruthy();
  });

  it('take what is measured into the design, and let it go again', () => {
    open();
    expect(measured().value).toBe('18 mm');
    fireEvent.change(measured(), { target: { value: '17.4' } });
    fireEvent.keyDown(measured(), { key: 'Enter' });
    const design = () => bench.snapshot().variants[0]?.design;
    expect(design()?.measured?.boards).toEqual([
      { material: 'birch_ply', nominal: '18 mm', measured: '17.4 mm' },
    ]);
    expect(measured().value).toBe('17.4 mm');
    fireEvent.change(measured(), { target: { value: '' } });
    fireEvent.keyDown(measured(), { key: 'Enter' });
    expect(design()?.measured).toBeUndefined();
  });

  it('find a board again whose thickness was written in another unit', () => {
    const { design, id } = bench.snapshot().variants[0] ?? {};
    if (!design || !id) throw new Error('no variant');
    const boards = [{ material: 'birch_ply' as const, nominal: '1.8 cm', measured: '17.2 mm' }];
    bench.edit(id, { ...design, measured: { boards } }, 'measured');
    open();
    expect(measured().value).toBe('17.2 mm');
    fireEvent.change(measured(), { target: { value: '17.1' } });
    fireEvent.keyDown(measured(), { key: 'Enter' });
    expect(bench.snapshot().variants[0]?.design.measured?.boards).toEqual([
      { material: 'birch_ply', nominal: '1.8 cm', measured: '17.1 mm' },
    ]);
  });

  it('are read in inches by who cuts by the inch', () => {
    preferences.set({ units: { length: 'in' } });
    open();
    expect(screen.getByText('At 3 places, 3 15/16 in from the edge.')).toBeTruthy();
    expect(measured().value).toBe('23/32 in');
    expect(screen.getByText('as drawn 23/32 in')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /Try the hole/ }));
    expect(screen.getByText(/Through the driver cut-out, 10 in wide/)).toBeTruthy();
    expect(screen.getByText('A ring and a bush enlarge it by 3/32 in.')).toBeTruthy();
  });

  it('ask for what a phone has ticked only while one has them open', () => {
    const onRefresh = vi.fn();
    const props = { ...sheetProps(bench, plan({ steps: [measure] }), onShow), onRefresh };
    const view = render(<StepsSheet {...props} />);
    expect(onRefresh).not.toHaveBeenCalled();
    joined = true;
    view.rerender(<StepsSheet {...props} />);
    expect(onRefresh).toHaveBeenCalledWith('progress');
    fireEvent.click(within(view.container).getByRole('button', { name: 'On a phone…' }));
    expect(screen.getByText('A code to scan')).toBeTruthy();
  });
});
