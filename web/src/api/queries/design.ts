// What a design comes to.

import { useQueries, useQuery } from '@tanstack/react-query';
import type { Asked } from '../../model/conditions';
import type {
  RawAsk,
  RawBrief,
  RawConditions,
  RawDesign,
  RawDriver,
  RawSweep,
  RawTolerance,
  Transient,
} from '../../schema/types';
import { answered, api } from '../client';
import { useConditions } from '../conditions';
import { ASKED_ONCE } from './shared';

/** What every starting point of a family comes to. */
export function useStarts(ask: RawAsk) {
  return useQuery({
    queryKey: ['starts', ask],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/starts', { body: ask, signal })),
    retry: false,
  });
}

/** Which kind of cabinet suits a driver and a brief; the answer before stays on show until the next is there. */
export function useRecommendation(driver: RawDriver | null, brief: RawBrief | null, drivers = 1) {
  return useQuery({
    queryKey: ['recommendation', driver, brief, drivers],
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/recommendation', {
          body: { driver: driver as RawDriver, drivers, ...(brief ? { brief } : {}) },
          signal,
        }),
      ),
    enabled: driver !== null,
    placeholderData: (previous) => previous,
    gcTime: 60_000,
    retry: false,
  });
}

/** A design with every length of its box times a factor, or into its brief's place; null asks nothing. */
export function useScaled(design: RawDesign, brief: RawBrief | null, factor: number | 'place' | null) {
  return useQuery({
    queryKey: ['scaled', design, brief, factor],
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/scale', {
          body: { design, ...(brief && { brief }), ...(typeof factor === 'number' && { factor }) },
          signal,
        }),
      ),
    enabled: factor !== null,
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}

/** How a design stands to a brief; the judgement before stays on show until the next is there. */
export function useJudgement(brief: RawBrief | null, design: RawDesign | null) {
  const conditions = useJudged();
  return useQuery({
    queryKey: ['judgement', brief, design, conditions],
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/judge', {
          body: { brief: brief as RawBrief, design: design as RawDesign, conditions },
          signal,
        }),
      ),
    enabled: brief !== null && design !== null,
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

/** What is judged is as the brief uses it, through the same preset and in the same place. */
function useJudged(): RawConditions {
  return { ...useConditions().conditions, basis: 'in_use' };
}

/** Ways to wire equal drivers so that the load lies in a range (ohm). */
export function useWirings(driver: RawDriver, count: number, least: number, most: number) {
  return useQuery({
    queryKey: ['wirings', driver, count, least, most],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/wirings', { body: { driver, count, least, most }, signal })),
    placeholderData: (previous) => previous,
    retry: false,
  });
}

/** What each change that a design makes to its drivers does. */
export function useChanges(design: RawDesign) {
  return useQuery({
    queryKey: ['changes', design],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/changes', { body: design, signal })),
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

/** What would fix one check of a design. */
export function useSuggestions(brief: RawBrief, design: RawDesign, check: string) {
  const conditions = useJudged();
  return useQuery({
    queryKey: ['suggestions', brief, design, check, conditions],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/suggestions', { body: { brief, design, check, conditions }, signal })),
    ...ASKED_ONCE,
  });
}

/** How each figure of a design is worked out; what is judged is as the brief uses it. */
export function useWorkings(design: RawDesign, judged = false) {
  const shown = useConditions();
  const asked: Asked = judged ? { ...shown, conditions: { ...shown.conditions, basis: 'in_use' } } : shown;
  return useQuery({
    queryKey: ['workings', design, asked],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/workings', { body: { design, ...asked }, signal })),
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}

/** One value turned step by step. */
export function useSweep(turned: Omit<RawSweep, 'brief' | 'conditions'>) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['sweep', turned, asked],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/sweep', { body: { ...turned, ...asked }, signal })),
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}

/** A design built many times. */
export function useTolerance(built: Omit<RawTolerance, 'brief' | 'conditions'>) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['tolerance', built, asked],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/tolerance', { body: { ...built, ...asked }, signal })),
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}

/** What moves at a frequency. */
export function useMotion(design: RawDesign, frequency: number) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['motion', design, frequency, asked],
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/motion', { params: { query: { frequency } }, body: { design, ...asked }, signal }),
      ),
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}

/** What is heard of a step or a burst, for several designs. */
export function useTransients(designs: RawDesign[], play: 'step' | 'burst', frequency: number) {
  const asked = useConditions();
  return useQueries({
    queries: designs.map((design) => ({
      queryKey: ['transient', design, play, play === 'burst' ? frequency : 0, asked],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        answered(
          api.POST('/api/v1/transient', {
            params: { query: { play, frequency, cycles: Math.max(1, Math.min(4, 0.4 * frequency)) } },
            body: { design, ...asked },
            signal,
          }),
        ),
      placeholderData: (previous: Transient | undefined) => previous,
      ...ASKED_ONCE,
    })),
  });
}
