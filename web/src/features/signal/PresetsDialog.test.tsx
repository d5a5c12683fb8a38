// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { presetsOn } from '../../model/presets';
import { nookBench, slot } from '../../testing/nook';
import { useObserved } from '../../ui/observed';
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
  const workbench = nookBench(onWanted, {
    kept: [
      {
        kind: 'preset',
        id: 'a',
        content: { name: 'Films', filters: [{ kind: 'high_pass', frequency: '20 Hz' }] },
        archived: false,
      },
    ],
  });
  const onUse = vi.fn();
  const Shown = () => {
    const bench = useObserved(workbench);
    return (
      <PresetsDialog workbench={workbench} bench={bench} design={design} onUse={onUse} onClose={vi.fn()} />
    );
  };
  render(<Shown />);
  const names = () =>
    presetsOn(workbench.snapshot()).flatMap(({ preset, archived }) => (archived ? [] : [preset.name]));
  return { names, onUse, onWanted };
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
    const { names } = open(withFilters(slot, [{ kind: 'invert' }]));
    fireEvent.change(screen.getByRole('textbox', { name: 'Save the filters of this variant as' }), {
      target: { value: ' Evening ' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Save' }));
    expect(names()).toEqual(['Films', 'Evening']);
  });

  it('are begun with, archived and brought back, those of an earlier visit too', () => {
    const { names, onWanted } = open();
    expect(screen.queryByRole('button', { name: 'Films' })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Rock' }));
    fireEvent.click(screen.getByRole('button', { name: 'Archive Films' }));
    expect(names()).toEqual(['Rock']);
    fireEvent.click(screen.getByRole('button', { name: 'Bring back Films' }));
    fireEvent.click(screen.getByRole('button', { name: 'Bring back Last summer' }));
    expect(names().sort()).toEqual(['Films', 'Last summer', 'Rock']);
    expect(onWanted.mock.lastCall?.[0]).toEqual({ kind: 'preset', id: 'old' });
    expect(screen.queryByText('Archived:')).toBeNull();
  });
});
