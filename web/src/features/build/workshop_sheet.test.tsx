// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Refusal } from '../../api/client';
import { bodyOf } from '../../model/body';
import { preferences } from '../../model/preferences';
import type { Workbench } from '../../model/workbench';
import { workshopOn } from '../../model/workshop';
import type { BuildPlan, CutPanel, ProblemDocument, SheetGroupReport } from '../../schema/types';
import { nookBench } from '../../testing/nook';
import { plan, sheetProps } from '../../testing/plan';
import { PanelsSheet } from './PanelsSheet';
import { WorkshopSheet } from './WorkshopSheet';

let panels: CutPanel[] = [];
const saved: string[] = [];
vi.mock('../../api/queries/cut', () => ({
  useCutPanels: () => ({
    data: { cabinets: 2, panels, notes: ['A brace of 50.8 mm stands free.'] },
    error: null,
  }),
  askCutList: async () => 'no.,panel',
}));
vi.mock('../../api/queries/plan', () => ({ askFlat: async () => '<svg/>' }));
vi.mock('../../ui/download', () => ({ save: (name: string) => void saved.push(name) }));
vi.mock('./PanelDrawing', () => ({
  PanelDrawing: ({
    panel,
    onJoin,
    tools,
  }: {
    panel: CutPanel;
    onJoin: (between: string[], joinery: string) => void;
    tools: React.ReactNode;
  }) => (
    <section aria-label={`Drawing of ${panel.name}`}>
      {tools}
      <button type="button" onClick={() => onJoin(['front', 'left'], 'rabbet')}>
        Rabbet
      </button>
      <button type="button" onClick={() => onJoin(['left', 'front'], 'butt')}>
        Butt
      </button>
    </section>
  ),
}));

let bench: Workbench;
let error: unknown = null;
const of: BuildPlan = plan({
  sheets: [{ material: 'birch_ply', thickness: 0.0152 } as unknown as SheetGroupReport],
  rounded: [
    {
      division: 1,
      name: 'whole millimetres',
      inches: false,
      outside: [0.6, 0.36, 0.312],
      volume: 0.0002,
      tuning: -0.05,
    },
    {
      division: 32,
      name: '32nds of an inch',
      inches: true,
      outside: [0.6, 0.36, 0.312],
      volume: -0.0004,
      tuning: 0,
    },
  ],
  veneers: [{ panel: 1, name: 'front', count: 2, size: [0.65, 0.41] }],
});
const draw = (Sheet: typeof WorkshopSheet) => (
  <Sheet {...sheetProps(bench, of, () => undefined)} error={error} />
);
function open(Sheet: typeof WorkshopSheet) {
  const view = render(draw(Sheet));
  bench.subscribe(() => view.rerender(draw(Sheet)));
}
const said = () => workshopOn(bench.snapshot());
const field = (name: string) => screen.getByRole('textbox', { name }) as HTMLInputElement;
function type(name: string, text: string) {
  fireEvent.change(field(name), { target: { value: text } });
  fireEvent.blur(field(name));
}

beforeEach(() => {
  bench = nookBench();
  error = null;
  saved.splice(0);
});
afterEach(() => {
  cleanup();
  preferences.reset();
});

