// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../../model/preferences';
import type { LearnedDesign, LearnedValue } from '../../schema/types';
import { leakage, learnedDesign, ply } from '../../testing/learned';
import { slot } from '../../testing/nook';
import { LearnedPanel } from './LearnedPanel';

let values: LearnedValue[];
let answer: LearnedDesign;
const asked: [boolean, boolean][] = [];
vi.mock('../../api/queries/measure', () => ({
  useLearned: () => ({ data: values, error: null, isSuccess: true }),
  useWithLearned: (_design: unknown, few: boolean, asks: boolean) => {
    asked.push([few, asks]);
    return { data: asks ? answer : undefined, error: null };
  },
}));

beforeEach(() => {
  values = [leakage, ply];
  answer = learnedDesign;
  asked.splice(0);
});
afterEach(() => {
  cleanup();
  preferences.set({ units: {} });
});

describe('what the workshop has learned', () => {
  const open = () => {
    const onUse = vi.fn();
    render(<LearnedPanel design={slot} onUse={onUse} />);
    return onUse;
  };

  it('is a table of what the next box will have, how sure, and from how many builds', () => {
    open();
    const rows = screen.getAllByRole('row').map((row) => row.textContent);
    expect(rows[1]).toBe('Leakage (QL)butt joints11usually 79 to 151 buildfew yet');
    expect(rows[2]).toBe(
      'ThicknessBirch plywood sold as 18 mm17.5 mmsold as 18 mm17.3 mm to 17.6 mm3 builds',
    );
  });

  it('reads in inches where those are preferred', () => {
    preferences.set({ units: { length: 'in' } });
    open();
    expect(screen.getAllByRole('row')[2]?.textContent).toContain('11/16 in');
  });

  it('says what it would set here before it does', () => {
    const onUse = open();
    expect(asked).toContainEqual([true, true]);
    expect(screen.getByText(/would set: QL 11 \(butt joints, 1 build\); ports act longer/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Use it in this variant' }));
    expect(onUse).toHaveBeenCalledWith(answer.design);
  });

  it('offers no button where nothing is open', () => {
    answer = { design: slot, set: [] };
    open();
    expect(screen.queryByRole('button')).toBeNull();
    expect(screen.getByText(/Nothing of it is open in this variant/)).toBeTruthy();
  });

  it('says how to begin where nothing is learned', () => {
    values = [];
    open();
    expect(screen.queryByRole('table')).toBeNull();
    expect(screen.getByText(/Nothing is learned yet/)).toBeTruthy();
    expect(asked.every(([, asks]) => !asks)).toBe(true);
  });
});
