// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../../model/preferences';
import type { Workbench } from '../../model/workbench';
import { workshopOn } from '../../model/workshop';
import type { BuildPlan, HolePlan, RawLayout, SheetGroupReport, SheetReport } from '../../schema/types';
import { nookBench } from '../../testing/nook';
import { plan, sheetProps } from '../../testing/plan';
import { CalendarSheet } from './CalendarSheet';
import { HolesSheet } from './HolesSheet';
import { LayoutSheet } from './LayoutSheet';

let search: (stop: AbortSignal, share: (share: number) => void) => Promise<RawLayout[]>;
let terminal: () => Promise<unknown> = async () => null;
const flat: object[] = [];
const saved: string[] = [];
vi.mock('../../api/queries/plan', () => ({
  askFlat: async (_: unknown, what: object, format: string) => {
    flat.push({ ...what, format });
    return '<svg/>';
  },
  searchLayouts: (_: unknown, stop: AbortSignal, share: (share: number) => void) => search(stop, share),
  askTerminal: () => terminal(),
  askPlanFile: async () => 'BEGIN:VCALENDAR',
}));
vi.mock('../../ui/download', () => ({ save: (name: string) => void saved.push(name) }));
vi.mock('../../ui/size', () => ({ useSize: () => [() => undefined, { width: 600, height: 400 }] }));

const sheet = (change: Partial<SheetReport>): SheetReport => ({
  size: [1.22, 2.44],
  price: 40,
  at_hand: false,
  boards: [
    { number: 1, name: 'front', at: [0, 0], size: [0.6, 0.36], mirrored: false },
    { number: 2, name: 'back', at: [0, 0.4], size: [0.6, 0.36], mirrored: true },
  ] as SheetReport['boards'],
  offcuts: [
    [
      [0, 0.8],
      [0.3, 0.4],
    ],
    [
      [0.61, 0],
      [0.508, 1.016],
    ],
  ],
  cuts: [
    {
      fence: 0.36,
      moves: true,
      upright: false,
      piece: [
        [0, 0],
        [1.22, 2.44],
      ],
      ready: [],
    },
    {
      fence: 0.36,
      moves: false,
      upright: false,
      piece: [
        [0, 0],
        [1.22, 2.08],
      ],
      ready: [1],
    },
    {
      fence: 0.6,
      moves: true,
      upright: true,
      piece: [
        [0, 0],
        [1.22, 0.36],
      ],
      ready: [1, 2],
    },
  ] as SheetReport['cuts'],
  ...change,
});
const group = (change: Partial<SheetGroupReport>): SheetGroupReport => ({
  material: 'mdf',
  material_name: 'MDF',
  thickness: 0.018,
  sheets: [sheet({})],
  cost: 40,
  waste: 0.25,
  offcut: 0.5,
  too_large: [],
  searched: false,
  ...change,
});

let bench: Workbench;
const onShow = vi.fn();
const open = (change: Partial<BuildPlan>) =>
  render(<LayoutSheet {...sheetProps(bench, plan(change), onShow)} />);

beforeEach(() => {
  bench = nookBench();
  flat.splice(0);
  saved.splice(0);
  onShow.mockReset();
});
afterEach(() => {
  cleanup();
  preferences.reset();
});

describe('sheets', () => {
  it('say what is bought and what is left, an offcut at hand not counted as bought', () => {
    open({ sheets: [group({ sheets: [sheet({}), sheet({ at_hand: true })] })] });
    expect(screen.getByText('MDF 18 mm: 1 sheet, 40, 25 % left over')).toBeTruthy();
    expect(screen.getByRole('button', { name: '2: 18 mm, offcut' })).toBeTruthy();
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'Sheet of 2440 mm by 1220 mm with 2 boards',
    );
  });

  it('list the cuts with the fence, the largest piece left and boards that no sheet holds', () => {
    open({ sheets: [group({ too_large: [7, 9] })] });
    const cuts = within(screen.getByRole('table')).getAllByRole('row').slice(1);
    expect(cuts.map(({ textContent }) => textContent)).toEqual([
      '1360 mmcross-cut2440 mm × 1220 mm',
      '2360 mmcross-cut2080 mm × 1220 mmno. 1',
      '3600 mmrip, along360 mm × 1220 mmno. 1, no. 2',
    ]);
    expect(screen.getByText(/3 cuts, the fence moves 2 times/)).toBeTruthy();
    const words = screen.getByText(/Fence settings are to/).textContent;
    expect(words).toContain('The largest piece left is 1016 mm × 508 mm.');
    expect(words).toContain('No sheet holds boards 7, 9.');
  });

  it('are drawn one after the other, and leave as files under their number', async () => {
    open({ sheets: [group({ sheets: [sheet({}), sheet({ boards: [] })] })] });
    fireEvent.click(screen.getByRole('button', { name: '2: 18 mm' }));
    expect(screen.getByRole('img').getAttribute('aria-label')).toContain('with 0 boards');
    fireEvent.click(screen.getByRole('button', { name: 'DXF' }));
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(saved[0]).toMatch(/, sheet 2\.dxf$/);
    expect(flat).toEqual([{ sheet: 1, format: 'dxf' }]);
  });

  it('are searched longer with progress, and what is found is kept beside what was', async () => {
    let told: (share: number) => void = () => undefined;
    let end: (found: RawLayout[]) => void = () => undefined;
    search = (_, share) => {
      told = share;
      return new Promise((resolve) => {
        end = resolve;
      });
    };
    open({ sheets: [group({})] });
    fireEvent.click(screen.getByRole('button', { name: 'Search longer' }));
    told(0.4);
    await waitFor(() => expect((screen.getByRole('progressbar') as HTMLProgressElement).value).toBe(0.4));
    end([{ boards: 'a' } as unknown as RawLayout]);
    await screen.findByRole('button', { name: 'Search longer' });
    expect(workshopOn(bench.snapshot())?.layouts).toEqual([{ boards: 'a' }]);
  });

  it('are searched no longer once that is stopped, and nothing is kept or told as an error', async () => {
    search = (stop) =>
      new Promise((_, reject) =>
        stop.addEventListener('abort', () => reject(new Error('The search was aborted.'))),
      );
    open({ sheets: [group({})] });
    fireEvent.click(screen.getByRole('button', { name: 'Search longer' }));
    fireEvent.click(await screen.findByRole('button', { name: 'Stop' }));
    await screen.findByRole('button', { name: 'Search longer' });
    expect(screen.queryByText(/aborted/)).toBeNull();
    expect(workshopOn(bench.snapshot())?.layouts).toBeUndefined();
  });
});

