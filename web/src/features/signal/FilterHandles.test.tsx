// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LanePlace } from '../../lanes/place';
import type { RawDesign, RawFilter } from '../../schema/types';
import { slot } from '../../testing/nook';
import { FilterHandles } from './FilterHandles';
import { filtersOf, withFilters } from './filters';

/** A lane of 800 px from 10 to 1000 Hz and 90 px for 45 dB. */
const PLACE: LanePlace = {
  lane: 'level',
  span: [10, 1000],
  width: 800,
  height: 90,
  x: (frequency) => 400 * Math.log10(frequency / 10),
  frequency: (x) => 10 * 10 ** (x / 400),
  y: (level) => (120 - level) * 2,
  perUnit: 2,
  at: () => 100,
};

beforeEach(() => {
  vi.useFakeTimers();
  HTMLElement.prototype.setPointerCapture = vi.fn();
  HTMLElement.prototype.hasPointerCapture = () => true;
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

function open(filters: RawFilter[], place = PLACE) {
  const told = { onSelect: vi.fn(), onPreview: vi.fn<(design: RawDesign) => void>(), onCommit: vi.fn() };
  render(<FilterHandles place={place} design={withFilters(slot, filters)} selected="" {...told} />);
  const last = () => filtersOf(told.onPreview.mock.lastCall?.[0] ?? slot)[0];
  return { ...told, last };
}

const BAND: RawFilter = { kind: 'parametric', frequency: '100 Hz', gain: '-3 dB', q: 2 };

describe('handles of filters', () => {
  it('stand on the level alone, one for each filter that has a frequency and is not bypassed', () => {
    open([
      BAND,
      { ...BAND, bypassed: true },
      { kind: 'gain', gain: '1 dB' },
      { kind: 'low_pass', frequency: '80 Hz' },
    ]);
    const names = screen.getAllByRole('slider').map((one) => one.getAttribute('aria-label'));
    expect(names).toEqual(['1 Parametric band, handle', '4 Low-pass, handle']);
    cleanup();
    open([BAND], { ...PLACE, lane: 'travel' });
    expect(screen.queryByRole('slider')).toBeNull();
    open([{ ...BAND, frequency: '4 Hz' }]);
    expect(screen.queryByRole('slider')).toBeNull();
  });

  it('say what they are, and move by keys: frequency, gain and Q', () => {
    const { last, onCommit } = open([BAND]);
    const handle = screen.getByRole('slider');
    expect(handle.getAttribute('aria-valuetext')).toBe('100 Hz, −3 dB, Q 2');
    fireEvent.keyDown(handle, { key: 'ArrowRight' });
    expect(last()).toMatchObject({ frequency: '101 Hz', gain: '-3 dB' });
    fireEvent.keyDown(handle, { key: 'ArrowUp', shiftKey: true });
    expect(last()).toMatchObject({ frequency: '100 Hz', gain: '2 dB' });
    fireEvent.keyDown(handle, { key: 'PageUp' });
    expect(last()?.q).toBe(2.2);
    // Many keys are one step back.
    expect(onCommit).not.toHaveBeenCalled();
    vi.advanceTimersByTime(1000);
    expect(onCommit).toHaveBeenCalledTimes(1);
  });

  it('move a pass along its frequency alone, whichever arrow is pressed', () => {
    const { last } = open([{ kind: 'high_pass', order: 4, frequency: '20 Hz' }]);
    fireEvent.keyDown(screen.getByRole('slider'), { key: 'ArrowUp' });
    expect(last()).toEqual({ kind: 'high_pass', order: 4, frequency: '20.2 Hz' });
  });

  it('are dragged along and up, within what is on show', () => {
    const { last, onCommit, onSelect } = open([BAND]);
    const handle = screen.getByRole('slider');
    fireEvent.pointerDown(handle, { button: 0, clientX: 400, clientY: 50, pointerId: 1 });
    expect(onSelect).toHaveBeenCalledWith('filter-0');
    // A tenth of the lane is a quarter of a decade; 10 px are 5 dB.
    fireEvent.pointerMove(handle, { clientX: 500, clientY: 40, pointerId: 1 });
    expect(last()).toMatchObject({ frequency: '178 Hz', gain: '2 dB' });
    fireEvent.pointerMove(handle, { clientX: 5000, clientY: 40, pointerId: 1 });
    expect(last()?.frequency).toBe('1000 Hz');
    fireEvent.pointerUp(handle, { pointerId: 1 });
    expect(onCommit).toHaveBeenCalledWith('filter');
  });

  it('turn their Q by the wheel, and leave the wheel with Ctrl to the zoom', () => {
    const { last, onPreview } = open([BAND]);
    const handle = screen.getByRole('slider');
    fireEvent.wheel(handle, { deltaY: 100, ctrlKey: true });
    expect(onPreview).not.toHaveBeenCalled();
    fireEvent.wheel(handle, { deltaY: 100 });
    expect(last()?.q).toBe(1.8);
  });
});
