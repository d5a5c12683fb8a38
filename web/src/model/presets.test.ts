import { describe, expect, it } from 'vitest';
import type { RawPreset } from '../schema/types';
import { nookBench } from '../testing/nook';
import type { Held } from './documents';
import type { DocumentKey } from './drafts';
import {
  archivePreset,
  bringBackPreset,
  type KeptPreset,
  presetsOn,
  renamePreset,
  savePreset,
} from './presets';

function begun() {
  const wanted: [DocumentKey, Held<RawPreset>][] = [];
  const bench = nookBench((key, content) => wanted.push([key, content as Held<RawPreset>]), {
    kept: [{ kind: 'preset', id: 'a', content: { name: 'Films', filters: [] }, archived: false }],
  });
  const all = () => presetsOn(bench.snapshot());
  const names = () => all().flatMap(({ preset, archived }) => (archived ? [] : [preset.name]));
  return { bench, wanted, all, names, films: all()[0] as KeptPreset };
}

describe('presets', () => {
  it('are saved under a key of their own, and by the same name in the same place', () => {
    const { bench, wanted, names } = begun();
    savePreset(bench, 'Rock', [{ kind: 'invert' }]);
    expect(names()).toEqual(['Films', 'Rock']);
    savePreset(bench, 'Rock', [{ kind: 'gain', gain: '-2 dB' }]);
    expect(names()).toHaveLength(2);
    expect(wanted.map(([{ kind }]) => kind)).toEqual(['preset', 'preset']);
    expect(wanted[0]?.[0].id).toBe(wanted[1]?.[0].id);
    expect(wanted[1]?.[1]).toEqual({
      content: { name: 'Rock', filters: [{ kind: 'gain', gain: '-2 dB' }] },
      archived: false,
    });
  });

  it('are renamed, archived and brought back, each a step that can be undone', () => {
    const { bench, wanted, all, names, films } = begun();
    renamePreset(bench, films, 'Cinema');
    archivePreset(bench, all()[0] as KeptPreset);
    expect(names()).toEqual([]);
    bringBackPreset(bench, { id: 'a', preset: { name: 'Cinema', filters: [] } });
    expect(names()).toEqual(['Cinema']);
    expect(wanted.map(([, { archived }]) => archived)).toEqual([false, true, false]);
    for (let k = 0; k < 3; k++) bench.undo();
    expect(names()).toEqual(['Films']);
    expect(wanted.at(-1)?.[1].content.name).toBe('Films');
  });

  it('follow what was saved elsewhere and send nothing for it', () => {
    const { bench, wanted, names } = begun();
    bench.replace({ kind: 'preset', id: 'a' }, { content: { name: 'Theirs', filters: [] }, archived: false });
    expect(names()).toEqual(['Theirs']);
    expect(wanted).toEqual([]);
  });
});
