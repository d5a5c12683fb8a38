// Pages for phones.

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answered, api } from '../client';

/** How often links are looked at while one may be in use, ms. */
const LOOK = 3000;

const keyOf = (build: string) => ['companion', build];

/** Whether phones can open pages, and the links of a build to them. */
export function useCompanions(build: string) {
  return useQuery({
    queryKey: keyOf(build),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/v1/builds/{id}/companion-links', { params: { path: { id: build } }, signal })),
    refetchInterval: ({ state }) => {
      const used = state.data?.links.some((link) => link.state === 'waiting' || link.state === 'joined');
      return used ? LOOK : false;
    },
  });
}

/** Makes a link that a phone opens once. */
export function useMakeLink(build: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (variant: string) =>
      answered(
        api.POST('/api/v1/builds/{id}/companion-links', {
          params: { path: { id: build } },
          body: { variant, purpose: 'steps' },
        }),
      ),
    onSettled: () => client.invalidateQueries({ queryKey: keyOf(build) }),
  });
}

/** Takes a link back. */
export function useRevokeLink(build: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      answered(api.POST('/api/v1/companion-links/{id}/revoke', { params: { path: { id } } })),
    onSettled: () => client.invalidateQueries({ queryKey: keyOf(build) }),
  });
}
