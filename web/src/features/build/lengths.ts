// How the lengths of boards are read.

import { measure, preferredUnit } from '../../model/preferences';
import { fieldAt, usualUnit } from '../../model/units';

const unitOfBoxes = () => preferredUnit(fieldAt('body.width')) ?? usualUnit(fieldAt('body.width'));

/** A length of a board in the unit that the reader chose for boxes. */
export const lengthOf = (metres: number): string => measure(metres, unitOfBoxes());

/** Whether the reader cuts by the inch. */
export const readsInches = (): boolean => unitOfBoxes()?.symbol === 'in';
