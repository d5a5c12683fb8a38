// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Presets } from '../../model/presets';
import { slot } from '../../testing/nook';
import { withFilters } from './filters';
import { PresetsDialog } from './PresetsDialog';

vi.mock('../../api/queries/builds', () => ({
  useArchived: () => ({
    data: [{ kind: 'preset', id: 'old', content: { name: 'Last summer', filters: [] } }],
  }),
}));
vi.mock('react-router', () => ({ useParams: () => ({ id: 'b' }) }));

afterEach(cleanup);

function open(design = slot) {
  const onWanted = vi.fn();
  const presets = new Presets(
    [
      {
        id: 'a',
        preset: { name: 'Films', filters: [{ kind: 'high_pass', frequency: '20 Hz' }] },
        archived: false,
      },
    ],
    onWanted,
  );
  const onUse = vi.fn();
  render(<PresetsDialog presets={presets} design={design} onUse={onUse} onClose={vi.fn()} />);
  return { presets, onUse, onWanted };
}

describe('presets', () => {
  it('are listed with what they do, and used', () => {
    const { onUse } = open();
    const [first] = within(screen.getByRole('list', { name: 'Presets' })).getAllByRole('listitem');
    expect(first?.textContent).toContain('High-pass 20 Hz');
    fireEvent.click(screen.getByRole('button', { name: 'Use Films' }));
    expect(onUse).toHaveBeenCalledWith([{ kind: 'high_pass', frequency: '20 Hz' }], 'Films');
  });

  it('are saved of a variant that has filters, by a name', () => {
    open();
    expect(screen.getByText('This variant has no filters to save.')).toBeTruthy();
    expect((screen.getByRole('button', { name: 'Save' }) as HTMLButtonElement).disabled).toBe(true);
    cleanup();
    const { presets } = open(withFilters(slot, [{ kind: 'invert' }]));
    fireEvent.change(screen.getByRole('textbox', { name: 'Save the filters of this variant as' }), {
      target: { value: ' Evening ' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Save' }));
    expect(presets.list.map(({ preset }) => preset.name)).toEqual(['Films', 'Evening']);
  });

  it('are begun with, archived and brought back, those of an earlier visit too', () => {
    const { presets, onWanted } = open();
    expect(screen.queryByRole('button', { name: 'Films' })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Rock' }));
    fireEvent.click(screen.getByRole('button', { name: 'Archive Films' }));
    expect(presets.list.map(({ preset }) => preset.name)).toEqual(['Rock']);
    fireEvent.click(screen.getByRole('button', { name: 'Bring back Films' }));
    fireEvent.click(screen.getByRole('button', { name: 'Bring back Last summer' }));
    expect(presets.list.map(({ preset }) => preset.name).sort()).toEqual(['Films', 'Last summer', 'Rock']);
    expect(onWanted.mock.lastCall?.[0]).toEqual({ kind: 'preset', id: 'old' });
    expect(screen.queryByText('Archived:')).toBeNull();
  });
});
