// Where a build is listened to.

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { PlaceSearch, RawDesign } from '../../schema/types';
import { answered, api } from '../client';
import { useConditions } from '../conditions';
import { runs } from './jobs';

/** How often a search that runs is looked at, ms. */
const LOOK = 200;

function useQuestion(design: RawDesign) {
  const { brief, conditions } = useConditions();
  return { design, conditions, ...(brief && { brief }) };
}

/** What the place of the conditions does to a design; nothing is asked where none is chosen, and on the bench. */
export function usePlace(design: RawDesign) {
  const question = useQuestion(design);
  const { basis, place } = question.conditions;
  return useQuery({
    queryKey: ['place', question],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/place', { body: question, signal })),
    enabled: Boolean(place) && basis === 'in_use',
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

/** How loud a frequency is everywhere; null asks nothing. */
export function useLevelMap(design: RawDesign, frequency: number | null) {
  const question = useQuestion(design);
  return useQuery({
    queryKey: ['level map', question, frequency],
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/place/map', {
          params: { query: { frequency: frequency as number } },
          body: question,
          signal,
        }),
      ),
    enabled: frequency !== null && Boolean(question.conditions.place),
    placeholderData: (previous) => (frequency === null ? undefined : previous),
    gcTime: 2000,
    retry: false,
  });
}

const searchKey = (build: string) => ['best places', build];

/** The newest search for places of a build, looked at again while it runs. */
export function useBestPlaces(build: string) {
  return useQuery({
    queryKey: searchKey(build),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/v1/builds/{id}/best-places', { params: { path: { id: build } }, signal })),
    refetchInterval: ({ state }) => (runs(state.data?.job) ? LOOK : false),
  });
}

/** Starts to look for the best places. */
export function useStartBestPlaces(build: string, design: RawDesign) {
  const client = useQueryClient();
  const question = useQuestion(design);
  return useMutation({
    mutationFn: (cabinets: number): Promise<PlaceSearch> =>
      answered(
        api.POST('/api/v1/builds/{id}/best-places', {
          params: { path: { id: build } },
          body: { question, cabinets },
        }),
      ),
    onSuccess: (started) => client.setQueryData(searchKey(build), started),
  });
}

/** Stops a search. */
export function useStopBestPlaces(build: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (job: string) =>
      answered(api.POST('/api/v1/jobs/{id}/cancel', { params: { path: { id: job } } })),
    onSettled: () => client.invalidateQueries({ queryKey: searchKey(build) }),
  });
}
