// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Recommendation } from '../../schema/types';
import { kind } from '../../testing/kind';
import { slot } from '../../testing/nook';
import { Recommended } from './Recommended';

let answer: { data?: Recommendation; error: Error | null; isPlaceholderData: boolean };
vi.mock('../../api/queries/design', () => ({ useRecommendation: () => answer }));
vi.mock('../workbench/FigureCard', () => ({
  SuggestionList: ({ check }: { check: string }) => <p>ways to fix {check}</p>,
}));

afterEach(cleanup);

const LOUDNESS = {
  id: 'loudness',
  name: 'Loudness, clean',
  reached: '95.0 dB',
  words: '5.0 dB short at 30 Hz',
};

beforeEach(() => {
  answer = {
    error: null,
    isPlaceholderData: false,
    data: {
      family: 'ported',
      sentences: ['A ported box suits best.', 'Sealed gives 42 l outside.'],
      assumed: 'No lowest note is asked for: taken as 24 Hz.',
      kinds: [
        kind({}),
        kind({ family: 'sealed', name: 'Sealed', short: [LOUDNESS], effort: 1 }),
        kind({
          family: 'passive_radiator',
          name: 'Passive radiator',
          buildable: false,
          short: [{ ...LOUDNESS, id: 'fits', words: 'the radiator does not fit' }],
        }),
        kind({
          family: 'line',
          name: 'Transmission line',
          considered: false,
          design: null,
          reason: 'Too long to fold.',
        }),
      ],
    },
  };
});

function open() {
  const [onBrief, onMake] = [vi.fn(), vi.fn()];
  render(
    <Recommended
      driver={slot.driver}
      brief={{ lowest: '30 Hz' }}
      busy={false}
      onBrief={onBrief}
      onMake={onMake}
    />,
  );
  return { onBrief, onMake };
}

describe('what is recommended', () => {
  it('says which and what the others would give, and makes the box', () => {
    const { onMake } = open();
    expect(screen.getByText('A ported box suits best.')).toBeTruthy();
    expect(screen.getByText('Sealed gives 42 l outside.')).toBeTruthy();
    expect(screen.getByText(/^No lowest note is asked for/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Make this box' }));
    expect(onMake).toHaveBeenCalledWith(slot);
    expect(screen.queryByRole('button', { name: /^What would fix/ })).toBeNull();
  });

  it('lists every kind with its figures, what is short, or why there is none', () => {
    open();
    const row = (name: RegExp) => within(screen.getByRole('row', { name }));
    const ported = row(/^Ported/);
    for (const words of ['57 l', '29.9 Hz', '103 dB', '120', 'some care', 'nothing'])
      expect(ported.getByText(words)).toBeTruthy();
    expect(row(/^Sealed/).getByText('loudness')).toBeTruthy();
    expect(
      row(/^Passive radiator/).getByText('Cannot be built here: the radiator does not fit.'),
    ).toBeTruthy();
    const others = screen.getByText('The other kinds, for those who like to build').closest('details');
    expect(within(others as HTMLElement).getByText('Too long to fold.')).toBeTruthy();
  });

  it('leads to what would fix the worst of what is short', () => {
    const data = answer.data as Recommendation;
    answer.data = { ...data, kinds: [kind({ short: [LOUDNESS], worst: 0.6 }), ...data.kinds.slice(1)] };
    open();
    const opener = screen.getByRole('button', { name: 'What would fix loudness' });
    expect(opener.getAttribute('aria-expanded')).toBe('false');
    fireEvent.click(opener);
    expect(screen.getByText('ways to fix loudness')).toBeTruthy();
  });

  it('makes nothing of an answer to what was asked before', () => {
    answer.isPlaceholderData = true;
    open();
    for (const button of screen.getAllByRole('button', { name: /^Make/ })) {
      expect((button as HTMLButtonElement).disabled).toBe(true);
    }
  });

  it('waits, and says what went wrong', () => {
    answer = { error: null, isPlaceholderData: false };
    open();
    expect(screen.getByText('Working out every kind of cabinet …')).toBeTruthy();
    cleanup();
    answer = { error: new Error('The server is away.'), isPlaceholderData: false };
    open();
    expect(screen.getByRole('alert').textContent).toContain('The server is away.');
  });
});
