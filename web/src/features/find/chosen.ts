import type { Family } from '../../model/families';

/** The driver that is looked at more closely. */
export interface Chosen {
  driver: string;
  name: string;
  family: Family | null;
}
