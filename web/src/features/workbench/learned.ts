import { useWithLearned } from '../../api/queries/measure';
import type { RawDesign } from '../../schema/types';
import { FOLLOWED, useThrottled } from '../../ui/throttle';

/** What the workshop's own values would set in a design as it changes; it is taken only while the answer is to the design that stands there. */
export function useOpenValues(current: RawDesign, fewToo: boolean, asks: boolean) {
  const design = useThrottled(current, FOLLOWED);
  const { data, error, isPlaceholderData } = useWithLearned(design, fewToo, asks);
  const stale = isPlaceholderData || design !== current;
  return { set: data?.set ?? null, next: data && !stale ? data.design : null, error };
}
