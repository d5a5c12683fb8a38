// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../../model/preferences';
import type { BoxRemedy, Finding, MeasuringReport, RawDesign, RawDriver } from '../../schema/types';
import { slot } from '../../testing/nook';
import { actOf, FindingsPanel } from './FindingsPanel';
import { AngleTable, LinearityTable } from './LinearityTable';

let rig: { simulated: boolean } | undefined;
const told: string[] = [];
let refusal: Error | null = null;
const added: RawDriver[] = [];
vi.mock('../../api/queries/measure', () => ({
  useRig: () => ({ data: rig, error: null }),
  actOnRig: async (command: string) => {
    told.push(command);
    if (refusal) throw refusal;
  },
}));
vi.mock('./DriverFits', () => ({ DriverFits: () => null }));
vi.mock('../../api/queries/library', () => ({
  addDriver: async (driver: RawDriver) => void added.push(driver),
}));

const finding = (change: Partial<Finding>): Finding => ({
  id: 'tuning',
  verdict: 'look',
  title: 'Tuning',
  words: '23.3 Hz, 0.7 Hz too low.',
  sure: '',
  ...change,
});

const remedy = (change: Partial<BoxRemedy>): BoxRemedy => ({
  id: 'port',
  title: 'Cut each port by 39 mm',
  by: '39 mm off each',
  words: 'Cut a little less first: it is easily cut again.',
  steps: ['Take the ports out.', 'Saw square.'],
  design: { ...slot, name: 'Slot · cut' },
  foretold: slot,
  outcome: { tuning: { value: 24.02, se: 0.06 }, qtc: null, f3: 22.1, volume: 0.18 },
  ...change,
});

const report = (change: Partial<MeasuringReport>): MeasuringReport =>
  ({
    answer: { port_cut_mm: { value: 39.4, se: 1 }, notes: [] },
    findings: [],
    by_hand: [],
    tunings: [],
    linearity: [],
    angles: [],
    remedies: [],
    as_found: null,
    traces: [],
    used: 2,
    ...change,
  }) as unknown as MeasuringReport;

function open(change: Partial<MeasuringReport>, foretold: string | null = null) {
  const on = { onForetell: vi.fn(), onTry: vi.fn(), onRemedy: vi.fn(), onPlan: vi.fn() };
  render(
    <QueryClientProvider client={new QueryClient()}>
      <FindingsPanel report={report(change)} foretold={foretold} {...on} />
    </QueryClientProvider>,
  );
  return on;
}

const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

beforeEach(() => {
  rig = { simulated: true };
  refusal = null;
  told.splice(0);
  added.splice(0);
});
afterEach(() => {
  cleanup();
  preferences.set({ units: {} });
});

describe('findings', () => {
  it('say by a sign that has a name what wants a look, what is good and what is open', () => {
    open({
      findings: [
        finding({ sure: 'sure to 0.1 Hz' }),
        finding({ id: 'leak', verdict: 'good', title: 'Tightness' }),
        finding({ id: 'qa', verdict: 'open', title: 'Absorption' }),
      ],
    });
    const lines = within(screen.getByRole('list', { name: 'Findings' })).getAllByRole('listitem');
    const signs = lines.map((line) => within(line).getByRole('img').getAttribute('aria-label'));
    expect(signs).toEqual(['Look at this', 'Good', 'Open']);
    expect(lines[0]?.textContent).toBe('!Tuning. 23.3 Hz, 0.7 Hz too low. Sure to 0.1 Hz.');
  });

  it('keep the notes of the fit folded, and show none where there are none', () => {
    open({ answer: { port_cut_mm: null, notes: ['qa: not told'] } as unknown as MeasuringReport['answer'] });
    expect(screen.getByText('Notes of the fit').closest('details')?.open).toBe(false);
    cleanup();
    open({});
    expect(screen.queryByText('Notes of the fit')).toBeNull();
  });

  it('show the tuning by several ways beside what each is', () => {
    open({ tunings: [{ id: 'dip', way: 'Dip of the impedance', hz: 23.46, about: 'Losses pull it up.' }] });
    expect(screen.getByRole('row').textContent).toBe('Dip of the impedance23.5 HzLosses pull it up.');
  });
});

