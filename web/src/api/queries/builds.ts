// Builds, their documents, and briefs to begin with.

import { useMutation, useQuery } from '@tanstack/react-query';
import type { RawBrief } from '../../schema/types';
import { answered, api, Refusal } from '../client';
import { keys } from './shared';

/** The builds in hand, or those that were archived. */
export function useBuilds(archived = false) {
  return useQuery({
    queryKey: [...keys.builds, archived],
    queryFn: () => answered(api.GET('/api/v1/builds', { params: { query: { archived } } })),
    // A build is renamed on its own page.
    staleTime: 0,
  });
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

/** A build as it is on the server now, for a page that only reads it. */
export function useBuildNow(id: string) {
  return useQuery({
    queryKey: ['build now', id],
    queryFn: () => answered(api.GET('/api/v1/builds/{id}', { params: { path: { id } } })),
    staleTime: 0,
    gcTime: 0,
  });
}

/** Briefs to begin with. */
export function useBriefs() {
  return useQuery({
    queryKey: ['briefs'],
    queryFn: () => answered(api.GET('/api/v1/briefs')),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** Has the server look at a brief before it is saved; where it does not answer, the outbox asks later. */
export function useCheckedBrief() {
  return useMutation({
    mutationFn: async (brief: RawBrief) => {
      try {
        await answered(api.POST('/api/v1/briefs/check', { body: brief }));
      } catch (error) {
        if (error instanceof Refusal) throw error;
      }
    },
  });
}

/** Every saved state of a document, newest first. */
export function useRevisions(id: string) {
  return useQuery({
    queryKey: ['revisions', id],
    queryFn: () => answered(api.GET('/api/v1/documents/{id}/revisions', { params: { path: { id } } })),
    staleTime: 0,
    gcTime: 0,
  });
}

/** The documents of a build that were archived. */
export function useArchived(build: string) {
  return useQuery({
    queryKey: ['archived', build],
    queryFn: () => answered(api.GET('/api/v1/builds/{id}/archived', { params: { path: { id: build } } })),
    staleTime: 0,
    gcTime: 0,
  });
}
