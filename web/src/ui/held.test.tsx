// @vitest-environment jsdom
import { renderHook } from '@testing-library/react';
import { expect, it } from 'vitest';
import { useHeld } from './held';

it('keeps what was there while it is held, and follows again after', () => {
  const { result, rerender } = renderHook(({ value, held }) => useHeld(value, held), {
    initialProps: { value: 'first', held: false },
  });
  rerender({ value: 'second', held: false });
  expect(result.current).toBe('second');
  rerender({ value: 'third', held: true });
  expect(result.current).toBe('second');
  rerender({ value: 'third', held: false });
  expect(result.current).toBe('third');
});
