// The library and the builds, cached by key.

import {
  QueryClient,
  queryOptions,
  useMutation,
  useQueries,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query';
import type { Asked } from '../model/conditions';
import { ringInFull } from './cavity_check';
import { answered, api, Refusal, Unreachable } from './client';
import { useConditions } from './conditions';
import type {
  CavityCheckReport,
  Job,
  RawAsk,
  RawBrief,
  RawComparison,
  RawDesign,
  RawDriver,
  RawEnclosure,
  RawSweep,
  RawTolerance,
  Transient,
  WantedDrivers,
} from './types';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { retry: (count, error) => error instanceof Unreachable && count < 5, staleTime: 10_000 },
  },
});

const keys = { drivers: ['drivers'], builds: ['builds'], jobs: ['jobs'] };

function driverPage(wanted: WantedDrivers) {
  return queryOptions({
    queryKey: [...keys.drivers, wanted],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/drivers', { params: { query: wanted }, signal })),
  });
}

/** A page of the library; the page before stays on show until the next is there. */
export function useDrivers(wanted: WantedDrivers) {
  return useQuery({ ...driverPage(wanted), placeholderData: (previous) => previous });
}

/** Asks once for a page of the library. */
export function askDrivers(wanted: WantedDrivers) {
  return queryClient.fetchQuery(driverPage(wanted));
}

/** Drivers of the library that are much like one. */
export function useAlike(driver: RawDriver, complete: boolean) {
  return useQuery({
    queryKey: [...keys.drivers, 'alike', driver],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/drivers/alike', { body: driver, signal })),
    enabled: complete,
    placeholderData: (previous) => previous,
    retry: false,
  });
}

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

/** What every starting point of a family comes to. */
export function useStarts(ask: RawAsk) {
  return useQuery({
    queryKey: ['starts', ask],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/starts', { body: ask, signal })),
    retry: false,
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

/** How a design stands to a brief; the judgement before stays on show until the next is there. */
export function useJudgement(brief: RawBrief | null, design: RawDesign | null) {
  return useQuery({
    queryKey: ['judgement', brief, design],
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/judge', {
          body: { brief: brief as RawBrief, design: design as RawDesign },
          signal,
        }),
      ),
    enabled: brief !== null && design !== null,
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
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
    placeholderData: (previous) => previous,
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

/** Drivers of the library by their keys, in order. */
export function useDriversById(ids: string[]) {
  return useQueries({
    queries: ids.map((id) => ({
      queryKey: [...keys.drivers, 'one', id],
      queryFn: () => answered(api.GET('/api/v1/drivers/{id}', { params: { path: { id } } })),
    })),
  });
}

/** Drivers in the same box and each in its own. */
export function useComparison(ask: RawComparison, wanted = true) {
  return useQuery({
    queryKey: ['comparison', ask],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/compare', { body: ask, signal })),
    enabled: wanted,
    placeholderData: (previous) => previous,
    gcTime: 5000,
    retry: false,
  });
}

const ASKED_ONCE = { gcTime: 5000, retry: false } as const;

/** What would fix one check of a design. */
export function useSuggestions(brief: RawBrief, design: RawDesign, check: string) {
  return useQuery({
    queryKey: ['suggestions', brief, design, check],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/suggestions', { body: { brief, design, check }, signal })),
    ...ASKED_ONCE,
  });
}

/** How each figure of a design is worked out; what is judged is as the brief uses it. */
export function useWorkings(design: RawDesign, judged = false) {
  const shown = useConditions();
  const asked: Asked = judged ? { ...shown, conditions: 'in_use' } : shown;
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

/** The box of a design, in its conditions; null where the cabinet has none. */
export function useCabinet(design: RawDesign) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['cabinet', design, asked],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/cabinet', { body: { design, ...asked }, signal })),
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}

/** What the standing waves of a box do, modelled as ducts; null where the cabinet is no single room. */
export function useRing(design: RawDesign) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['ring', design, asked],
    queryFn: async ({ signal }) => {
      const params = { query: { model: 'quick' } } as const;
      const answer = api.POST('/api/v1/cabinet/cavity-check', { params, body: { design, ...asked }, signal });
      // Lines come only to who asks for lines.
      return (await answered(answer)) as CavityCheckReport | null;
    },
    ...ASKED_ONCE,
  });
}

/** The same in three directions; `onProgress` hears what share is done. */
export function useRingInFull(design: RawDesign, wanted: boolean, onProgress: (share: number) => void) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['ring in full', design, asked],
    queryFn: ({ signal }) => ringInFull(design, asked, signal, onProgress),
    enabled: wanted,
    ...ASKED_ONCE,
  });
}

/** What would stiffen the boards of a box. */
export function useBoards(design: RawDesign, wanted: boolean) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['panels', design, asked],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/cabinet/panels', { body: { design, ...asked }, signal })),
    enabled: wanted,
    ...ASKED_ONCE,
  });
}

/** A design firing forward, up and down in the same place. */
export function useFirings(design: RawDesign, wanted: boolean) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['firings', design, asked],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/cabinet/firings', { body: { design, ...asked }, signal })),
    enabled: wanted,
    ...ASKED_ONCE,
  });
}

/** The way of a line or horn with other numbers of folds. */
export function useFolds(design: RawDesign) {
  const asked = useConditions();
  return useQuery({
    queryKey: ['folds', design, asked],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/cabinet/folds', { body: { design, ...asked }, signal })),
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}

/** The box of a design in three dimensions. */
export function useModel(design: RawDesign) {
  return useQuery({
    queryKey: ['model', design],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/cabinet/model', { body: design, signal })),
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}

/** A drawing of the box of a design as a file. */
export function askDrawing(
  design: RawDesign,
  view: 'side' | 'front' | 'plan' | 'exploded',
  format: 'svg' | 'dxf',
) {
  const query = { view, format };
  return answered(api.POST('/api/v1/cabinet/drawing', { params: { query }, body: design, parseAs: 'text' }));
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
