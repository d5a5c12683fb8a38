// The check of standing waves in three directions, which tells how far it is.

import type { Asked } from '../model/conditions';
import type { CavityCheckLine, CavityCheckReport, RawDesign } from '../schema/types';
import { Refusal, Unreachable } from './client';
import { askLines } from './lines';

/** Checks in full; `onProgress` hears what share is done. Null where the cabinet is no single room. */
export async function ringInFull(
  design: RawDesign,
  asked: Asked,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<CavityCheckReport | null> {
  const path = '/api/v1/cabinet/cavity-check?model=full';
  for await (const line of askLines<CavityCheckLine>(path, { design, ...asked }, signal)) {
    if ('progress' in line) {
      const [done = 0, of = 1] = line.progress;
      onProgress(done / of);
    } else if ('report' in line) {
      return line.report ?? null;
    } else {
      throw new Refusal({
        type: 'about:blank',
        title: 'Error',
        status: 422,
        detail: line.errors.map(({ message }) => message).join(' '),
        errors: line.errors,
      });
    }
  }
  throw new Unreachable();
}
