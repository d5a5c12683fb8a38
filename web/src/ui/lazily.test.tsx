// @vitest-environment jsdom
import { render, screen } from '@testing-library/react';
import { Suspense } from 'react';
import { expect, it, vi } from 'vitest';
import { toasts } from '../model/toasts';
import { lazily, loadAhead } from './lazily';

it('is fetched when it is drawn', async () => {
  const load = vi.fn(async () => () => <p>here</p>);
  const Part = lazily(load);
  expect(load).not.toHaveBeenCalled();
  render(
    <Suspense>
      <Part />
    </Suspense>,
  );
  expect(await screen.findByText('here')).toBeTruthy();
});

it('is asked for again while the server is away, and says so', async () => {
  vi.useFakeTimers();
  const load = vi
    .fn<() => Promise<() => React.ReactNode>>()
    .mockRejectedValueOnce(new Error('away'))
    .mockResolvedValue(() => <p>back</p>);
  const Part = lazily(load);
  render(
    <Suspense>
      <Part />
    </Suspense>,
  );
  await vi.advanceTimersByTimeAsync(10);
  expect(toasts.snapshot().list.at(-1)?.words).toContain('does not answer');
  await vi.advanceTimersByTimeAsync(3000);
  vi.useRealTimers();
  expect(await screen.findByText('back')).toBeTruthy();
});

it('is fetched ahead once, and again only where that failed', async () => {
  vi.useFakeTimers();
  const good = vi.fn(async () => () => null);
  const bad = vi.fn(() => Promise.reject(new Error('away')));
  lazily(good);
  lazily(bad);
  loadAhead();
  await vi.advanceTimersByTimeAsync(1500);
  expect([good.mock.calls.length, bad.mock.calls.length > 0]).toEqual([1, true]);
  const stop = loadAhead();
  stop();
  await vi.advanceTimersByTimeAsync(1500);
  expect(good).toHaveBeenCalledTimes(1);
  vi.useRealTimers();
});
