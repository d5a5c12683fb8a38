// The first demo build, as the server gives it.

import nook from '../../../demo/builds/narrowboat-nook.json';
import type { RawDesign, Variant } from '../api/types';
import { type OnWanted, Workbench } from '../model/workbench';

const designs = nook.variants.slice(0, 3) as unknown as [RawDesign, RawDesign, RawDesign];

/** A slot-ported box of 44 l, a sealed one of 30 l, and a ported one of 60 l. */
export const [slot, sealed] = designs;

/** The same as variants `v0`, `v1`, `v2`. */
export const variants = designs.map(
  (document, at): Variant => ({
    id: `v${at}`,
    build_id: 'b',
    revision: 1,
    mark: at,
    document,
    kept_at: '2026-01-01T00:00:00Z',
  }),
);

/** The build with these on the workbench. */
export function nookBench(onWanted: OnWanted = () => undefined): Workbench {
  const text = { name: nook.name, notes: '', brief: null };
  return new Workbench({ build: 'b', text, variants, view: null }, onWanted);
}
