// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../../model/preferences';
import type { Workbench } from '../../model/workbench';
import { editStock, workshopOn } from '../../model/workshop';
import type { BuildPlan, RawStock } from '../../schema/types';
import { nookBench } from '../../testing/nook';
import { item, plan, sheetProps } from '../../testing/plan';
import { OutdatedNotice } from './OutdatedNotice';
import { PartsSheet } from './PartsSheet';
import { PlanSummary } from './PlanSummary';

let read: () => Promise<RawStock[]> = async () => [];
const saved: string[] = [];
vi.mock('../../api/queries/plan', () => ({
  askPlanFile: async (_: unknown, what: string) => `item,${what}`,
  readPrices: () => read(),
}));
vi.mock('../../ui/file', () => ({
  chooseFile: async () => Object.assign(new File([''], 'prices.csv'), { text: async () => 'item,price' }),
}));
vi.mock('../../ui/download', () => ({ save: (name: string) => void saved.push(name) }));

const shops = [
  { id: 'hardware', name: 'Hardware shop', cost: 18 },
  { id: 'electrical', name: 'Speaker parts', cost: 120 },
] as unknown as BuildPlan['shops'];
const glue = item({});
const bolts = item({
  id: 'bolts',
  name: 'Bolts M6 × 50.8 mm',
  amount: 8,
  unit: 'pieces',
  pack: 4,
  packs: 2,
  cost: 12,
});
const tape = item({
  id: 'tape',
  name: 'Gasket tape',
  shop: 'electrical',
  amount: 1.2,
  unit: 'm',
  pack: 1,
  packs: 2,
  note: '10 mm wide',
});
const owned = item({ id: 'wire', name: 'Wire', shop: 'electrical', packs: 0, cost: 0 });

let bench: Workbench;
const draw = (change: Partial<BuildPlan>) => (
  <PartsSheet
    {...sheetProps(bench, plan({ items: [glue, bolts, tape, owned], shops, ...change }), () => undefined)}
  />
);
function open(change: Partial<BuildPlan> = {}) {
  const view = render(draw(change));
  bench.subscribe(() => view.rerender(draw(change)));
}
const rowOf = (name: string) => {
  const row = screen.getByText(name).closest('tr');
  if (!row) throw new Error(`no row ${name}`);
  return row;
};
const cells = (name: string) =>
  within(rowOf(name))
    .getAllByRole('cell')
    .map(({ textContent }) => textContent);
function type(label: string, text: string) {
  const input = screen.getByRole('textbox', { name: label });
  fireEvent.change(input, { target: { value: text } });
  fireEvent.blur(input);
}
const items = () => workshopOn(bench.snapshot())?.items;

beforeEach(() => {
  bench = nookBench();
  saved.splice(0);
});
afterEach(() => {
  cleanup();
  preferences.reset();
});

