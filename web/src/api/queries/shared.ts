// The cache of what the server answers, and what all queries share.

import { QueryClient, useMutation, useQueryClient } from '@tanstack/react-query';
import { Unreachable } from '../client';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { retry: (count, error) => error instanceof Unreachable && count < 5, staleTime: 10_000 },
  },
});

export const keys = { drivers: ['drivers'], builds: ['builds'], jobs: ['jobs'] };

/** A change to the library or the builds; what it makes old is fetched anew. */
export function useChange<Input, Result>(of: keyof typeof keys, change: (input: Input) => Promise<Result>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => client.invalidateQueries({ queryKey: keys[of] }),
  });
}

export const ASKED_ONCE = { gcTime: 5000, retry: false } as const;
