// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Job } from '../../schema/types';
import { JobsPage } from './JobsPage';

let jobs: Job[];
const cancelled: string[] = [];
vi.mock('../../api/queries/jobs', () => ({
  runs: ({ state }: Job) => state === 'waiting' || state === 'running',
  useJobs: () => ({ data: jobs, error: null }),
}));
vi.mock('../../api/queries/shared', () => ({
  useChange: () => ({ isPending: false, error: null, mutate: (id: string) => cancelled.push(id) }),
}));
vi.mock('../shell/Shell', () => ({
  Shell: ({ children }: { children: ReactNode }) => children,
}));

function job(change: Partial<Job>): Job {
  return {
    id: 'j',
    kind: 'driver_match',
    name: 'Drivers for a brief',
    build: 'b',
    build_name: 'Nook',
    state: 'running',
    total: 40,
    done: 16,
    failure: null,
    created_at: '2026-11-29T10:00:00Z',
    finished_at: null,
    ...change,
  };
}

function row(title: string) {
  const found = screen.getAllByRole('row').find((one) => one.textContent?.includes(title));
  if (!found) throw new Error(`no row of ${title}`);
  return within(found);
}

function open(list: Job[]) {
  jobs = list;
  render(
    <MemoryRouter>
      <JobsPage />
    </MemoryRouter>,
  );
}

beforeEach(() => cancelled.splice(0));
afterEach(cleanup);

describe('the page of jobs', () => {
  it('says how far each is and leads to what it found', () => {
    open([job({})]);
    const found = row('Nook');
    expect(found.getByRole('link', { name: 'Drivers for a brief: Nook' }).getAttribute('href')).toBe(
      '/builds/b/find',
    );
    expect(found.getByText('Running')).toBeTruthy();
    const bar = found.getByRole('progressbar') as HTMLProgressElement;
    expect([bar.value, bar.max]).toEqual([16, 40]);
  });

  it('cancels what is at work, and only that', () => {
    open([
      job({ id: 'one' }),
      job({ id: 'two', build_name: 'Organ', state: 'finished', done: 40 }),
      job({ id: 'three', build_name: 'Barn', state: 'failed', failure: 'It was tried 5 times.' }),
    ]);
    expect(row('Organ').queryByRole('button')).toBeNull();
    expect(row('Barn').queryByRole('button')).toBeNull();
    expect(row('Barn').getByText('It was tried 5 times.')).toBeTruthy();
    fireEvent.click(row('Nook').getByRole('button', { name: /^Cancel/ }));
    expect(cancelled).toEqual(['one']);
  });

  it('names work of a kind it has no page for, and one over an empty library is not at nothing', () => {
    open([
      job({
        kind: 'of_a_later_version',
        name: 'Unknown work',
        build: null,
        build_name: null,
        total: 0,
        done: 0,
        state: 'finished',
      }),
    ]);
    const found = row('Unknown work');
    expect(found.queryByRole('link')).toBeNull();
    const bar = found.getByRole('progressbar') as HTMLProgressElement;
    expect(bar.value).toBe(bar.max);
  });

  it('says what a job is where there is none', () => {
    open([]);
    expect(screen.getByText(/Nothing has been started yet/)).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
  });
});