describe('a remedy', () => {
  it('says what it is, by how much, and what comes of it with how sure', () => {
    open({ remedies: [remedy({})] });
    const card = screen.getByRole('article');
    expect(within(card).getByRole('heading').textContent).toBe('Cut each port by 39 mm');
    expect(card.textContent).toMatch(
      /Then, in the air of the design: 24\.0\d? ± 0\.\d+ Hz, −3 dB at 22\.1 Hz/,
    );
    expect(
      within(card)
        .getAllByRole('listitem')
        .map((step) => step.textContent),
    ).toEqual(['Take the ports out.', 'Saw square.']);
  });

  it('shows the total Q of a closed box instead of a tuning', () => {
    open({ remedies: [remedy({ outcome: { tuning: null, qtc: 0.714, f3: null, volume: 0.04 } })] });
    expect(screen.getByRole('article').textContent).toContain('in the air of the design: Qtc 0.71');
  });

  it('reads in inches where those are preferred', () => {
    preferences.set({ units: { length: 'in' } });
    open({ remedies: [remedy({})] });
    expect(screen.getByRole('heading', { level: 4 }).textContent).toBe('Cut each port by 1 17/32 in');
  });

  it('is drawn and taken away again by one button', () => {
    const { onForetell } = open({ remedies: [remedy({})] });
    press('Show its lines');
    expect(onForetell).toHaveBeenLastCalledWith('port');
    cleanup();
    const again = open({ remedies: [remedy({})] }, 'port');
    const button = screen.getByRole('button', { name: 'Hide its lines' });
    expect(button.getAttribute('aria-pressed')).toBe('true');
    fireEvent.click(button);
    expect(again.onForetell).toHaveBeenLastCalledWith(null);
  });

  it('becomes a variant, or a note in the log where the design stays', () => {
    const first = open({ remedies: [remedy({})] });
    press('Make it a variant');
    expect(first.onRemedy).toHaveBeenCalledWith(remedy({}));
    cleanup();
    const seal = remedy({ id: 'seal', title: 'Seal the leak', design: null });
    const second = open({ remedies: [seal] });
    expect(screen.getByText(/The design stays as it is/)).toBeTruthy();
    press('Note it in the log');
    expect(second.onRemedy).toHaveBeenCalledWith(seal);
  });

  it('is done to the simulated box by as much as was found, then noted, then the plan is open', async () => {
    const { onRemedy, onPlan } = open({ remedies: [remedy({})] });
    press('Do it to the simulated box');
    await waitFor(() => expect(onPlan).toHaveBeenCalled());
    expect(told).toEqual(['act cut 39.4']);
    expect(onRemedy).toHaveBeenCalledOnce();
  });

  it('is not noted where the simulated box refuses it', async () => {
    refusal = new Error('The measuring box is unplugged.');
    const { onRemedy, onPlan } = open({ remedies: [remedy({})] });
    press('Do it to the simulated box');
    expect(await screen.findByText(/unplugged/)).toBeTruthy();
    expect(onRemedy).not.toHaveBeenCalled();
    expect(onPlan).not.toHaveBeenCalled();
  });

  it('is never done to a real measuring box', () => {
    rig = { simulated: false };
    open({ remedies: [remedy({})] });
    expect(screen.queryByRole('button', { name: 'Do it to the simulated box' })).toBeNull();
  });
});

describe('what the simulated box is told', () => {
  it.each([
    ['seal', '', null, 'act seal'],
    ['swap', '', null, 'act swap'],
    ['port', '39 mm', 39.44, 'act cut 39.4'],
    ['port', '39 mm', -12.06, 'act cut -12.1'],
    ['port', '39 mm', null, null],
    ['block', '4.5 l of wood', null, 'act block 4.5'],
    ['fill', '6 l more', null, 'act block -6'],
    ['fill', 'some wool', null, null],
    ['grams', '12 g', 3, null],
  ])('%s by "%s" with a cut of %s', (id, by, cut, command) => {
    expect(actOf({ id, by }, cut)).toBe(command);
  });
});

describe('what was measured', () => {
  const measured = (name: string): RawDesign => ({
    ...slot,
    driver: { ...slot.driver, name, sources: { fs: { kind: 'measured', on: '2026-05-01' } } },
  });

  it('becomes a variant, and its driver goes into the library once, told from its sheet by its name', async () => {
    const { onTry } = open({ as_found: measured('Heron 250/4') });
    press('New variant as measured');
    expect(onTry).toHaveBeenCalledWith(measured('Heron 250/4'));
    press('Driver into the library');
    const done = await screen.findByRole('button', { name: 'In the library' });
    expect((done as HTMLButtonElement).disabled).toBe(true);
    expect(added.map(({ name }) => name)).toEqual(['Heron 250/4, measured 2026-05-01']);
  });

  it('has a name that the library takes, however long the sheet’s is', async () => {
    open({ as_found: measured('H'.repeat(119)) });
    press('Driver into the library');
    await screen.findByRole('button', { name: 'In the library' });
    expect(added[0]?.name).toHaveLength(120);
  });

  it('offers no driver where the sheet is all there is', () => {
    open({ as_found: slot });
    expect(screen.queryByRole('button', { name: 'Driver into the library' })).toBeNull();
    expect(screen.getByRole('button', { name: 'New variant as measured' })).toBeTruthy();
  });
});

describe('level by level', () => {
  const step = (level: number) => ({ level, second: [40, 1.24], third: null, compression: [30, 0.42] });
  const one = (change: object): MeasuringReport['linearity'][number] => ({
    of: 'nearfield_cone',
    driver: 2,
    steps: [step(-30), step(-24)],
    music: -30,
    maximum: -24,
    ...change,
  });

  it.each([
    [{}, 'Clean enough for music up to −30 dB; as a maximum up to −24 dB.'],
    [{ music: -24 }, 'Clean at every level that was played: it may go louder.'],
    [{ music: null }, 'Not clean enough for music at any of these levels; as a maximum up to −24 dB.'],
    [
      { music: null, maximum: null },
      'Not clean at any of these levels: the input is overdriven, or something scrapes.',
    ],
  ])('with %j says so in words', (change, words) => {
    render(<LinearityTable one={one(change)} />);
    expect(screen.getByText(words)).toBeTruthy();
  });

  it('names the worst of each, and a dash where nothing was told', () => {
    render(<LinearityTable one={one({})} />);
    expect(screen.getByRole('heading').textContent).toMatch(/ 2$/);
    expect(screen.getAllByRole('row')[1]?.textContent).toBe('−30 dB1.2 % at 40 Hz–0.42 dB at 30 Hz');
  });
});

describe('beside the axis', () => {
  it('is what is lost at three notes, and where it begins to beam', () => {
    const lost = [
      [100, -0.2],
      [200, -1.04],
      [300, -3],
    ];
    render(
      <AngleTable
        angles={[
          { angle: 30, lost, beams: 412 },
          { angle: 60, lost: [], beams: null },
        ]}
      />,
    );
    const rows = screen.getAllByRole('row').map((row) => row.textContent);
    expect(rows[1]).toBe('30°−0.2 dB−1.0 dB–412 Hz');
    expect(rows[2]).toBe('60°–––not within the trace');
  });
});
