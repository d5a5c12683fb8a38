// In which conditions figures are looked at: as the brief uses a design, or on the bench.

import type { RawBasis, RawBrief, RawConditions, Report } from '../schema/types';
import { Stored } from './stored';

/** What travels with every computation. */
export interface Asked {
  brief: RawBrief | null;
  conditions: RawConditions;
}

/** As a design without a brief says itself. */
export const UNASKED: Asked = { brief: null, conditions: { basis: 'in_use' } };

/** What a person begins from. */
export const conditions = new Stored<{ basis: RawBasis }>('oak-drum:basis', { basis: 'in_use' });

/** The conditions in words; each by name where variants differ. */
export function conditionsOf(shown: readonly { name: string; report: Report }[]): string {
  const [first] = shown;
  if (!first) return '';
  const alike = shown.every(({ report }) => report.conditions === first.report.conditions);
  return alike
    ? first.report.conditions
    : shown.map(({ name, report }) => `${name}: ${report.conditions}`).join('; ');
}
