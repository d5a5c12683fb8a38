import type { Mark } from '../model/mark';
import type { RawDesign, Report, Trace } from '../schema/types';

/** A variant as the lanes show it. */
export interface Shown {
  id: string;
  name: string;
  place: number;
  mark: Mark;
  report: Report;
  /** What is drawn of it: what its report holds, and what was measured or is aimed at. */
  traces: readonly Trace[];
  design: RawDesign;
}
