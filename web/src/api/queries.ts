// The library and the builds, cached by key.

import { QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, api, Unreachable } from './client';
import type { RawAsk, RawDriver } from './types';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { retry: (count, error) => error instanceof Unreachable && count < 5, staleTime: 10_000 },
  },
});

const keys = { drivers: ['drivers'], builds: ['builds'] };

export function useDrivers() {
  return useQuery({ queryKey: keys.drivers, queryFn: () => answered(api.GET('/api/v1/drivers')) });
}

export function useBuilds() {
  return useQuery({ queryKey: keys.builds, queryFn: () => answered(api.GET('/api/v1/builds')) });
}

/** A build opened for work. Never served from the cache: the workbench keeps its own state. */
export function useBuild(id: string) {
  return useQuery({
    queryKey: ['build', id],
    queryFn: () => answered(api.GET('/api/v1/builds/{id}', { params: { path: { id } } })),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    refetchOnReconnect: false,
  });
}

/** A change to the library or the builds; what it makes old is fetched anew. */
export function useChange<Input, Result>(of: keyof typeof keys, change: (input: Input) => Promise<Result>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => client.invalidateQueries({ queryKey: keys[of] }),
  });
}

/** Completes a data sheet as it is typed. */
export function useCompletion(driver: RawDriver) {
  return useQuery({
    queryKey: ['completion', driver],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/drivers/resolve', { body: driver, signal })),
    placeholderData: (previous) => previous,
    retry: false,
  });
}

/** What every school of a family would begin with. */
export function useStarts(ask: RawAsk) {
  return useQuery({
    queryKey: ['starts', ask],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/starts', { body: ask, signal })),
    retry: false,
  });
}
