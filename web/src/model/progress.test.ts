import { expect, it } from 'vitest';
import { mergedProgress } from './progress';

const tick = (step: string, at = '2026-12-01T10:00:00Z') => ({ step, at });

it('puts what was ticked here on top of what was ticked elsewhere', () => {
  const base = { ticks: [tick('cut'), tick('label')] };
  // Here one was taken off and one added; elsewhere another was added and one taken off.
  const mine = { ticks: [tick('cut'), tick('glue')] };
  const theirs = { ticks: [tick('label'), tick('dry')] };
  const { ticks } = mergedProgress(mine, theirs, base);
  expect(ticks?.map(({ step }) => step).sort()).toEqual(['dry', 'glue']);
});

it('keeps a tick that was changed here alone, and what was printed', () => {
  const later = tick('cut', '2026-12-01T12:00:00Z');
  const print = { page: 'book', at: '2026-12-01T09:00:00Z', said: [] };
  const merged = mergedProgress(
    { ticks: [later] },
    { ticks: [tick('cut')], printed: [print] },
    { ticks: [tick('cut')] },
  );
  expect(merged).toEqual({ ticks: [later], printed: [print] });
});
