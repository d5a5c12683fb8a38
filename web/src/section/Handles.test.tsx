// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../model/preferences';
import { slot } from '../testing/nook';
import type { Frame } from './frame';
import { Handles } from './Handles';
import type { Handle } from './handles';

const frame = { x: (at: number) => at * 100, y: (at: number) => at * 100, width: 300, scale: 100 } as Frame;
const pull = vi.fn((_: number) => slot);
const handle = (said: string): Handle => ({
  id: 'a',
  label: 'Length of the port',
  x: 1,
  y: 1,
  axis: 'x',
  said,
  pull,
});
function open(said: string) {
  const onPull = vi.fn();
  render(
    <svg>
      <title>Section</title>
      <Handles handles={[handle(said)]} frame={frame} onPull={onPull} onCommit={() => undefined} />
    </svg>,
  );
  return onPull;
}
const slider = () => screen.getByRole('slider', { name: 'Length of the port' });

afterEach(() => {
  cleanup();
  preferences.reset();
});

describe('a grip on the drawing', () => {
  it('tells readers the value that is there, in their units', () => {
    open('448 mm');
    expect(slider().getAttribute('aria-valuenow')).toBe('448');
    expect(slider().getAttribute('aria-valuetext')).toBe('448 mm');
    cleanup();
    preferences.set({ units: { length: 'in' } });
    open('448 mm');
    expect(slider().getAttribute('aria-valuetext')).toBe('17 5/8 in');
    expect(slider().getAttribute('aria-valuenow')).toBe('17.625');
  });

  it('of two values tells the first as a number and both in words', () => {
    open('12.5 l behind, 30.0 l before');
    expect(slider().getAttribute('aria-valuenow')).toBe('12.5');
    expect(slider().getAttribute('aria-valuetext')).toBe('12.5 l behind, 30.0 l before');
  });

  it('is pulled by a millimetre, with Shift by ten', () => {
    const onPull = open('448 mm');
    fireEvent.keyDown(slider(), { key: 'ArrowRight' });
    fireEvent.keyDown(slider(), { key: 'ArrowLeft', shiftKey: true });
    expect(pull.mock.calls.map(([by]) => by)).toEqual([0.001, -0.01]);
    expect(onPull).toHaveBeenCalledTimes(2);
  });
});
