// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import barn from '../../../../demo/builds/barn-dance.json';
import { preferences } from '../../model/preferences';
import { pointsOf } from '../../model/way';
import { Workbench } from '../../model/workbench';
import type { RawDesign } from '../../schema/types';
import { WayCurve } from './WayCurve';

vi.mock('../../ui/size', () => ({ useSize: () => [() => undefined, { width: 500, height: 150 }] }));
vi.mock('../../api/queries/box', () => ({ useCabinet: () => ({ data: undefined }) }));

const horn = barn.variants.find(({ enclosure }) => 'passage' in enclosure) as unknown as RawDesign;
let bench: Workbench;
function draw() {
  const variant = bench.snapshot().variants[0];
  if (!variant) throw new Error('no variant');
  return <WayCurve variant={variant} workbench={bench} report={undefined} />;
}
function open() {
  const view = render(draw());
  bench.subscribe(() => view.rerender(draw()));
}
const design = () => bench.snapshot().variants[0]?.design as RawDesign;
const point = (number: number) => screen.getByRole('slider', { name: `Point ${number} of the path` });

beforeEach(() => {
  vi.useFakeTimers();
  const variants = [{ id: 'v0', design: horn, place: 0 }];
  const text = { name: 'Barn', notes: '', brief: null };
  bench = new Workbench(
    { build: 'b', title: 't', brief: 'r', text, variants, next: 1, view: null },
    () => undefined,
  );
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  preferences.reset();
});

describe('a line or horn as a curve', () => {
  it('has a slider for every point, of the area that is there', () => {
    open();
    for (const { index, area } of pointsOf(horn)) {
      const value = Number(point(index + 1).getAttribute('aria-valuenow'));
      expect(value / (area * 1e4)).toBeCloseTo(1, 2);
      expect(point(index + 1).getAttribute('aria-valuetext')).toMatch(/ m, .* cm²$/);
    }
  });

  it('is changed by the arrow keys, with Shift ten times, as one step of undo', () => {
    open();
    const [, before] = pointsOf(design());
    if (!before) throw new Error('a horn has two ends');
    fireEvent.keyDown(point(2), { key: 'ArrowRight' });
    expect(pointsOf(design())[1]?.at).toBeCloseTo(before.at + 0.01, 3);
    fireEvent.keyDown(point(2), { key: 'ArrowUp', shiftKey: true });
    expect((pointsOf(design())[1]?.area ?? 0) / before.area).toBeCloseTo(1.2, 2);
    vi.advanceTimersByTime(800);
    bench.undo();
    expect(pointsOf(design())[1]).toEqual(before);
  });

  it('takes place and area of a point as they are typed', () => {
    open();
    const last = pointsOf(horn).length;
    fireEvent.focus(point(last));
    const area = screen.getByRole('textbox', { name: 'Area at the point' });
    fireEvent.change(area, { target: { value: '2000 cm2' } });
    fireEvent.keyDown(area, { key: 'Enter' });
    expect(pointsOf(design()).at(-1)?.area).toBeCloseTo(0.2, 6);
    // The first has no place: it is where the path begins.
    fireEvent.focus(point(1));
    expect(screen.queryByRole('textbox', { name: 'Place of the point' })).toBeNull();
  });

  it('gets another point without changing how long it is', () => {
    open();
    const long = pointsOf(horn).at(-1)?.at ?? 0;
    const count = pointsOf(horn).length;
    fireEvent.click(screen.getByRole('button', { name: 'Point' }));
    expect(pointsOf(design())).toHaveLength(count + 1);
    expect(pointsOf(design()).at(-1)?.at).toBeCloseTo(long, 3);
  });

  it('is told in feet and square inches to who reads so', () => {
    preferences.set({ units: { length: 'in', area: 'in2' } });
    open();
    expect(point(2).getAttribute('aria-valuetext')).toMatch(/ ft, .* in²$/);
  });
});
