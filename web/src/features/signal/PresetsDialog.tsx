import { useState } from 'react';
import { useParams } from 'react-router';
import { useArchived } from '../../api/queries/builds';
import { archivePreset, bringBackPreset, presetsOn, renamePreset, savePreset } from '../../model/presets';
import { shown } from '../../model/units';
import type { Bench, Workbench } from '../../model/workbench';
import type { RawDesign, RawFilter } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextInput } from '../../ui/TextInput';
import { filtersOf, kindName } from './filters';
import { USUAL_PRESETS } from './usual_presets';

interface Props {
  workbench: Workbench;
  bench: Bench;
  design: RawDesign;
  /** Plays the variant through these filters instead of its own. */
  onUse: (filters: RawFilter[], name: string) => void;
  onClose: () => void;
}

/** Filters that this build keeps by name. */
export function PresetsDialog({ workbench, bench, design, onUse, onClose }: Props) {
  const all = presetsOn(bench);
  const list = all.filter(({ archived }) => !archived);
  const { id: build = '' } = useParams();
  const stored = useArchived(build).data ?? [];
  const archived = [
    ...all.filter((one) => one.archived),
    ...stored.flatMap((one) =>
      one.kind === 'preset' && !all.some(({ id }) => id === one.id)
        ? [{ id: one.id, preset: one.content }]
        : [],
    ),
  ];
  const [name, setName] = useState('');
  const own = filtersOf(design);
  const missing = USUAL_PRESETS.filter((usual) => !list.some(({ preset }) => preset.name === usual.name));
  return (
    <Dialog
      title="Presets"
      about="Filters kept by a name, for films, rock or a bass guitar. Using one puts its filters in place of those of this variant; Undo brings them back."
      open
      onClose={onClose}
    >
      <ul aria-label="Presets" className="flex flex-col gap-2">
        {list.map((one) => {
          const { id, preset } = one;
          return (
            <li key={id} className="rounded-[3px] border border-line bg-card px-2.5 py-1.5">
              <div className="flex items-center gap-2">
                <TextInput
                  label={`Name of ${preset.name}`}
                  value={preset.name}
                  longest={120}
                  className="flex-1 font-semibold"
                  onChange={(next) => renamePreset(workbench, one, next)}
                />
                <Button
                  aria-label={`Use ${preset.name}`}
                  onClick={() => onUse(preset.filters ?? [], preset.name)}
                >
                  Use
                </Button>
                <Button aria-label={`Archive ${preset.name}`} onClick={() => archivePreset(workbench, one)}>
                  Archive
                </Button>
              </div>
              <p className="text-[0.929rem] text-soft">{words(preset.filters ?? [])}</p>
            </li>
          );
        })}
      </ul>
      {list.length === 0 && <p>None are kept yet.</p>}
      <form
        className="mt-3 flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!name.trim() || !own.length) return;
          savePreset(workbench, name.trim(), own);
          setName('');
        }}
      >
        <label className="flex flex-1 items-center gap-2">
          Save the filters of this variant as
          <input
            className="field min-w-0 flex-1"
            maxLength={120}
            autoComplete="off"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <Button type="submit" disabled={!name.trim() || !own.length}>
          Save
        </Button>
      </form>
      {!own.length && <p className="text-[0.929rem] text-soft">This variant has no filters to save.</p>}
      {archived.length > 0 && (
        <p className="mt-3 flex flex-wrap items-center gap-1.5">
          <span className="text-soft">Archived:</span>
          {archived.map(({ id, preset }) => (
            <Button key={id} onClick={() => bringBackPreset(workbench, { id, preset })}>
              Bring back {preset.name}
            </Button>
          ))}
        </p>
      )}
      {missing.length > 0 && (
        <p className="mt-3 flex flex-wrap items-center gap-1.5">
          <span className="text-soft">To begin with:</span>
          {missing.map((usual) => (
            <Button key={usual.name} onClick={() => savePreset(workbench, usual.name, usual.filters ?? [])}>
              {usual.name}
            </Button>
          ))}
        </p>
      )}
    </Dialog>
  );
}

/** The filters of a preset in a line. */
function words(filters: readonly RawFilter[]): string {
  if (!filters.length) return 'No filters: the signal as it is.';
  const one = (filter: RawFilter) =>
    [kindName(filter.kind), filter.frequency, filter.gain, filter.delay]
      .filter((value) => value != null)
      .map((value) => shown(value as string))
      .join(' ');
  return filters.map(one).join(', ');
}
