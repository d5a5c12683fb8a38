import { beforeEach, describe, expect, it } from 'vitest';
import type { RawDesign } from '../schema/types';
import { nookBench, variants } from '../testing/nook';
import { withValue } from './design';
import type { HeldVariant } from './documents';
import type { DocumentKey } from './drafts';
import type { Past, View, Workbench } from './workbench';

const [first] = variants as [(typeof variants)[number]];
const TEXT = { name: 'Nook', notes: '', brief: null };
let committed: ({ id: string } & HeldVariant)[];
let wanted: [DocumentKey, unknown][];
let bench: Workbench;
const volume = (id: string) => bench.find(id)?.design.enclosure.volume;
const resize = (id: string, litres: number) =>
  bench.preview(id, withValue(bench.find(id)?.design as RawDesign, 'enclosure.volume', `${litres} l`));

function opened(view: View | null = null, past: Past | null = null, of = variants) {
  return nookBench(
    (document, content) => {
      wanted.push([document, content]);
      if (document.kind === 'variant') committed.push({ id: document.id, ...(content as HeldVariant) });
    },
    { text: TEXT, variants: of, view, past },
  );
}

beforeEach(() => {
  [committed, wanted] = [[], []];
  bench = opened();
});

describe('a gesture', () => {
  it('is shown as it goes and kept once', () => {
    for (const litres of [45, 46, 47]) resize('v0', litres);
    expect(volume('v0')).toBe('47 l');
    expect(committed).toHaveLength(0);
    bench.commit('Vb');
    expect(committed.map((variant) => variant.content.enclosure.volume)).toEqual(['47 l']);
    expect(bench.snapshot().undo).toBe('Vb');
  });

  it('that comes back to where it began is no change', () => {
    resize('v0', 50);
    resize('v0', 44);
    bench.commit();
    expect(committed).toHaveLength(0);
    expect(bench.snapshot().undo).toBeNull();
  });

  it('on another variant ends the one before', () => {
    resize('v0', 50);
    resize('v1', 33);
    expect(committed.map((variant) => variant.id)).toEqual(['v0']);
  });
});

describe('undo and redo', () => {
  it('go back and forth over every variant and settle each time', () => {
    resize('v0', 50);
    bench.commit();
    resize('v1', 33);
    bench.commit();
    bench.undo();
    bench.undo();
    expect([volume('v0'), volume('v1')]).toEqual(['44 l', '30 l']);
    bench.redo();
    expect(volume('v0')).toBe('50 l');
    expect(committed.at(-1)?.content.enclosure.volume).toBe('50 l');
    expect(bench.snapshot().activeId).toBe('v0');
  });

  it('a new change ends what could be redone', () => {
    resize('v0', 50);
    bench.commit();
    bench.undo();
    resize('v0', 60);
    bench.commit();
    expect(bench.snapshot().redo).toBeNull();
    bench.redo();
    expect(volume('v0')).toBe('60 l');
  });

  it('take an archived variant back and a new one away', () => {
    bench.archive('v0');
    expect(bench.snapshot().activeId).toBe('v1');
    bench.undo();
    expect(bench.find('v0')?.archived).toBe(false);
    bench.addBack({ ...first, id: 'v9' });
    expect(bench.snapshot().activeId).toBe('v9');
    bench.undo();
    expect(bench.find('v9')?.archived).toBe(true);
    expect(committed.at(-1)).toMatchObject({ id: 'v9', archived: true });
    expect(bench.snapshot().activeId).toBe('v2');
  });
});

describe('undo and redo of what a build is besides its variants', () => {
  it('go over its name, its brief and the order of its variants', () => {
    bench.write({ name: 'Saloon' }, 'name');
    bench.write({ brief: { lowest: '30 Hz' } }, 'brief');
    bench.move('v0', 1);
    expect(bench.snapshot().undo).toBe('order');
    expect(wanted.at(-1)).toEqual([{ kind: 'order', id: 'b' }, ['v1', 'v0', 'v2']]);
    bench.undo();
    expect(bench.snapshot().variants.map(({ id }) => id)).toEqual(['v0', 'v1', 'v2']);
    bench.undo();
    expect(bench.snapshot().text).toEqual({ ...TEXT, name: 'Saloon' });
    bench.undo();
    expect(wanted.at(-1)).toEqual([
      { kind: 'title', id: 't' },
      { content: { name: 'Nook', notes: '' }, archived: false },
    ]);
    bench.redo();
    expect(bench.snapshot().text.name).toBe('Saloon');
  });

  it('begin a brief and take it away again', () => {
    bench.write({ brief: { lowest: '30 Hz' } }, 'brief');
    expect(wanted).toEqual([
      [
        { kind: 'brief', id: 'r' },
        { content: { lowest: '30 Hz' }, archived: false },
      ],
    ]);
    bench.undo();
    expect(wanted.at(-1)).toEqual([
      { kind: 'brief', id: 'r' },
      { content: {}, archived: true },
    ]);
    expect(bench.snapshot().text.brief).toBeNull();
  });

  it('take no step where nothing changed', () => {
    bench.write({ name: 'Nook' }, 'name');
    expect(bench.snapshot().undo).toBeNull();
  });

  it('put an order back without what came or went since', () => {
    bench.move('v0', 1);
    bench.addBack({ ...first, id: 'v9' });
    bench.undo();
    bench.undo();
    const present = bench.snapshot().variants.filter(({ archived }) => !archived);
    expect(present.map(({ id }) => id)).toEqual(['v0', 'v1', 'v2']);
  });
});

