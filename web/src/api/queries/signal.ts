// What comes before the drivers.

import { useQuery } from '@tanstack/react-query';
import type { BiquadSheet, RawDesign, ReadTrace } from '../../schema/types';
import { answered, api } from '../client';
import { useConditions } from '../conditions';

/** The chain of a design, block by block; the answer before stays on show until the next is there. */
export function useSignal(design: RawDesign) {
  const { brief, conditions } = useConditions();
  return useQuery({
    queryKey: ['signal', design, brief, conditions],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/signal', { body: { design, conditions, ...(brief && { brief }) }, signal })),
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

/** How the sub of a design and its mains add up; null asks nothing. */
export function useCrossover(design: RawDesign | null) {
  const { brief, conditions } = useConditions();
  return useQuery({
    queryKey: ['crossover', design, brief, conditions],
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/signal/crossover', {
          body: { design: design as RawDesign, conditions, ...(brief && { brief }) },
          signal,
        }),
      ),
    enabled: design !== null,
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

/** Kinds of amplifiers to begin with. */
export function useAmplifierKinds() {
  return useQuery({
    queryKey: ['amplifier-kinds'],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/amplifier-kinds', { signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** The filters of a design as biquads at a sample rate, 1/s. */
export function useBiquads(design: RawDesign, rate: number) {
  return useQuery({
    queryKey: ['biquads', design, rate],
    // As a document, whose type the description gives beside that of a table.
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/signal/biquads', {
          params: { query: { sample_rate: rate, format: 'json' } },
          body: { design },
          signal,
        }),
      ) as Promise<BiquadSheet>,
    placeholderData: (previous) => previous,
    retry: false,
  });
}

/** The same as a table. */
export const askBiquadTable = (design: RawDesign, rate: number): Promise<string> =>
  answered(
    api.POST('/api/v1/signal/biquads', {
      params: { query: { sample_rate: rate, format: 'csv' } },
      body: { design },
      parseAs: 'text',
    }),
  ) as Promise<unknown> as Promise<string>;

/** Reads a trace from a text file. */
export async function askTrace(file: File): Promise<ReadTrace> {
  const body = await file.text();
  return answered(
    api.POST('/api/v1/traces/read', {
      body,
      bodySerializer: (text: string) => text,
      headers: { 'content-type': 'text/plain' },
    }),
  );
}
