// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fieldAt } from '../model/units';
import { Tape } from './Tape';

const volume = fieldAt('enclosure.volume');

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      disconnect() {}
    },
  );
  HTMLElement.prototype.setPointerCapture = vi.fn();
  HTMLElement.prototype.hasPointerCapture = () => true;
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

function open(si: number | null = 0.044) {
  const told = { onPreview: vi.fn(), onType: vi.fn(), onCommit: vi.fn() };
  const typed = si === null ? null : `${si * 1000} l`;
  render(<Tape name="Volume" fields={[volume]} typed={typed} si={si} {...told} />);
  return { ...told, rule: screen.getByRole('slider') };
}

describe('a value on a rule', () => {
  it('says what it is to those who cannot see it', () => {
    const { rule } = open();
    expect(rule.getAttribute('aria-valuetext')).toBe('44 l');
    expect(rule.getAttribute('aria-valuemin')).toBe('0.1');
    expect(rule.getAttribute('aria-label')).toBe('Volume, rule');
  });

  it('is nudged by arrows, ten steps with Shift, and settles a little later', () => {
    const { rule, onPreview, onCommit } = open();
    fireEvent.keyDown(rule, { key: 'ArrowRight' });
    fireEvent.keyDown(rule, { key: 'ArrowDown', shiftKey: true });
    expect(onPreview.mock.calls.map(([, typed]) => typed)).toEqual(['44.5 l', '39 l']);
    expect(onCommit).not.toHaveBeenCalled();
    vi.advanceTimersByTime(1000);
    expect(onCommit).toHaveBeenCalledTimes(1);
  });

  it('follows the hand, a doubling every 150 px, and settles when it is let go', () => {
    const { rule, onPreview, onCommit } = open();
    // Without layout the rule is 200 px wide and begins at 0; its middle is the value.
    fireEvent.pointerDown(rule, { button: 0, clientX: 100, pointerId: 1 });
    fireEvent.pointerMove(rule, { clientX: 250, pointerId: 1 });
    fireEvent.pointerUp(rule, { pointerId: 1 });
    expect(onPreview.mock.calls.map(([, typed]) => typed)).toEqual(['44 l', '88 l']);
    expect(onCommit).toHaveBeenCalledTimes(1);
  });

  it('is not moved by a finger that scrolls the page, only by one that goes along it', () => {
    const { rule, onPreview } = open();
    const touch = { button: 0, pointerId: 1, pointerType: 'touch' };
    fireEvent.pointerDown(rule, { ...touch, clientX: 100 });
    fireEvent.pointerMove(rule, { ...touch, clientX: 104, clientY: 60 });
    // The browser takes the finger over to scroll.
    fireEvent.pointerCancel(rule, touch);
    expect(onPreview).not.toHaveBeenCalled();
    fireEvent.pointerDown(rule, { ...touch, clientX: 100 });
    fireEvent.pointerMove(rule, { ...touch, clientX: 250 });
    expect(onPreview.mock.calls.map(([, typed]) => typed)).toEqual(['88 l']);
  });

  it('stays within what is allowed', () => {
    const { rule, onPreview } = open(0.0001);
    fireEvent.keyDown(rule, { key: 'PageDown' });
    expect(onPreview).toHaveBeenCalledWith(volume, '0.1 l');
  });

  it('that is not known yet cannot be moved', () => {
    const { rule, onPreview } = open(null);
    fireEvent.keyDown(rule, { key: 'ArrowRight' });
    fireEvent.pointerDown(rule, { button: 0, clientX: 50, pointerId: 1 });
    expect(onPreview).not.toHaveBeenCalled();
    expect(rule.getAttribute('aria-disabled')).toBe('true');
  });
});
