// Lays out the section of a design: as its box is built, its way unrolled, or at usual proportions.

import { hasTwoChambers, hasWay } from '../model/families';
import { layOutBuilt } from './built';
import { baffle, bandpass, box } from './geometry';
import type { Scene, Subject } from './scene';
import { layOutWay } from './ways';

/** The section of a design; null where there is nothing to draw yet. */
export function layOut(subject: Subject): Scene | null {
  const { family } = subject.design.enclosure;
  // A way is drawn unrolled until something is said of its box; a slot with its flare is a part of one.
  const boxed = subject.design.body || family === 'slot_flare';
  const unrolled = hasWay(family) && !(subject.body?.fold && boxed);
  if (unrolled) return layOutWay(subject);
  if (subject.body) return layOutBuilt(subject, subject.body);
  if (hasTwoChambers(family)) return bandpass(subject);
  if (family === 'open_baffle' || family === 'infinite_baffle') return baffle(subject);
  return box(subject);
}
