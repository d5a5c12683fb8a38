// Filters that a build keeps by name.

import type { RawFilter, RawPreset } from '../api/types';
import { type Held, held } from './documents';
import type { DocumentKey } from './drafts';
import { Observable } from './observable';

export interface KeptPreset {
  id: string;
  preset: RawPreset;
  archived: boolean;
}

export const presetKey = (id: string): DocumentKey => ({ kind: 'preset', id });

export class Presets extends Observable<{ presets: readonly KeptPreset[] }> {
  constructor(
    presets: readonly KeptPreset[],
    private readonly onWanted: (document: DocumentKey, content: Held<RawPreset>) => void,
  ) {
    super({ presets });
  }

  /** Those that are not archived. */
  get list(): readonly KeptPreset[] {
    return this.state.presets.filter(({ archived }) => !archived);
  }

  /** Keeps filters by a name; under one that is there already in its place. */
  save(name: string, filters: readonly RawFilter[]): void {
    const there = this.list.find(({ preset }) => preset.name === name);
    const id = there?.id ?? crypto.randomUUID();
    this.put({ id, preset: { name, filters: [...filters] }, archived: false });
  }

  rename(id: string, name: string): void {
    const there = this.find(id);
    if (there) this.put({ ...there, preset: { ...there.preset, name } });
  }

  archive(id: string): void {
    const there = this.find(id);
    if (there) this.put({ ...there, archived: true });
  }

  /** Brings one back, also one that was archived before this page was opened. */
  bringBack(id: string, preset: RawPreset): void {
    this.put({ id, preset, archived: false });
  }

  /** Takes over what the outbox has found elsewhere. */
  replace(id: string, { content, archived }: Held<RawPreset>): void {
    this.show({ id, preset: content, archived });
  }

  private find(id: string): KeptPreset | undefined {
    return this.state.presets.find((one) => one.id === id);
  }

  private put(next: KeptPreset): void {
    this.show(next);
    this.onWanted(presetKey(next.id), { ...held(next.preset), archived: next.archived });
  }

  private show(next: KeptPreset): void {
    const { presets } = this.state;
    const there = presets.some(({ id }) => id === next.id);
    this.update({
      presets: there ? presets.map((one) => (one.id === next.id ? next : one)) : [...presets, next],
    });
  }
}
