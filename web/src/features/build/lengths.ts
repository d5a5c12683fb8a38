// How the lengths of boards are read.

import { measure, preferredUnit } from '../../model/preferences';
import { fieldAt, usualUnit } from '../../model/units';

/** A length of a board in the unit that the reader chose for boxes. */
export function lengthOf(metres: number): string {
  const field = fieldAt('body.width');
  return measure(metres, preferredUnit(field) ?? usualUnit(field));
}
