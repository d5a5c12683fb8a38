// Filters that a build keeps by name.

import type { RawFilter, RawPreset } from '../schema/types';
import type { Bench, Kept, Workbench } from './workbench';

export interface KeptPreset {
  id: string;
  preset: RawPreset;
  archived: boolean;
}

/** All presets of a build. */
export function presetsOn({ kept }: Pick<Bench, 'kept'>): KeptPreset[] {
  return kept
    .filter(({ kind }) => kind === 'preset')
    .map(({ id, content, archived }) => ({ id, preset: content as RawPreset, archived }));
}

const kept = (id: string, content: RawPreset, archived = false): Kept => ({
  kind: 'preset',
  id,
  content,
  archived,
});

/** Keeps filters by a name; under one that is there already in its place. */
export function savePreset(workbench: Workbench, name: string, filters: readonly RawFilter[]): void {
  const there = presetsOn(workbench.snapshot()).find((one) => !one.archived && one.preset.name === name);
  const id = there?.id ?? crypto.randomUUID();
  workbench.keep(kept(id, { name, filters: [...filters] }), `preset ${name}`);
}

export function renamePreset(workbench: Workbench, { id, preset }: KeptPreset, name: string): void {
  workbench.keep(kept(id, { ...preset, name }), 'name of the preset');
}

export function archivePreset(workbench: Workbench, { id, preset }: KeptPreset): void {
  workbench.keep(kept(id, preset, true), 'archive');
}

/** Brings one back, also one that was archived before this page was opened. */
export function bringBackPreset(
  workbench: Workbench,
  { id, preset }: Pick<KeptPreset, 'id' | 'preset'>,
): void {
  workbench.keep(kept(id, preset), 'bring back');
}
