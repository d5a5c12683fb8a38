import type { About } from '../../model/measurements';
import type { RawMeasurement, ReadMeasurement } from '../../schema/types';

/** A trace that was read and looked at, with what is known of it. */
export interface ToKeep {
  source: RawMeasurement['source'];
  read: ReadMeasurement;
  about: About;
}
