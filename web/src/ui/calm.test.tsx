import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useCalm } from './calm';

describe('a value followed calmly', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('skips what comes in between and ends with the last', () => {
    const { result, rerender } = renderHook(({ value }) => useCalm(value, 100), {
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
});
