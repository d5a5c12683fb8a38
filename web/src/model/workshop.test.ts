import { describe, expect, it } from 'vitest';
import type { RawDesign } from '../schema/types';
import { nookBench } from '../testing/nook';
import { localDay, localMoment } from './moment';
import {
  AS_USUAL,
  archiveEntry,
  editStock,
  editWorkshop,
  entriesOn,
  keepEntry,
  printedNow,
  progressOn,
  tick,
  withMeasured,
  workshopOn,
} from './workshop';

const NOW = new Date(2026, 4, 1, 18, 30, 5);

describe('how a build is made', () => {
  it('is as usual until something is said, and as usual again when that is taken back', () => {
    const bench = nookBench();
    expect(workshopOn(bench.snapshot())).toBeNull();
    editWorkshop(bench, { kerf: '2 mm', finish: 'veneer' }, 'workshop');
    expect(workshopOn(bench.snapshot())).toEqual({ ...AS_USUAL, kerf: '2 mm', finish: 'veneer' });
    editWorkshop(bench, { kerf: null }, 'workshop');
    expect(workshopOn(bench.snapshot())).toEqual({ ...AS_USUAL, finish: 'veneer' });
    // One document, however often it is changed.
    expect(bench.snapshot().kept.filter(({ kind }) => kind === 'workshop')).toHaveLength(1);
    bench.undo();
    expect(workshopOn(bench.snapshot())?.kerf).toBe('2 mm');
  });

  it('keeps prices and stock by item and forgets what says nothing', () => {
    const bench = nookBench();
    editStock(bench, 'glue.pva', { price: 6 });
    editStock(bench, 'driver', { bought: true });
    editStock(bench, 'glue.pva', { stock: 100 });
    expect(workshopOn(bench.snapshot())?.items).toEqual([
      { item: 'driver', bought: true },
      { item: 'glue.pva', price: 6, stock: 100 },
    ]);
    editStock(bench, 'driver', { bought: false });
    expect(workshopOn(bench.snapshot())?.items).toEqual([{ item: 'glue.pva', price: 6, stock: 100 }]);
  });
});

describe('what is done', () => {
  it('is ticked once a step, failed or done, and taken back', () => {
    const bench = nookBench();
    tick(bench, 'cut.label', 'done', NOW);
    tick(bench, 'cut.label', 'failed', NOW);
    tick(bench, 'glue.dry', 'done', NOW);
    const at = localMoment(NOW);
    expect(progressOn(bench.snapshot()).ticks).toEqual([
      { step: 'cut.label', at, failed: true },
      { step: 'glue.dry', at },
    ]);
    tick(bench, 'cut.label', null, NOW);
    expect(progressOn(bench.snapshot()).ticks).toEqual([{ step: 'glue.dry', at }]);
  });

  it('remembers what each page said when it was printed last', () => {
    const bench = nookBench();
    printedNow(bench, 'parts', [{ what: 'cost', value: '300' }], NOW);
    printedNow(bench, 'steps', [], NOW);
    printedNow(bench, 'parts', [{ what: 'cost', value: '320' }], NOW);
    const printed = progressOn(bench.snapshot()).printed ?? [];
    expect(printed.map(({ page }) => page)).toEqual(['steps', 'parts']);
    expect(printed[1]?.said).toEqual([{ what: 'cost', value: '320' }]);
  });

  it('is written down with the newest first, and what is archived is gone', () => {
    const bench = nookBench();
    const entry = (id: string, at: string) => ({ id, entry: { at, text: id } });
    keepEntry(bench, entry('a', '2026-05-01T10:00:00Z'));
    keepEntry(bench, entry('b', '2026-05-02T10:00:00Z'));
    expect(entriesOn(bench.snapshot()).map(({ id }) => id)).toEqual(['b', 'a']);
    archiveEntry(bench, entry('b', '2026-05-02T10:00:00Z'));
    expect(entriesOn(bench.snapshot()).map(({ id }) => id)).toEqual(['a']);
  });
});

describe('moments', () => {
  it('are those of the workshop, with their offset', () => {
    expect(localMoment(NOW)).toMatch(/^2026-05-01T18:30:05[+-]\d\d:\d\d$/);
    expect(new Date(localMoment(NOW)).getTime()).toBe(NOW.getTime());
    expect(localDay(NOW)).toBe('2026-05-01');
  });
});

describe('what is measured', () => {
  const design = { name: 'Nook' } as RawDesign;

  it('stands in the design by what it is of, and is taken out again', () => {
    const thin = withMeasured(design, 'thickness', '17.4 mm', '18 mm', 'mdf');
    expect(thin.measured?.boards).toEqual([{ material: 'mdf', nominal: '18 mm', measured: '17.4 mm' }]);
    const thinner = withMeasured(thin, 'thickness', '17.2 mm', '18 mm', 'mdf');
    expect(thinner.measured?.boards).toEqual([{ material: 'mdf', nominal: '18 mm', measured: '17.2 mm' }]);
    const both = withMeasured(thinner, 'cutout', '231 mm', '230 mm');
    expect(both.measured?.cutout).toBe('231 mm');
    const volume = withMeasured(both, 'volume', '58 l', '60 l');
    expect(volume.measured?.volume).toEqual({ measured: '58 l', expected: '60 l' });
    const none = withMeasured(
      withMeasured(withMeasured(volume, 'volume', null, '60 l'), 'cutout', null, '230 mm'),
      'thickness',
      null,
      '18 mm',
      'mdf',
    );
    expect(none).toEqual(design);
  });
});
