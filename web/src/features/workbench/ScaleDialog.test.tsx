// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ScaleOutcome } from '../../schema/types';
import { slot } from '../../testing/nook';
import { ScaleDialog } from './ScaleDialog';

const asked: unknown[] = [];
const outcome = (change: Partial<ScaleOutcome>): ScaleOutcome => ({
  outside: 0.06,
  air: 0.044,
  f3: 28.3,
  tuning: 29,
  clean: 101.24,
  level: 89.4,
  air_speed: 16.8,
  buildable: true,
  ...change,
});
let after: ScaleOutcome;
let before = false;
vi.mock('../../api/queries/design', () => ({
  useScaled: (_design: unknown, _brief: unknown, factor: unknown) => {
    asked.push(factor);
    const data = {
      factor: factor === 'place' ? 0.731 : Number(factor),
      design: { ...slot, notes: 'scaled' },
      before: outcome({}),
      after,
    };
    return { data: factor === null ? undefined : data, error: null, isPlaceholderData: before };
  },
}));

beforeEach(() => {
  asked.splice(0);
  before = false;
  after = outcome({ air: 0.0225, tuning: 36.2 });
});
afterEach(cleanup);

function open() {
  const [onUse, onTry] = [vi.fn(), vi.fn()];
  render(
    <ScaleDialog
      design={slot}
      brief={null}
      conditions="2.83 V, half space"
      onUse={onUse}
      onTry={onTry}
      onClose={() => undefined}
    />,
  );
  return { onUse, onTry };
}

const factor = () => screen.getByRole('textbox', { name: 'Factor' }) as HTMLInputElement;

describe('a box that is scaled', () => {
  it('says what each figure was and becomes, in conditions that are named', () => {
    open();
    expect(screen.getByText(/2\.83 V, half space\.$/)).toBeTruthy();
    const tuning = within(screen.getByRole('row', { name: /^Tuning/ })).getAllByRole('cell');
    expect(tuning.map((cell) => cell.textContent)).toEqual(['29 Hz', '36.2 Hz']);
    const air = within(screen.getByRole('row', { name: /^Air/ })).getAllByRole('cell');
    expect(air.map((cell) => cell.textContent)).toEqual(['44.0 l', '22.5 l']);
  });

  it('takes a decimal comma, and refuses what is no factor with the range', () => {
    open();
    fireEvent.change(factor(), { target: { value: '0,75' } });
    expect(asked.at(-1)).toBe(0.75);
    for (const wrong of ['9', '0', 'half', '']) {
      fireEvent.change(factor(), { target: { value: wrong } });
      expect(screen.getByRole('alert').textContent).toContain('0.2 to 5');
      expect(factor().getAttribute('aria-invalid')).toBe('true');
      expect(asked.at(-1)).toBeNull();
      expect(screen.queryByRole('button', { name: 'As a variant' })).toBeNull();
    }
  });

  it('finds the factor of a place, and names the variant after it', () => {
    const { onTry, onUse } = open();
    fireEvent.click(screen.getByRole('radio', { name: 'Into the place of the brief' }));
    expect(asked.at(-1)).toBe('place');
    expect(screen.getByText('× 0.731')).toBeTruthy();
    expect(screen.queryByRole('textbox', { name: 'Factor' })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'As a variant' }));
    expect(onTry.mock.calls[0]?.[0]).toMatchObject({ notes: 'scaled', name: `${slot.name}, × 0.731` });
    fireEvent.click(screen.getByRole('button', { name: 'Replace this design' }));
    expect(onUse.mock.calls[0]?.[0]).toMatchObject({ name: slot.name, notes: 'scaled' });
  });

  it('takes nothing of another factor while the answer is on its way', () => {
    before = true;
    const { onTry, onUse } = open();
    for (const name of ['As a variant', 'Replace this design']) {
      fireEvent.click(screen.getByRole('button', { name }));
    }
    expect(onTry).not.toHaveBeenCalled();
    expect(onUse).not.toHaveBeenCalled();
    fireEvent.click(screen.getByRole('radio', { name: 'Into the place of the brief' }));
    expect(screen.queryByText(/^× 0/)).toBeNull();
  });

  it('does not hide that it can no longer be built', () => {
    after = outcome({ buildable: false });
    open();
    expect(screen.getByText('cannot be built').className).toContain('text-short');
  });
});
