// A kind of cabinet as a recommendation has it, for tests of what is made of it.

import type { KindReport } from '../schema/types';
import { slot } from './nook';

export function kind(change: Partial<KindReport>): KindReport {
  return {
    family: 'ported',
    name: 'Ported',
    considered: true,
    reason: 'Tuned to the brief.',
    design: slot,
    buildable: true,
    short: [],
    worst: 1,
    air: 0.04,
    outside: 0.0573,
    f3: 29.94,
    loudness: 103.4,
    cost: 120.2,
    effort: 2,
    ...change,
  };
}
