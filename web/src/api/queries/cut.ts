// What is cut.

import { useQuery } from '@tanstack/react-query';
import type { CutReport, RawBrief, RawDesign } from '../../schema/types';
import { answered, api } from '../client';
import { useConditions } from '../conditions';

/** The boards of a design as they are cut; null where it has no box. */
export function useCutPanels(design: RawDesign) {
  const { brief } = useConditions();
  return useQuery({
    queryKey: ['cut', design, brief],
    // As a document, whose type the description gives beside that of a table.
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/cut/panels', {
          params: { query: { format: 'json' } },
          body: { design, ...(brief && { brief }) },
          signal,
        }),
      ) as Promise<CutReport | null>,
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

/** The same as a list for the saw. */
export const askCutList = (design: RawDesign, brief: RawBrief | null): Promise<string> =>
  answered(
    api.POST('/api/v1/cut/panels', {
      params: { query: { format: 'csv' } },
      body: { design, ...(brief && { brief }) },
      parseAs: 'text',
    }),
  ) as Promise<unknown> as Promise<string>;
