// Jobs, and what driver matches found.

import { useQuery } from '@tanstack/react-query';
import type { Job, RawEnclosure } from '../../schema/types';
import { answered, api } from '../client';
import { keys } from './shared';

/** How often a search that runs is looked at, ms. */
const LOOK = 300;

export function runs(job: Pick<Job, 'state'> | null | undefined): boolean {
  return job?.state === 'waiting' || job?.state === 'running';
}

/** All jobs, looked at again while one runs. */
export function useJobs() {
  return useQuery({
    queryKey: keys.jobs,
    queryFn: ({ signal }) => answered(api.GET('/api/v1/jobs', { signal })),
    refetchInterval: ({ state }) => (state.data?.some(runs) ? LOOK : false),
  });
}

/** The newest driver match of a build; null where there has been none. */
export function useMatchOf(build: string) {
  return useQuery({
    queryKey: ['match of', build],
    queryFn: () => answered(api.GET('/api/v1/builds/{id}/driver-match', { params: { path: { id: build } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** How a driver match stands and the best it has found, looked at again while it runs. */
export function useFound(id: string | undefined, family: RawEnclosure['family'] | undefined) {
  return useQuery({
    queryKey: ['found', id, family],
    queryFn: ({ signal }) => {
      const params = { path: { id: id as string }, query: { family, limit: 60 } };
      return answered(api.GET('/api/v1/driver-matches/{id}', { params, signal }));
    },
    enabled: id !== undefined,
    placeholderData: (previous) => (previous?.job.id === id ? previous : undefined),
    refetchInterval: ({ state }) => (runs(state.data?.job) ? LOOK : false),
  });
}

/** What was found as points; `done` is how many drivers it had looked at. */
export function usePoints(id: string | undefined, done: number | undefined) {
  return useQuery({
    queryKey: ['points', id, done],
    queryFn: ({ signal }) =>
      answered(
        api.GET('/api/v1/driver-matches/{id}/points', { params: { path: { id: id as string } }, signal }),
      ),
    enabled: id !== undefined && done !== undefined && done > 0,
    placeholderData: (previous, query) => (query?.queryKey[1] === id ? previous : undefined),
    gcTime: 0,
  });
}

/** Everything that came of one driver. */
export function useOutcomes(id: string, driver: string, done: number) {
  return useQuery({
    queryKey: ['outcomes', id, driver, done],
    queryFn: ({ signal }) => {
      const params = { path: { id, driver } };
      return answered(api.GET('/api/v1/driver-matches/{id}/drivers/{driver}', { params, signal }));
    },
    placeholderData: (previous) => previous,
    gcTime: 0,
  });
}
