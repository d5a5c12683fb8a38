import { useState } from 'react';

export interface Draft {
  text: string;
  /** Why the text was not taken. */
  refused?: string;
}

/**
 * What is being written over a value. It ends when that value is changed from elsewhere, by a drag or by undo, and by
 * nothing else: an answer that comes in the middle of the writing takes nothing away.
 */
export function useDraft(over: string) {
  const [begun, setBegun] = useState<{ over: string; draft: Draft } | null>(null);
  if (begun && begun.over !== over) setBegun(null);
  const set = (draft: Draft | null) => setBegun(draft && { over, draft });
  return [begun?.over === over ? begun.draft : null, set] as const;
}
