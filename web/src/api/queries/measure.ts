// What is measured of a build, and what it says.

import { useQuery } from '@tanstack/react-query';
import type {
  ComparedTraces,
  LearnedDesign,
  LearnedValue,
  MeasuringPlan,
  MeasuringReport,
  RawComparedTraces,
  RawDesign,
  RawMeasurement,
  RawTraceKind,
  ReadMeasurement,
  Report,
  RigLine,
  RigReport,
  Typed,
} from '../../schema/types';
import { answered, api, failed, Refusal, Unreachable } from '../client';
import { askLines } from '../lines';
import { useDesignQuestion } from './plan';

/** What is measured of a design, in order. */
export function useMeasuringPlan(design: RawDesign) {
  return useQuery({
    queryKey: ['measuring plan', design],
    queryFn: ({ signal }): Promise<MeasuringPlan> =>
      answered(api.POST('/api/v1/measure/plan', { body: design, signal })),
    placeholderData: (previous) => previous,
    retry: false,
  });
}

/** What measurements of a design say; nothing is asked where there are none. */
export function useMeasureReport(design: RawDesign, measurements: readonly RawMeasurement[], on: string) {
  const question = useDesignQuestion(design);
  return useQuery({
    queryKey: ['measure report', question, measurements, on],
    queryFn: ({ signal }): Promise<MeasuringReport> =>
      answered(
        api.POST('/api/v1/measure/report', {
          body: { question, measurements: [...measurements], on },
          signal,
        }),
      ),
    enabled: measurements.length > 0,
    placeholderData: (previous) => (measurements.length > 0 ? previous : undefined),
    gcTime: 5000,
    retry: false,
  });
}

/** What the workshop has learned from its own builds. */
export function useLearned() {
  return useQuery({
    queryKey: ['learned'],
    queryFn: ({ signal }): Promise<LearnedValue[]> =>
      answered(api.GET('/api/v1/workshop/learned', { signal })),
    retry: false,
  });
}

/** A design with what the workshop has learned where nothing is written; nothing is asked where nothing would come of it. */
export function useWithLearned(design: RawDesign, few_too: boolean, asks: boolean) {
  return useQuery({
    queryKey: ['with learned', design, few_too],
    queryFn: ({ signal }): Promise<LearnedDesign> =>
      answered(api.POST('/api/v1/workshop/learned/design', { body: { design, few_too }, signal })),
    enabled: asks,
    placeholderData: (previous) => (asks ? previous : undefined),
    gcTime: 5000,
    retry: false,
  });
}

/** Traces beside each other; the answer before stays on show until the next is there. */
export function useComparedTraces(asked: RawComparedTraces) {
  return useQuery({
    queryKey: ['compared traces', asked],
    queryFn: ({ signal }): Promise<ComparedTraces> =>
      answered(api.POST('/api/v1/measure/compare', { body: asked, signal })),
    enabled: asked.traces.length > 0,
    placeholderData: (previous) => (asked.traces.length > 0 ? previous : undefined),
    gcTime: 5000,
    retry: false,
  });
}

/** A design as it would be, for the lanes; null asks nothing. */
export function useForetold(design: RawDesign | null) {
  const question = useDesignQuestion(design as RawDesign);
  return useQuery({
    queryKey: ['foretold', question],
    queryFn: ({ signal }): Promise<Report> =>
      answered(
        api.POST('/api/v1/simulate', { params: { query: { traces: 'lanes' } }, body: question, signal }),
      ),
    enabled: design !== null,
    gcTime: 5000,
    retry: false,
  });
}

/** How a file is to be read. */
export interface AsRead {
  of: RawTraceKind;
  file: string;
  calibration?: string;
  /** Of a recording: the sweep. */
  rate?: number;
  seconds?: number;
  from?: number;
  to?: number;
  resistor?: number;
  gate?: number;
}

const isRecording = (file: Blob): boolean => file.type.startsWith('audio/');

/** Texts have no type that a server would know them by. */
const typeOf = (file: Blob): string => (isRecording(file) ? 'audio/wav' : 'text/plain');

async function sent(path: string, file: Blob): Promise<unknown> {
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'Content-Type': typeOf(file) },
    body: file,
  }).catch(() => {
    throw new Unreachable();
  });
  if (!response.ok) throw await failed(response);
  return response.json();
}

/** Reads a trace or a recording; nothing is kept. */
export function readMeasurement(file: Blob, as: AsRead): Promise<ReadMeasurement> {
  const said = Object.entries(as).filter(([, value]) => value !== undefined && value !== '');
  const query = new URLSearchParams(said.map(([name, value]) => [name, String(value)]));
  return sent(`/api/v1/measure/read?${query}`, file) as Promise<ReadMeasurement>;
}

/** Keeps a file of a build as it came; the name that it is kept by. */
export async function keepRecording(build: string, file: Blob): Promise<string> {
  return ((await sent(`/api/v1/builds/${build}/recordings`, file)) as { hash: string }).hash;
}

/** Where a file is that was kept. */
export const recordingAt = (hash: string): string => `/api/v1/recordings/${hash}`;

/** Where the sweep is. */
export const sweepAt = (rate: number, seconds: number, from: number, to: number): string =>
  `/api/v1/measure/sweep?${new URLSearchParams({ rate: `${rate}`, seconds: `${seconds}`, from: `${from}`, to: `${to}` })}`;

/** The measuring box that is connected; null where there is none. */
export function useRig() {
  return useQuery({
    queryKey: ['rig'],
    queryFn: ({ signal }) =>
      answered(api.GET('/api/v1/measure/rig', { signal })) as Promise<RigReport | null>,
    retry: false,
    staleTime: 10_000,
  });
}

/** Sweeps with the measuring box; `onProgress` hears what share is done. */
export async function sweepRig(
  of: RawTraceKind,
  mass: Typed | null,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<ReadMeasurement> {
  const asked = { of, ...(mass !== null && { added_mass: mass }) };
  for await (const line of askLines<RigLine>('/api/v1/measure/rig/sweep', asked, signal)) {
    if ('progress' in line) onProgress(line.progress / 100);
    else if ('found' in line) return line.found;
    else {
      const document = {
        type: 'about:blank',
        title: 'Nothing was measured',
        status: 502,
        detail: line.failed,
      };
      throw new Refusal({ ...document, errors: [] });
    }
  }
  throw new Unreachable();
}

/** Does to the cabinet of a simulated measuring box what a builder would do. */
export const actOnRig = (command: string) =>
  answered(api.POST('/api/v1/measure/rig/act', { body: { command } }));
