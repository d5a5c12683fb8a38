// @vitest-environment jsdom
import { act, cleanup, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { RawDesign } from '../schema/types';
import { slot } from '../testing/nook';
import { BoxPicture } from './BoxPicture';

let asked: (RawDesign | null)[] = [];
let models: Map<RawDesign, object>;
vi.mock('../api/queries/box', () => ({
  useModel: (design: RawDesign | null) => {
    asked.push(design);
    return { data: design ? models.get(design) : undefined };
  },
}));
const paint = vi.fn(() => true);
vi.mock('../scene/still', () => ({
  paint: (...given: unknown[]) => (paint as (...all: unknown[]) => boolean)(...given),
}));

beforeEach(() => {
  vi.useFakeTimers();
  asked = [];
  models = new Map([[slot as RawDesign, { of: 'slot' }]]);
  paint.mockClear();
  paint.mockReturnValue(true);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const picture = (design: RawDesign) => (
  <BoxPicture design={design} width={46} height={46} otherwise={<i>sign</i>} />
);
const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

describe('the small picture of a box', () => {
  it('asks for nothing while the design is worked on, and is painted once it is left alone', async () => {
    const { rerender, container } = render(picture(slot as RawDesign));
    for (let at = 0; at < 5; at += 1) {
      await pass(800);
      rerender(picture({ ...slot, name: `Step ${at}` } as RawDesign));
    }
    expect(asked.every((design) => design === null)).toBe(true);
    rerender(picture(slot as RawDesign));
    expect(screen.getByText('sign')).toBeTruthy();
    await pass(1300);
    expect(asked.at(-1)).toBe(slot);
    expect(paint).toHaveBeenCalledExactlyOnceWith({ of: 'slot' }, container.querySelector('canvas'));
    expect(screen.queryByText('sign')).toBeNull();
    expect(container.querySelector('canvas')?.className).not.toContain('hidden');
  });

  it('keeps the sign of its kind where there is no box, or no canvas to paint on', async () => {
    const { rerender } = render(picture({ ...slot, name: 'cannot be built' } as RawDesign));
    await pass(1300);
    expect(paint).not.toHaveBeenCalled();
    expect(screen.getByText('sign')).toBeTruthy();
    paint.mockReturnValue(false);
    rerender(picture(slot as RawDesign));
    await pass(1300);
    expect(paint).toHaveBeenCalledOnce();
    expect(screen.getByText('sign')).toBeTruthy();
  });

  it('gives the sign back when the box can be built no more', async () => {
    const { rerender } = render(picture(slot as RawDesign));
    await pass(1300);
    expect(screen.queryByText('sign')).toBeNull();
    rerender(picture({ ...slot, name: 'broken' } as RawDesign));
    await pass(1300);
    expect(screen.getByText('sign')).toBeTruthy();
  });
});
