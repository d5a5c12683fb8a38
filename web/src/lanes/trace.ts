import type { RawDesign, Report } from '../api/types';
import type { Mark } from '../model/mark';

/** A variant as the lanes show it. */
export interface Trace {
  id: string;
  name: string;
  place: number;
  mark: Mark;
  report: Report;
  design: RawDesign;
}
