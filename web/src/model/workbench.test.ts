import { beforeEach, describe, expect, it } from 'vitest';
import type { RawDesign, Variant } from '../api/types';
import { variants } from '../testing/nook';
import { withValue } from './design';
import { type OnBench, Workbench } from './workbench';

let committed: OnBench[];
let bench: Workbench;
const volume = (id: string) => bench.find(id)?.design.enclosure.volume;
const resize = (id: string, litres: number) =>
  bench.preview(id, withValue(bench.find(id)?.design as RawDesign, 'enclosure.volume', `${litres} l`));

beforeEach(() => {
  committed = [];
  bench = new Workbench(variants, null, (variant) => committed.push(variant));
});

describe('a gesture', () => {
  it('is shown as it goes and kept once', () => {
    for (const litres of [45, 46, 47]) resize('v0', litres);
    expect(volume('v0')).toBe('47 l');
    expect(committed).toHaveLength(0);
    bench.commit('Vb');
    expect(committed.map((variant) => variant.design.enclosure.volume)).toEqual(['47 l']);
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
    expect(committed.at(-1)?.design.enclosure.volume).toBe('50 l');
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
    bench.add({ ...(variants[0] as Variant), id: 'v9' });
    expect(bench.snapshot().activeId).toBe('v9');
    bench.undo();
    expect(bench.find('v9')?.archived).toBe(true);
    expect(committed.at(-1)).toMatchObject({ id: 'v9', archived: true });
    expect(bench.snapshot().activeId).toBe('v2');
  });
});

describe('what is looked at', () => {
  it('comes back as it was, without what is gone', () => {
    bench = new Workbench(variants, { activeId: 'v2', shown: ['v1', 'gone'] }, () => undefined);
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
    for (const id of ['v5', 'v6', 'v7']) bench.add({ ...(variants[0] as Variant), id });
    expect([...bench.snapshot().shown]).toEqual(['v0', 'v5', 'v6', 'v7']);
    bench.overlay('v2', true);
    expect([...bench.snapshot().shown]).toEqual(['v5', 'v6', 'v7', 'v2']);
    bench.activate('v5');
    bench.overlay('v0', true);
    expect(bench.snapshot().shown.has('v5')).toBe(true);
    expect(bench.snapshot().shown.size).toBe(4);
  });

  it('is nothing in an empty build', () => {
    expect(new Workbench([], null, () => undefined).snapshot().activeId).toBeNull();
  });
});