describe('what a page before could undo', () => {
  const shelf = () => {
    const present = bench.snapshot().variants.filter(({ archived }) => !archived);
    return present.map(({ id, design, place }) => ({ id, design, place }));
  };

  it('can still be undone and done again', () => {
    resize('v0', 50);
    bench.commit('Vb');
    resize('v0', 60);
    bench.commit('Vb');
    bench.undo();
    const next = opened(null, structuredClone(bench.history), shelf());
    expect([next.snapshot().undo, next.snapshot().redo]).toEqual(['Vb', 'Vb']);
    next.undo();
    expect(next.find('v0')?.design.enclosure.volume).toBe('44 l');
    next.redo();
    next.redo();
    expect(next.find('v0')?.design.enclosure.volume).toBe('60 l');
  });

  it('brings back a variant that is no longer on the shelf', () => {
    bench.archive('v0');
    const next = opened(null, structuredClone(bench.history), shelf());
    expect(next.find('v0')).toBeUndefined();
    next.undo();
    expect(next.find('v0')).toMatchObject({ archived: false });
    expect(committed.at(-1)).toMatchObject({ id: 'v0', archived: false });
  });

  it('is forgotten of a document that stands otherwise now', () => {
    resize('v0', 50);
    bench.commit();
    resize('v1', 33);
    bench.commit('other');
    const others = shelf().map((one) => (one.id === 'v0' ? first : one));
    const next = opened(null, structuredClone(bench.history), others);
    expect(next.snapshot().undo).toBe('other');
    next.undo();
    expect(next.snapshot().undo).toBeNull();
  });

  it('never leads back before what another window saved', () => {
    resize('v0', 50);
    bench.commit();
    bench.replace({ kind: 'variant', id: 'v0' }, { content: bench.find('v1')?.design, archived: false });
    expect(bench.snapshot().undo).toBeNull();
    bench.undo();
    expect(volume('v0')).toBe('30 l');
  });
});

describe('a new variant', () => {
  it('has a key and a mark of its own before the server knows of it', () => {
    const id = bench.create(first.design);
    expect(bench.find(id)).toMatchObject({ place: 3, archived: false });
    expect(bench.snapshot().activeId).toBe(id);
    expect(committed).toEqual([{ id, content: first.design, archived: false }]);
    expect(bench.find(bench.create(first.design))?.place).toBe(4);
  });
});

describe('what is looked at', () => {
  it('comes back as it was, without what is gone', () => {
    bench = opened({ activeId: 'v2', shown: ['v1', 'gone'] });
    expect(bench.snapshot().activeId).toBe('v2');
    expect([...bench.snapshot().shown].sort()).toEqual(['v1', 'v2']);
  });

  it('always holds the active variant', () => {
    bench.overlay('v0', false);
    expect(bench.snapshot().shown.has('v0')).toBe(true);
    bench.overlay('v1', false);
    expect(bench.snapshot().shown.has('v1')).toBe(false);
  });

  it('is four at most, and the one shown first gives way', () => {
    for (const id of ['v5', 'v6', 'v7']) bench.addBack({ ...first, id });
    expect([...bench.snapshot().shown]).toEqual(['v0', 'v5', 'v6', 'v7']);
    bench.overlay('v2', true);
    expect([...bench.snapshot().shown]).toEqual(['v5', 'v6', 'v7', 'v2']);
    bench.activate('v5');
    bench.overlay('v0', true);
    expect(bench.snapshot().shown.has('v5')).toBe(true);
    expect(bench.snapshot().shown.size).toBe(4);
  });

  it('is nothing in an empty build', () => {
    expect(opened(null, null, []).snapshot().activeId).toBeNull();
  });
});