describe('parts', () => {
  it('stand shop by shop, as they are needed and as they are bought', () => {
    open();
    const names = screen.getAllByRole('rowheader').map(({ textContent }) => textContent);
    expect(names).toEqual([
      'Hardware shop',
      'Wood glue',
      'Bolts M6 × 50.8 mm',
      'Speaker parts',
      'Gasket tape10 mm wide',
      'Wire',
    ]);
    expect(cells('Bolts M6 × 50.8 mm')).toContain('2 × 4 pieces');
    expect(cells('Wood glue')).toContain('1 × 250 g');
    expect(cells('Gasket tape')).toContain('2 m');
    expect(cells('Wire')).toContain('none');
    expect(screen.getByText('Together').textContent).toContain('212');
  });

  it('take a price and what is in stock, and forget what is cleared', () => {
    open();
    type('Price of a pack: Wood glue', '4.5');
    type('In stock: Wood glue', '100');
    expect(items()).toEqual([{ item: 'glue.pva', price: 4.5, stock: 100 }]);
    type('In stock: Wood glue', '');
    type('Price of a pack: Wood glue', '');
    expect(items()).toEqual([]);
  });

  it('that are bought can be left out of what is looked at', () => {
    open({ items: [{ ...glue, bought: true }, bolts, tape, owned] });
    fireEvent.click(screen.getByRole('checkbox', { name: 'Only what is still to be bought' }));
    expect(screen.queryByText('Wood glue')).toBeNull();
    expect(screen.queryByText('Wire')).toBeNull();
    expect(screen.getByText('Gasket tape')).toBeTruthy();
    fireEvent.click(screen.getByRole('checkbox', { name: 'Gasket tape bought' }));
    expect(items()).toEqual([{ item: 'tape', bought: true }]);
  });

  it('take a price list, leave prices of other parts as they are, and say what is wrong in it', async () => {
    editStock(bench, 'bolts', { price: 2 });
    open();
    read = async () => [{ item: 'glue.pva', price: 5 }];
    fireEvent.click(screen.getByRole('button', { name: 'Read prices…' }));
    await waitFor(() =>
      expect(items()).toEqual([
        { item: 'bolts', price: 2 },
        { item: 'glue.pva', price: 5 },
      ]),
    );
    read = () => Promise.reject(new Error('row 3, price: "ten" is not a number'));
    fireEvent.click(screen.getByRole('button', { name: 'Read prices…' }));
    expect(await screen.findByText(/row 3, price/)).toBeTruthy();
    expect(items()).toHaveLength(2);
  });

  it('leave as a table with a name', async () => {
    open();
    fireEvent.click(screen.getByRole('button', { name: 'Parts (CSV)' }));
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(saved[0]).toMatch(/, parts\.csv$/);
  });

  it('are read in inches, feet and ounces by who measures so; a thread keeps its name', () => {
    preferences.set({ units: { length: 'in', mass: 'oz' } });
    open();
    expect(screen.getByText('Bolts M6 × 2 in')).toBeTruthy();
    expect(cells('Wood glue')).toContain('6.35 oz');
    expect(cells('Gasket tape')).toContain('6.56 ft');
    expect(cells('Bolts M6 × 2 in')).toContain('2 × 4 pieces');
  });

  it('of a kit stand beside cutting them oneself', () => {
    const kit = {
      own_boards: 70,
      boards: 95,
      cost: 237,
      hours: 9,
      saves: ['Cutting', 'Bevels'],
      tools: ['Table saw'],
    };
    open({ kit: kit as BuildPlan['kit'] });
    const table = within(screen.getByRole('table', { name: 'Kit or own wood' }));
    expect(table.getAllByRole('row').map(({ textContent }) => textContent)).toEqual([
      'BoardsCost of boardsCost of allWork',
      'Cut from sheets7021221 h',
      'From the kit952379 h',
    ]);
    expect(screen.getByText(/The kit saves: cutting, bevels/).textContent).toContain(
      'Not needed then: Table saw.',
    );
  });
});

describe('what the plan comes to', () => {
  it('is against the budget, each cabinet by its mass', () => {
    render(<PlanSummary plan={plan({ cost: 212, budget: 200, cabinets: 2, mass: 18.2 })} />);
    expect(screen.getByText(/over budget/).textContent).toContain('of 200');
    expect(screen.getByText('18.2 kg').parentElement?.textContent).toBe('Each 18.2 kg');
    cleanup();
    render(<PlanSummary plan={plan({ cost: 180, budget: 200 })} />);
    expect(screen.queryByText(/over budget/)).toBeNull();
  });
});

describe('pages that were printed', () => {
  const changed: [string, string, string][] = Array.from({ length: 8 }, (_, at) => [
    `Board ${at + 1}`,
    '610 mm',
    '608 mm',
  ]);
  const outdated = [{ page: 'cut list', at: '2026-04-02T18:30:00', changed }];

  it('say what has changed since, no more than one reads, and are printed again', () => {
    const of = plan({ outdated, says: [{ what: 'Board 1', value: '608 mm' }] });
    render(<OutdatedNotice plan={of} workbench={bench} />);
    const said = screen.getByRole('status').textContent;
    expect(said).toContain('The cut list printed on');
    expect(said).toContain('Board 1: 610 mm → 608 mm');
    expect(said).not.toContain('Board 7');
    expect(said).toContain('; and 2 more');
    fireEvent.click(screen.getByRole('button', { name: 'Printed again' }));
    const progress = bench.snapshot().kept.find(({ kind }) => kind === 'progress')?.content;
    expect(progress).toMatchObject({
      printed: [{ page: 'cut list', said: [{ what: 'Board 1', value: '608 mm' }] }],
    });
  });

  it('are read in the units of the reader, as are faults', () => {
    preferences.set({ units: { length: 'in' } });
    render(
      <OutdatedNotice
        plan={plan({ outdated, faults: ['screws of 50.8 mm pierce the board'] })}
        workbench={bench}
      />,
    );
    const said = screen.getByRole('status').textContent;
    expect(said).toContain('Screws of 2 in pierce the board.');
    expect(said).toContain('Board 1: 24 1/32 in → 23 15/16 in');
  });

  it('that are all as they were say nothing', () => {
    const view = render(<OutdatedNotice plan={plan({})} workbench={bench} />);
    expect(view.container.textContent).toBe('');
  });
});
