// What was said on the way to a first box; leaving half-way keeps it.

import type { RawBrief, RawDriver } from '../schema/types';
import { Stored } from './stored';

/** How the woofer is given. */
export type Means = 'paste' | 'library' | 'type';

export interface StartDraft {
  means: Means;
  /** A data sheet as text. */
  sheet: string;
  /** The woofer, once it is known. */
  driver: RawDriver | null;
  /** Whether it stands in the library already. */
  known: boolean;
  brief: RawBrief | null;
}

export const startDraft = new Stored<StartDraft>('oak-drum start', {
  means: 'paste',
  sheet: '',
  driver: null,
  known: false,
  brief: null,
});
