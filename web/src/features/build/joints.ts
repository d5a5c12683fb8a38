// How boards are joined, in words.

import type { RawFace, RawJoinery } from '../../schema/types';

export const JOINERIES: readonly (readonly [RawJoinery, string])[] = [
  ['butt', 'Butt'],
  ['dowels', 'Dowels'],
  ['rabbet', 'Rabbet'],
  ['tongue', 'Tongue and groove'],
  ['mitre', 'Mitre'],
];

const FACES: readonly RawFace[] = ['front', 'back', 'left', 'right', 'top', 'bottom'];

/** The face of a board that is named so; none of boards inside, layers and sides of a prism. */
export const faceOf = (name: string): RawFace | null =>
  FACES.find((face) => name.split(',')[0] === face) ?? null;