describe('the workshop', () => {
  it('shows what is usual until something else is said, and that again once it is cleared', () => {
    open(WorkshopSheet);
    expect(field('Kerf').value).toBe('3.2 mm');
    type('Kerf', '2.2');
    expect(said()?.kerf).toBe('2.2 mm');
    type('Kerf', '');
    expect(said()?.kerf).toBeUndefined();
    expect(field('Kerf').value).toBe('3.2 mm');
  });

  it('chooses glue, finish and hardware, and ticks what is wanted besides', () => {
    open(WorkshopSheet);
    fireEvent.change(screen.getByRole('combobox', { name: 'Finish' }), { target: { value: 'veneer' } });
    fireEvent.click(screen.getByRole('checkbox', { name: 'Grille' }));
    expect(said()).toMatchObject({ finish: 'veneer', grille: true });
    fireEvent.click(screen.getByRole('checkbox', { name: 'Grille' }));
    // What is not wanted is not written.
    expect(said()).not.toHaveProperty('grille');
  });

  it('adds sheets of the boards that are cut, and takes their own sizes and prices', () => {
    open(WorkshopSheet);
    expect(screen.getByText(/Whole, half and quarter sheets of 1220 × 2440 mm/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Add a sheet or offcut' }));
    expect(said()?.sheets).toEqual([
      { material: 'birch_ply', thickness: '15.2 mm', width: '1220 mm', height: '2440 mm' },
    ]);
    expect(screen.queryByText(/at usual prices/)).toBeNull();
    const names = screen.getAllByRole('textbox').map((one) => one.getAttribute('aria-label') ?? '');
    const price = names.find((name) => /price.*sheet 1/i.test(name)) ?? '';
    type(price, '61');
    expect(said()?.sheets?.[0]?.price).toBe(61);
    type(price, '');
    expect(said()?.sheets?.[0]).not.toHaveProperty('price');
    fireEvent.click(screen.getByRole('button', { name: 'Remove sheet 1' }));
    expect(said()?.sheets ?? []).toEqual([]);
  });

  it('adds sheets of four by eight feet for who cuts by the inch', () => {
    preferences.set({ units: { length: 'in' } });
    open(WorkshopSheet);
    expect(field('Kerf').value).toBe('1/8 in');
    fireEvent.click(screen.getByRole('button', { name: 'Add a sheet or offcut' }));
    expect(said()?.sheets?.[0]).toMatchObject({ width: '48 in', height: '96 in' });
  });

  it('says beside a value what the server refuses of it', () => {
    error = new Refusal({
      detail: 'The workshop cannot be used.',
      errors: [{ field: 'conditions.workshop.kerf', message: 'kerf 90 mm is outside 0.5 to 10 mm' }],
    } as unknown as ProblemDocument);
    open(WorkshopSheet);
    expect(field('Kerf').getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByRole('alert').textContent).toContain('0.5 to 10 mm');
  });
});

describe('panels', () => {
  const board = (number: number, name: string, bevels: number[]) =>
    ({
      number,
      name,
      count: 2,
      size: [0.6, 0.36],
      thickness: 0.018,
      edges: bevels.map((bevel) => ({ meets: 'left', joint: 'butt', joinery: 'butt', dowels: [], bevel })),
    }) as unknown as CutPanel;
  beforeEach(() => {
    panels = [board(1, 'front', [0, 0]), board(2, 'side', [45, -45, 0]), board(3, 'top', [12, 20, 31])];
  });
  const body = () => bodyOf(bench.snapshot().variants[0]?.design ?? ({} as never));

  it('are listed for all cabinets, with how the saw is tilted for each', () => {
    open(PanelsSheet);
    const rows = within(screen.getByRole('table', { name: /6 boards for 2 cabinets/ }))
      .getAllByRole('row')
      .slice(1);
    expect(rows.map((row) => within(row).getAllByRole('cell').at(-1)?.textContent)).toEqual([
      'square',
      '45.0°',
      '3 angles',
    ]);
    expect(screen.getByText('A brace of 50.8 mm stands free.')).toBeTruthy();
  });

  it('are drawn as they are chosen, and leave as files under their number', async () => {
    open(PanelsSheet);
    expect(screen.getByRole('region', { name: 'Drawing of front' })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'top' }));
    fireEvent.click(
      within(screen.getByRole('region', { name: 'Drawing of top' })).getByRole('button', { name: 'DXF' }),
    );
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(saved[0]).toMatch(/, board 3\.dxf$/);
    fireEvent.click(screen.getByRole('button', { name: 'Cut list (CSV)' }));
    await waitFor(() => expect(saved[1]).toMatch(/, cut list\.csv$/));
  });

  it('join edge by edge, and an edge that is as all others says nothing of its own', () => {
    open(PanelsSheet);
    fireEvent.click(screen.getByRole('button', { name: 'Rabbet' }));
    expect(body().joints).toEqual([{ between: ['front', 'left'], joinery: 'rabbet' }]);
    // The same edge, named from the other side.
    fireEvent.click(screen.getByRole('button', { name: 'Butt' }));
    expect(body().joints).toBeUndefined();
    fireEvent.click(screen.getByRole('radio', { name: 'Sides' }));
    expect(body().overlap).toBe('sides');
    fireEvent.click(screen.getByRole('checkbox', { name: 'Braces in dadoes' }));
    expect(body().housed).toBe(true);
  });

  it('say what rounding to the reader’s rule does to volume and tuning', () => {
    open(PanelsSheet);
    expect(screen.getByText(/Cut to whole millimetres/).textContent).toBe(
      'Cut to whole millimetres, 600 mm × 360 mm × 312 mm outside: net volume 0.20 l more, tuning 0.05 Hz less.',
    );
    expect(screen.queryByText(/32nds of an inch/)).toBeNull();
    cleanup();
    preferences.set({ units: { length: 'in', volume: 'cuft' } });
    open(PanelsSheet);
    const words = screen.getByText(/Cut to 32nds of an inch/).textContent;
    expect(words).toContain('cuft less, tuning as drawn');
    expect(screen.queryByText(/whole millimetres/)).toBeNull();
    expect(screen.getByText('A brace of 2 in stands free.')).toBeTruthy();
  });

  it('have veneer that is larger than they are', () => {
    open(PanelsSheet);
    const veneer = within(screen.getByRole('table', { name: /Veneer, 25 mm over/ })).getAllByRole('row')[1];
    expect(veneer?.textContent).toBe('1front2650 mm410 mm');
  });
});
