// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { familyEntry } from '../../model/families';
import type { KindReport, RawAsk, RawDesign, Recommendation, StartReport } from '../../schema/types';
import { kind } from '../../testing/kind';
import { sealed, slot } from '../../testing/nook';
import { CabinetDialog } from './CabinetDialog';

let recommended: Recommendation | undefined;
let starts: { data?: StartReport[]; error?: Error; isPending: boolean; isFetching: boolean };
let asked: RawAsk[];
vi.mock('../../api/queries/design', () => ({
  useRecommendation: () => ({ data: recommended }),
  useStarts: (ask: RawAsk) => {
    asked.push(ask);
    return starts;
  },
}));
vi.mock('../../api/queries/library', () => ({ useCompletion: () => ({ data: { ebp: 74 } }) }));
vi.mock('../../ui/Dialog', () => ({
  Dialog: ({ title, children }: { title: string; children: ReactNode }) => (
    <section aria-label={title}>{children}</section>
  ),
}));

beforeEach(() => {
  asked = [];
  recommended = undefined;
  starts = { data: [], isPending: false, isFetching: false };
});
afterEach(cleanup);

/** The sealed box of the demo. */
const closed = (change: Partial<KindReport>) =>
  kind({ family: 'sealed', name: 'Sealed', design: sealed, outside: 0.0421, f3: 44.1, ...change });

function ranked(...kinds: KindReport[]): Recommendation {
  return { family: kinds[0]?.family, sentences: ['Ported suits best.'], kinds } as unknown as Recommendation;
}

function start(change: Partial<StartReport>): StartReport {
  return { starting_point: 'flat', name: 'Flat', reason: 'QB3.', design: slot, ...change } as StartReport;
}

const onHere = vi.fn();
const onNew = vi.fn();

function open(change: { design?: RawDesign; begun?: boolean } = {}) {
  const { design = sealed as RawDesign, begun = true } = change;
  onHere.mockClear();
  onNew.mockClear();
  const dialog = () => (
    <CabinetDialog {...{ design, begun, onHere, onNew }} brief={null} onClose={() => undefined} />
  );
  const { rerender } = render(dialog());
  return () => rerender(dialog());
}

const kinds = () => screen.getAllByRole('radio').map((radio) => radio.getAttribute('aria-label'));
const radio = (name: string) => screen.getByRole('radio', { name });
const ported = kind({});

describe('the kinds of cabinet', () => {
  it('stand in the order of what they do here, once that is known, with size, note and what is short', () => {
    const again = open();
    expect(kinds().slice(0, 2)).toEqual(['Sealed', 'Ported']);
    recommended = ranked(
      ported,
      closed({ short: [{ name: 'Lowest note, −3 dB' }] as KindReport['short'] }),
      closed({ family: 'line', name: 'Transmission line', buildable: false }),
      closed({ family: 'back_horn', name: 'Back-loaded horn', design: null }),
    );
    again();
    expect(kinds().slice(0, 3)).toEqual(['Ported', 'Sealed', 'Transmission line']);
    expect(radio('Ported').textContent).toContain('57 l · 29.9 Hz');
    expect(radio('Ported').textContent).toContain('meets it');
    expect(radio('Sealed').textContent).toContain('short: lowest note');
    expect(radio('Transmission line').textContent).toContain('cannot be built');
    expect(radio('Back-loaded horn').textContent?.trim()).toBe('Back-loaded horn');
    // What has no box to rank by comes last, and none is listed twice.
    expect(kinds().slice(-2)).toEqual(['Open baffle', 'Infinite baffle']);
    expect(new Set(kinds()).size).toBe(kinds().length);
  });

  it('do not move under a hand, and each is as high before it says how it does as after', () => {
    const again = open();
    const list = screen.getByRole('radiogroup', { name: 'Kind of cabinet' });
    const before = screen.getAllByRole('radio').map((one) => one.className);
    fireEvent.pointerEnter(list);
    recommended = ranked(ported, closed({}));
    again();
    expect(kinds().slice(0, 2)).toEqual(['Sealed', 'Ported']);
    expect(screen.getAllByRole('radio').map((one) => one.className)).toEqual(before);
    expect(before.every((names) => names.includes('min-h-'))).toBe(true);
    fireEvent.pointerLeave(list);
    expect(kinds().slice(0, 2)).toEqual(['Ported', 'Sealed']);
  });

  it('begin with the one that is there, else with what suits, and keep what was chosen', () => {
    const line = closed({ family: 'line', name: 'Transmission line' });
    recommended = ranked(ported, closed({}), line);
    open();
    expect(radio('Sealed').getAttribute('aria-checked')).toBe('true');
    cleanup();
    const again = open({ begun: false });
    expect(radio('Ported').getAttribute('aria-checked')).toBe('true');
    expect(screen.getByText('Ported suits best.')).toBeTruthy();
    fireEvent.click(radio('Transmission line'));
    recommended = ranked(closed({}), ported, line);
    again();
    expect(radio('Transmission line').getAttribute('aria-checked')).toBe('true');
    expect(screen.queryByText('Ported suits best.')).toBeNull();
    expect(screen.getByText(familyEntry('line').good)).toBeTruthy();
    expect(asked.at(-1)?.family).toBe('line');
  });
});

describe('a starting point', () => {
  it('takes the place of the design or becomes a variant of its own, named after its kind', () => {
    starts.data = [
      start({}),
      start({ starting_point: 'none', name: 'At Fs', reason: 'No port.', design: null }),
    ];
    open();
    fireEvent.click(screen.getByRole('button', { name: 'Replace this design: Flat' }));
    expect(onHere.mock.calls[0]?.[0].enclosure).toEqual(slot?.enclosure);
    expect(onHere.mock.calls[0]?.[0].driver).toEqual(sealed?.driver);
    fireEvent.click(screen.getByRole('button', { name: 'New variant: Flat' }));
    expect(onNew.mock.calls[0]?.[0].name).toBe('Sealed, flat');
    const none = within(screen.getByText('At Fs').closest('li') as HTMLElement);
    expect(none.queryByRole('button')).toBeNull();
    expect(none.getByText('No start here.')).toBeTruthy();
  });

  it('is all there is to begin with where nothing is on the bench', () => {
    starts.data = [start({})];
    open({ begun: false });
    expect(screen.queryByRole('button', { name: /^Replace/ })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Start: Flat' }));
    expect(onNew).toHaveBeenCalledOnce();
  });

  it('to the brief comes first and does not say twice what one of the others says', () => {
    recommended = ranked(closed({ reason: 'Qtc 0.71.' }));
    starts.data = [start({ reason: 'Qtc 0.71.', name: 'Flattest' })];
    open();
    const names = screen.getAllByRole('heading', { level: 4 }).map((one) => one.textContent);
    expect(names).toEqual(['To the brief', 'Flattest']);
    expect(screen.getByText(/the box "Flattest" does most of what the brief asks/)).toBeTruthy();
    // Whoever wishes for a size of his own asks something else.
    fireEvent.change(screen.getByRole('textbox', { name: 'Largest size' }), { target: { value: '30 l' } });
    fireEvent.keyDown(screen.getByRole('textbox', { name: 'Largest size' }), { key: 'Enter' });
    expect(asked.at(-1)?.volume).toBe('30 l');
    expect(screen.queryByText('To the brief')).toBeNull();
  });

  it('says what is wrong with the question', () => {
    starts.error = new Error('driver.fs is missing');
    open();
    expect(screen.getByRole('alert').textContent).toBe('driver.fs is missing');
  });
});
