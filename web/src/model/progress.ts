// What is done of a build, ticked here and on a phone at once.

import type { RawProgress } from '../schema/types';
import { same } from './design';

/** What was ticked and printed here, on top of what was ticked elsewhere: of each step, and each page, what was changed here stands. */
export function mergedProgress(mine: unknown, theirs: unknown, base: unknown): RawProgress {
  const [here, there, before] = [mine, theirs, base] as [RawProgress, RawProgress, RawProgress];
  return {
    ticks: merged(here.ticks, there.ticks, before.ticks, ({ step }) => step),
    printed: merged(here.printed, there.printed, before.printed, ({ page }) => page),
  };
}

function merged<One>(
  mine: readonly One[] = [],
  theirs: readonly One[] = [],
  base: readonly One[] = [],
  keyOf: (one: One) => string,
): One[] {
  const of = (list: readonly One[], key: string) => list.find((one) => keyOf(one) === key);
  const keys = [...new Set([...theirs, ...mine].map(keyOf))];
  return keys.flatMap((key) => {
    const changed = !same(of(mine, key), of(base, key));
    const one = changed ? of(mine, key) : of(theirs, key);
    return one === undefined ? [] : [one];
  });
}
