// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../../model/preferences';
import type { LearnedDesign, LearnedValue } from '../../schema/types';
import { leakage, learnedDesign, ply } from '../../testing/learned';
import { slot } from '../../testing/nook';
import { LearnedOffer } from './LearnedOffer';

let values: LearnedValue[];
let answer: LearnedDesign;
let before = false;
const asked: [boolean, boolean][] = [];
vi.mock('../../api/queries/measure', () => ({
  useLearned: () => ({ data: values, error: null, isSuccess: true }),
  useWithLearned: (_design: unknown, few: boolean, asks: boolean) => {
    asked.push([few, asks]);
    return { data: asks ? answer : undefined, error: null, isPlaceholderData: before };
  },
}));

beforeEach(() => {
  values = [leakage, ply];
  answer = learnedDesign;
  asked.splice(0);
  before = false;
});
afterEach(() => {
  cleanup();
  preferences.set({ units: {} });
});

describe('the offer in a variant', () => {
  const open = () => {
    const onUse = vi.fn();
    const { container } = render(<LearnedOffer design={slot} onUse={onUse} />);
    return { onUse, container };
  };

  it('names values and builds, and takes them in one press', () => {
    const { onUse } = open();
    expect(screen.getByText(/Your own boxes say: QL 11/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Use it' }));
    expect(onUse).toHaveBeenCalledWith(answer.design);
  });

  it('reads in inches where those are preferred', () => {
    preferences.set({ units: { length: 'in' } });
    expect(open().container.textContent).toContain('ports act longer by 3/32 in (slot ports, 3 builds)');
  });

  it('is not taken while its answer is to the design as it was before', () => {
    before = true;
    const { onUse } = open();
    fireEvent.click(screen.getByRole('button', { name: 'Use it' }));
    expect(onUse).not.toHaveBeenCalled();
  });

  it('goes away when it is not wanted', () => {
    const { container, onUse } = open();
    fireEvent.click(screen.getByRole('button', { name: 'Not now' }));
    expect(container.textContent).toBe('');
    expect(onUse).not.toHaveBeenCalled();
  });

  it('asks for nothing that only a few builds say', () => {
    open();
    expect(asked.every(([few]) => !few)).toBe(true);
  });

  it('is not there, and asks nothing, while no value has more than two builds', () => {
    values = [leakage];
    expect(open().container.textContent).toBe('');
    expect(asked.every(([, asks]) => !asks)).toBe(true);
  });

  it('is not there where nothing would be set', () => {
    answer = { design: slot, set: [] };
    expect(open().container.textContent).toBe('');
  });
});
