// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest';
import { preferences } from '../../model/preferences';
import type { Suggestion, Turn } from '../../schema/types';
import { slot } from '../../testing/nook';
import { costWords, suggestedDesign, suggestionDetail, suggestionWords } from './suggestions';

const volume: Turn = {
  id: 'volume',
  name: 'Volume',
  dimension: 'volume',
  unit: 'l',
  before: 0.044,
  after: 0.051,
};
const tuning: Turn = {
  id: 'tuning',
  name: 'Tuning',
  dimension: 'frequency',
  unit: 'Hz',
  before: 29,
  after: 26,
};
const suggestion = (turns: Turn[], words = ''): Suggestion => ({
  words,
  turns,
  reached: '26.8 Hz',
  effects: [],
  costs: [{ id: 'sensitivity', name: 'Sensitivity', before: 86.24, after: 84.1 }],
  caveat: '',
  harms: 0,
  design: slot,
  brief: null,
});

beforeEach(() => preferences.reset());

describe('what fixes a design', () => {
  it('is said by how much, and from what to what', () => {
    expect(suggestionWords(suggestion([volume, tuning]))).toBe('7 l more volume and Tuning 3 Hz lower');
    expect(suggestionDetail(suggestion([volume, tuning]))).toBe('Volume 44 l → 51 l, Tuning 29 Hz → 26 Hz');
    expect(suggestionWords(suggestion([], 'Twice the drivers, in series'))).toBe(
      'Twice the drivers, in series',
    );
  });

  it('tells what it costs', () => {
    expect(suggestion([volume]).costs.map(costWords)).toEqual(['Sensitivity 86.2 → 84.1 dB']);
  });

  it('is said in the units of the reader', () => {
    preferences.set({ units: { volume: 'cuft' } });
    expect(suggestionWords(suggestion([volume]))).toBe('0.247 cuft more volume');
  });

  it('becomes a variant whose name tells it', () => {
    expect(suggestedDesign(slot, suggestion([volume]))?.name).toBe('Slot, all-round, 7 l more volume');
    expect(suggestedDesign(slot, { ...suggestion([volume]), design: null })).toBeNull();
  });
});
