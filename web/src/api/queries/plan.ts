// What is bought, cut and done.

import { useQuery } from '@tanstack/react-query';
import type {
  BuildPlan,
  LayoutLine,
  RawDesign,
  RawLayout,
  RawPlanQuestion,
  RawProgress,
  RawStock,
  TerminalReport,
} from '../../schema/types';
import { answered, api, Refusal, Unreachable } from '../client';
import { useConditions } from '../conditions';
import { askLines } from '../lines';

/** A design as it is asked about, in its conditions. */
export function useDesignQuestion(design: RawDesign) {
  const { brief, conditions } = useConditions();
  return { design, conditions, ...(brief && { brief }) };
}

/** A plan as it is asked for: the design, what is done of it, and which day it is. */
export function usePlanQuestion(design: RawDesign, progress: RawProgress, today: string): RawPlanQuestion {
  return { question: useDesignQuestion(design), progress, today };
}

/** The plan of a design; null where it has no box. */
export function usePlan(question: RawPlanQuestion) {
  return useQuery({
    queryKey: ['plan', question],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/plan', { body: question, signal })) as Promise<BuildPlan | null>,
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

/** A design with a hole for its terminal, where a board has room for it. */
export const askTerminal = (question: RawPlanQuestion): Promise<TerminalReport | null> =>
  answered(api.POST('/api/v1/plan/terminal', { body: question.question })) as Promise<TerminalReport | null>;

/** A part of a plan as a file. */
export const askPlanFile = (
  question: RawPlanQuestion,
  file: 'parts' | 'prices' | 'calendar',
): Promise<string> =>
  answered(
    api.POST('/api/v1/plan/file', { params: { query: { file } }, body: question, parseAs: 'text' }),
  ) as Promise<unknown> as Promise<string>;

/** Pages to print, as PDF. */
export const askPages = (question: RawPlanQuestion, pages: string): Promise<Blob> =>
  answered(
    api.POST('/api/v1/plan/pages', { params: { query: { pages } }, body: question, parseAs: 'blob' }),
  ) as Promise<unknown> as Promise<Blob>;

/** Reads a price list. */
export const readPrices = (text: string): Promise<RawStock[]> =>
  answered(
    api.POST('/api/v1/plan/prices', {
      body: text,
      headers: { 'Content-Type': 'text/csv' },
      bodySerializer: (body) => body,
    }),
  );

/** A board or a sheet at full size. */
export const askFlat = (
  question: RawPlanQuestion['question'],
  flat: { panel: number } | { sheet: number },
  format: 'svg' | 'dxf',
): Promise<string> =>
  answered(
    api.POST('/api/v1/plan/drawing', {
      params: { query: { ...flat, format } },
      body: question,
      parseAs: 'text',
    }),
  ) as Promise<unknown> as Promise<string>;

/** Looks longer for better layouts; `onProgress` hears what share is done. */
export async function searchLayouts(
  question: RawPlanQuestion['question'],
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<RawLayout[]> {
  for await (const line of askLines<LayoutLine>('/api/v1/plan/layouts', question, signal)) {
    if ('progress' in line) {
      const [done = 0, of = 1] = line.progress;
      onProgress(done / of);
    } else if ('found' in line) {
      return line.found;
    } else {
      const detail = line.errors.map(({ message }) => message).join(' ');
      throw new Refusal({ type: 'about:blank', title: 'Error', status: 422, detail, errors: line.errors });
    }
  }
  throw new Unreachable();
}
