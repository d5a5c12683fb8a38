// In which conditions figures are looked at: as the brief uses a design, or on the bench.

import type { RawBrief, RawConditions, Report } from '../api/types';
import { Stored } from './stored';

/** What travels with every computation. */
export interface Asked {
  brief: RawBrief | null;
  conditions: RawConditions;
}

/** As a design without a brief says itself. */
export const UNASKED: Asked = { brief: null, conditions: 'in_use' };

/** Which of them a person looks at. */
export const conditions = new Stored<{ conditions: RawConditions }>('oak-drum:conditions', {
  conditions: 'in_use',
});

/** The conditions in words; each by name where variants differ. */
export function conditionsOf(shown: readonly { name: string; report: Report }[]): string {
  const [first] = shown;
  if (!first) return '';
  const alike = shown.every(({ report }) => report.conditions === first.report.conditions);
  return alike
    ? first.report.conditions
    : shown.map(({ name, report }) => `${name}: ${report.conditions}`).join('; ');
}
