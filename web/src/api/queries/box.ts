// The box as it is built.

import { useQuery } from '@tanstack/react-query';
import type { CavityCheckReport, RawDesign } from '../../schema/types';
import { ringInFull } from '../cavity_check';
import { answered, api } from '../client';
import { useConditions } from '../conditions';
import { ASKED_ONCE } from './shared';

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

/** The box of a design in three dimensions; nothing is asked while there is none. */
export function useModel(design: RawDesign | null) {
  return useQuery({
    queryKey: ['model', design],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/cabinet/model', { body: design as RawDesign, signal })),
    enabled: design !== null,
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

/** What box the boards of a pre-cut kit make, as they are labelled. */
export function useKit(text: string) {
  return useQuery({
    queryKey: ['kit', text],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/cabinet/read-kit', { body: { text }, signal })),
    enabled: text.trim() !== '',
    placeholderData: (previous) => previous,
    ...ASKED_ONCE,
  });
}
