// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { DriverMatch } from '../../schema/types';
import { Progress } from './Progress';

afterEach(cleanup);

function show(change: Partial<DriverMatch>) {
  const onCancel = vi.fn();
  const match = { state: 'done', total: 26, done: 26, found: 0, complete: 0, failure: null, ...change };
  render(
    <MemoryRouter>
      <Progress match={match as DriverMatch} onCancel={onCancel} />
    </MemoryRouter>,
  );
  return { onCancel, text: document.body.textContent ?? '' };
}

describe('how a search stands', () => {
  it.each([
    [{ state: 'waiting', done: 0 }, '26 drivers to look at …'],
    [{ state: 'waiting', done: 0, total: 1 }, '1 driver to look at …'],
    [{ state: 'running', done: 4 }, '4 of 26 drivers looked at …'],
    [{ state: 'running' }, '26 drivers looked at. Drawing the boxes of the best …'],
    [{ state: 'cancelled', done: 9 }, 'Stopped after 9 of 26 drivers.'],
    [{ state: 'failed', done: 9, failure: 'no database' }, 'It failed after 9 of 26 drivers: no database'],
    [{}, '26 drivers looked at.'],
    [{ total: 0, done: 0 }, 'The library holds no drivers. Add drivers, typed from their sheets'],
    [{ found: 60, complete: 3 }, '3 of 60 cabinets reach everything.'],
    [{ found: 60 }, 'None of 60 cabinets reaches everything; the nearest are first'],
  ] as const)('%o is told as "%s"', (change, words) => {
    expect(show(change).text).toContain(words);
  });

  it('can be stopped while it runs, and is read out only when it has ended', () => {
    const { onCancel } = show({ state: 'running', done: 13 });
    const bar = screen.getByRole<HTMLProgressElement>('progressbar', { name: 'Drivers looked at' });
    expect([bar.value, bar.max]).toEqual([13, 26]);
    expect(document.querySelector('[aria-live]')?.getAttribute('aria-live')).toBe('off');
    fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(onCancel).toHaveBeenCalledOnce();
    cleanup();
    show({});
    expect(screen.queryByRole('button', { name: 'Stop' })).toBeNull();
    expect(document.querySelector('[aria-live]')?.getAttribute('aria-live')).toBe('polite');
  });
});