describe('holes', () => {
  const hole = (change: object) =>
    ({
      panel: 1,
      index: 0,
      kind: 'driver',
      what: 'Heron 250/4',
      round: true,
      size: [0.254, 0.254],
      inch32: 320,
      depth: null,
      at: [0.3, 0.18],
      template: [0.259, 0.259],
      pair: null,
      drill: null,
      faults: [],
      ...change,
    }) as unknown as HolePlan;
  const show = (change: Partial<BuildPlan>) =>
    render(<HolesSheet {...sheetProps(bench, plan(change), onShow)} />);

  it('stand with their middle, their template and what is wrong with them', () => {
    show({ holes: [hole({}), hole({ index: 1, what: 'port', pair: 4, faults: ['5.08 mm from the edge'] })] });
    const rows = within(screen.getByRole('table')).getAllByRole('row').slice(1);
    expect(rows[0]?.textContent).toBe('no. 1Heron 250/4⌀ 254 mm10 inthrough300 mm180 mm⌀ 259 mm');
    expect(rows[1]?.textContent).toContain('no. 1, with no. 4 on one pin');
    expect(rows[1]?.className).toContain('text-short');
    expect(rows[1]?.textContent).toContain('port: 5.08 mm from the edge');
  });

  it('that are drilled alike are one line', () => {
    const bolt = (index: number, faults: string[] = []) =>
      hole({ index, kind: 'bolt', what: 'Bolt of the driver', drill: [0.0055, 'through'], faults });
    show({ holes: [bolt(1), bolt(2), bolt(3, ['near a joint'])] });
    const drilled = within(screen.getByRole('table', { name: 'Drilled' }))
      .getAllByRole('row')
      .slice(1);
    expect(drilled).toHaveLength(1);
    expect(drilled[0]?.textContent).toContain('3 × Bolt of the driver');
    expect(drilled[0]?.className).toContain('text-short');
  });

  it('for the terminal are put where a board has room, or it says that none has', async () => {
    show({ terminal_lacks_hole: true });
    fireEvent.click(screen.getByRole('button', { name: 'Put it in' }));
    expect(await screen.findByText(/No board has room for it/)).toBeTruthy();
    expect(bench.snapshot().undo).toBeNull();
    const design = { ...bench.snapshot().variants[0]?.design, notes: 'with a terminal' };
    terminal = async () => ({ design, words: 'It goes into the back, 50.8 mm from below.' });
    preferences.set({ units: { length: 'in' } });
    fireEvent.click(screen.getByRole('button', { name: 'Put it in' }));
    expect(await screen.findByText('It goes into the back, 2 in from below.')).toBeTruthy();
    expect(bench.snapshot().variants[0]?.design.notes).toBe('with a terminal');
  });
});

describe('the calendar', () => {
  const slots = [
    {
      step: 'a',
      title: 'Cut',
      from: '2026-05-01T18:00:00',
      to: '2026-05-01T20:00:00',
      goes_on: false,
      waits: null,
    },
    {
      step: 'b',
      title: 'Glue',
      from: '2026-05-02T09:00:00',
      to: '2026-05-02T11:00:00',
      goes_on: false,
      waits: ['Glue dries', '2026-05-03T11:00:00'],
    },
  ] as unknown as BuildPlan['calendar'];
  const draw = (calendar: BuildPlan['calendar']) => (
    <CalendarSheet {...sheetProps(bench, plan({ calendar }), onShow)} />
  );
  const show = (calendar: BuildPlan['calendar']) => {
    const view = render(draw(calendar));
    bench.subscribe(() => view.rerender(draw(calendar)));
  };

  it('puts steps under their days, and says until when one waits', () => {
    show(slots);
    expect(screen.getAllByRole('heading')).toHaveLength(2);
    expect(screen.getByText(/Glue dries until/).textContent).toMatch(/May 3/);
  });

  it('takes free hours within a day, and never none at all', () => {
    show(slots);
    const monday = screen.getByRole('spinbutton', { name: 'Free hours on Mon' });
    fireEvent.change(monday, { target: { value: '40' } });
    expect(workshopOn(bench.snapshot())?.hours).toEqual([24, 2, 2, 2, 2, 6, 6]);
    for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'])
      fireEvent.change(screen.getByRole('spinbutton', { name: `Free hours on ${day}` }), {
        target: { value: '0' },
      });
    // The last hours that are left are not given away.
    expect(workshopOn(bench.snapshot())?.hours).toEqual([0, 0, 0, 0, 0, 0, 6]);
  });

  it('says when nothing is left to do, and leaves as a file', async () => {
    show([]);
    expect(screen.getByText('Everything is done.')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Calendar (.ics)' }));
    await waitFor(() => expect(saved[0]).toMatch(/\.ics$/));
  });
});
