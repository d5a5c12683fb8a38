import { describe, expect, it } from 'vitest';
import type { RawPreset } from '../api/types';
import type { Held } from './documents';
import type { DocumentKey } from './drafts';
import { Presets } from './presets';

function begun() {
  const wanted: [DocumentKey, Held<RawPreset>][] = [];
  const presets = new Presets(
    [{ id: 'a', preset: { name: 'Films', filters: [] }, archived: false }],
    (key, content) => wanted.push([key, content]),
  );
  return { presets, wanted };
}

describe('presets', () => {
  it('are saved under a key of their own, and by the same name in the same place', () => {
    const { presets, wanted } = begun();
    presets.save('Rock', [{ kind: 'invert' }]);
    expect(presets.list.map(({ preset }) => preset.name)).toEqual(['Films', 'Rock']);
    presets.save('Rock', [{ kind: 'gain', gain: '-2 dB' }]);
    expect(presets.list).toHaveLength(2);
    expect(wanted.map(([{ kind }]) => kind)).toEqual(['preset', 'preset']);
    expect(wanted[0]?.[0].id).toBe(wanted[1]?.[0].id);
    expect(wanted[1]?.[1]).toEqual({
      content: { name: 'Rock', filters: [{ kind: 'gain', gain: '-2 dB' }] },
      archived: false,
    });
  });

  it('are renamed, archived and brought back', () => {
    const { presets, wanted } = begun();
    presets.rename('a', 'Cinema');
    presets.archive('a');
    expect(presets.list).toEqual([]);
    presets.bringBack('a', { name: 'Cinema', filters: [] });
    expect(presets.list[0]?.preset.name).toBe('Cinema');
    expect(wanted.map(([, { archived }]) => archived)).toEqual([false, true, false]);
    presets.archive('not there');
    expect(wanted).toHaveLength(3);
  });

  it('follow what was saved elsewhere and send nothing for it', () => {
    const { presets, wanted } = begun();
    presets.replace('a', { content: { name: 'Theirs', filters: [] }, archived: false });
    expect(presets.list[0]?.preset.name).toBe('Theirs');
    expect(wanted).toEqual([]);
  });
});
