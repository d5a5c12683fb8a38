// The first demo build, as the server gives it.

import nook from '../../../demo/builds/narrowboat-nook.json';
import { type OnWanted, type Opened, Workbench } from '../model/workbench';
import type { RawDesign } from '../schema/types';

const designs = nook.variants.slice(0, 3) as unknown as [RawDesign, RawDesign, RawDesign];

/** A slot-ported box of 44 l, a sealed one of 30 l, and a ported one of 60 l. */
export const [slot, sealed] = designs;

/** The same as variants `v0`, `v1`, `v2`. */
export const variants = designs.map((design, place) => ({ id: `v${place}`, design, place }));

/** The build with these on the workbench. */
export function nookBench(onWanted: OnWanted = () => undefined, opened: Partial<Opened> = {}): Workbench {
  const text = { name: nook.name, notes: '', brief: null };
  return new Workbench(
    { build: 'b', title: 't', brief: 'r', text, variants, next: 3, view: null, ...opened },
    onWanted,
  );
}
