// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useThrottled } from './throttle';

describe('a value followed calmly', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('skips what comes in between and ends with the last', () => {
    const { result, rerender } = renderHook(({ value }) => useThrottled(value, 100), {
      initialProps: { value: 0 },
    });
    act(() => void vi.advanceTimersByTime(1));
    const seen = new Set<number>();
    for (let value = 1; value <= 20; value += 1) {
      rerender({ value });
      act(() => void vi.advanceTimersByTime(10));
      seen.add(result.current);
    }
    act(() => void vi.advanceTimersByTime(200));
    expect(result.current).toBe(20);
    expect(seen.size).toBeLessThan(5);
    expect(seen.size).toBeGreaterThan(1);
  });

  it('keeps up, a frame behind, with values that come faster than frames', () => {
    const { result, rerender } = renderHook(({ value }) => useThrottled(value, 0), {
      initialProps: { value: 0 },
    });
    const behind: number[] = [];
    for (let value = 1; value <= 60; value += 1) {
      rerender({ value });
      act(() => void vi.advanceTimersByTime(5));
      behind.push(value - result.current);
    }
    expect(Math.max(...behind)).toBeLessThan(10);
  });

  it('ends with its component', () => {
    const { rerender, unmount } = renderHook(({ value }) => useThrottled(value, 100), {
      initialProps: { value: 0 },
    });
    rerender({ value: 1 });
    unmount();
    expect(vi.getTimerCount()).toBe(0);
  });
});
