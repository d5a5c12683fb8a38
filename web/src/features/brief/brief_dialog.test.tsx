// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Refusal } from '../../api/client';
import { preferences } from '../../model/preferences';
import type { ProblemDocument, RawBrief } from '../../schema/types';
import { BriefDialog } from './BriefDialog';

const checked: RawBrief[] = [];
let refusal: Refusal | null = null;
vi.mock('../../api/queries/builds', () => ({
  useBriefs: () => ({
    data: [
      {
        id: 'film',
        name: 'Home, film',
        about: 'Loud peaks.',
        brief: { template: 'film', lowest: '20 Hz', programme: 'film' },
      },
      { id: 'bass', name: 'Bass guitar', about: 'Low E.', brief: { template: 'bass', lowest: '41 Hz' } },
    ],
  }),
  useCheckedBrief: () => ({
    mutate: (brief: RawBrief, { onSuccess }: { onSuccess: () => void }) => {
      checked.push(brief);
      if (!refusal) onSuccess();
    },
    isPending: false,
    error: refusal,
  }),
}));

const on = { onKeep: vi.fn(), onSearch: vi.fn(), onHistory: vi.fn(), onClose: vi.fn() };
const open = (brief: RawBrief | null) => render(<BriefDialog brief={brief} {...on} />);
const field = (name: string) => screen.getByRole('textbox', { name }) as HTMLInputElement;
function type(name: string, text: string) {
  fireEvent.change(field(name), { target: { value: text } });
  fireEvent.blur(field(name));
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

beforeEach(() => {
  refusal = null;
  checked.splice(0);
  for (const told of Object.values(on)) told.mockReset();
});
afterEach(() => {
  cleanup();
  preferences.reset();
});

describe('the brief', () => {
  it('begins with a template, which is marked, and goes on from there', () => {
    open(null);
    fireEvent.click(screen.getByRole('button', { name: /Home, film/ }));
    expect(screen.getByRole('button', { name: /Home, film/ }).getAttribute('aria-pressed')).toBe('true');
    expect(field('Lowest note').value).toBe('20 Hz');
    type('Lowest note', '25');
    press('Save the brief');
    expect(on.onKeep).toHaveBeenCalledWith({ template: 'film', lowest: '25 Hz', programme: 'film' });
  });

  it('takes a note for a frequency, and says nothing of what is cleared', () => {
    open({ lowest: '30 Hz', budget: 300 });
    type('Lowest note', 'E1');
    type('Budget', '');
    press('Save the brief');
    expect(on.onKeep).toHaveBeenCalledWith({ lowest: 'E1' });
  });

  it('refuses a value outside its range before anything is sent', () => {
    open({ lowest: '30 Hz' });
    type('Lowest note', '3000 Hz');
    expect(screen.getByRole('alert').textContent).toContain('3000 Hz is outside');
    press('Save the brief');
    expect(checked.every(({ lowest }) => lowest === '30 Hz')).toBe(true);
  });

  it('says beside its field what the server refuses, and is not saved then', () => {
    const problem = {
      title: 'The brief cannot be used',
      status: 422,
      errors: [{ field: 'brief.depth', message: 'depth 20 mm: the driver is 140 mm deep' }],
    } as unknown as ProblemDocument;
    refusal = new Refusal(problem);
    open({ lowest: '30 Hz', depth: '20 mm' });
    expect(field('Depth').getAttribute('aria-invalid')).toBe('true');
    press('Save the brief');
    expect(checked).toHaveLength(1);
    expect(on.onKeep).not.toHaveBeenCalled();
  });

  it('offers the search once a lowest note is asked, and saves before it searches', () => {
    open({ loudness: '100 dB' });
    expect(screen.queryByRole('button', { name: 'Save and find drivers' })).toBeNull();
    type('Lowest note', '32 Hz');
    press('Save and find drivers');
    expect(checked).toEqual([{ loudness: '100 dB', lowest: '32 Hz' }]);
    expect(on.onSearch).toHaveBeenCalledWith({ loudness: '100 dB', lowest: '32 Hz' });
    expect(on.onKeep).not.toHaveBeenCalled();
  });

  it('allows the kinds that are marked, and all again when none is', () => {
    open({ lowest: '30 Hz' });
    const kinds = within(screen.getByRole('group', { name: /Kinds of cabinet/ }));
    fireEvent.click(kinds.getByRole('checkbox', { name: 'Ported' }));
    fireEvent.click(kinds.getByRole('checkbox', { name: 'Sealed' }));
    press('Save the brief');
    expect(on.onKeep).toHaveBeenLastCalledWith({ lowest: '30 Hz', families: ['ported', 'sealed'] });
    fireEvent.click(kinds.getByRole('checkbox', { name: 'Ported' }));
    fireEvent.click(kinds.getByRole('checkbox', { name: 'Sealed' }));
    press('Save the brief');
    // As if none had ever been marked, so that nothing counts as changed.
    expect(on.onKeep).toHaveBeenLastCalledWith({ lowest: '30 Hz' });
  });

  it('sets and clears what is chosen from a list', () => {
    open({});
    const choose = (name: string, value: string) =>
      fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
    choose('Where it stands', 'eighth');
    choose('What is played', 'film');
    choose('Air in ports', 'silent');
    press('Save the brief');
    expect(on.onKeep).toHaveBeenLastCalledWith({ space: 'eighth', programme: 'film', air_noise: 'silent' });
    choose('Where it stands', '');
    press('Save the brief');
    expect(on.onKeep).toHaveBeenLastCalledWith({ programme: 'film', air_noise: 'silent' });
  });

  it('leads to earlier ones only where there is one', () => {
    open({ lowest: '30 Hz' });
    press('Earlier briefs …');
    expect(on.onHistory).toHaveBeenCalled();
    cleanup();
    open(null);
    expect(screen.queryByRole('button', { name: 'Earlier briefs …' })).toBeNull();
  });

  it('is read in inches by who thinks so', () => {
    preferences.set({ units: { length: 'in' } });
    open({ depth: '254 mm' });
    expect(field('Depth').value).toBe('10 in');
    type('Width', '24');
    press('Save the brief');
    expect(on.onKeep).toHaveBeenCalledWith({ depth: '254 mm', width: '24 in' });
  });
});
