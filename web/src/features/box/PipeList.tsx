import { useState } from 'react';
import { type Pipe, pipes, pipesOf, withPipe } from '../../model/pipes';
import { measure } from '../../model/preferences';
import { fieldAt, readTyped, usualUnit } from '../../model/units';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Icon } from '../../ui/Icon';
import { useObserved } from '../../ui/observed';
import { QuantityInput } from '../../ui/QuantityInput';
import { Table } from '../../ui/Table';
import { Term } from '../../ui/Term';
import { TextInput } from '../../ui/TextInput';

const FIELD = fieldAt('enclosure.ports.diameter');

const SIZES = [
  ['outside', 'Outside'],
  ['inside', 'Inside'],
  ['flare', 'Flare'],
  ['flange', 'Flange'],
  ['elbow', 'Elbow'],
  ['socket', 'Socket'],
  ['coupling', 'Coupling'],
  ['cap', 'Cap'],
] as const;

/** The pipes and kits a person can get, to be written anew. */
export function PipeList() {
  const [open, setOpen] = useState(false);
  const list = pipesOf(useObserved(pipes));
  const [refused, setRefused] = useState<string | null>(null);
  const put = (at: number, pipe: Pipe) => {
    const wrong = pipe.inside >= pipe.outside;
    setRefused(wrong ? `${pipe.name}: the inside must be smaller than the outside.` : null);
    if (!wrong) pipes.set({ list: withPipe(list, at, pipe) });
  };
  return (
    <div>
      <Button look="quiet" onClick={() => setOpen(true)}>
        Pipes and kits to choose from
      </Button>
      <Dialog
        title="Pipes and kits to choose from"
        about="Measure yours: what is sold under one name differs by a millimetre and more."
        open={open}
        onClose={() => setOpen(false)}
        wide
      >
        <Table
          className="text-[1rem]"
          rows={list}
          keyOf={(_, at) => at}
          columns={[
            {
              name: 'Name',
              className: 'pr-2',
              cell: (pipe, at) => (
                <TextInput
                  label={`Name of pipe ${at + 1}`}
                  value={pipe.name}
                  longest={40}
                  onChange={(name) => put(at, { ...pipe, name })}
                />
              ),
            },
            ...SIZES.map(([side, name]) => ({
              name,
              heading: <Term name={name} />,
              className: 'pr-1',
              cell: (pipe: Pipe, at: number) => (
                <QuantityInput
                  label={`${pipe.name} ${side}`}
                  fields={[FIELD]}
                  typed={pipe[side] ? measure(pipe[side], usualUnit(FIELD)) : null}
                  className="w-[6rem] font-mono text-[0.929rem]"
                  onType={(_, typed) => {
                    const si = typed === null ? 0 : readTyped(typed, 'length')?.si;
                    const bore = side === 'outside' || side === 'inside';
                    if (si || (si === 0 && !bore)) put(at, { ...pipe, [side]: si });
                  }}
                />
              ),
            })),
            {
              name: 'Remove',
              kind: 'action',
              cell: (pipe, at) => (
                <Button
                  look="quiet"
                  aria-label={`Remove ${pipe.name}`}
                  onClick={() => pipes.set({ list: withPipe(list, at, null) })}
                >
                  <Icon name="close" />
                </Button>
              ),
            },
          ]}
        />
        {refused && (
          <p role="alert" className="text-short">
            {refused}
          </p>
        )}
        <div className="mt-2 flex gap-2">
          <Button
            onClick={() => put(list.length, { name: `Pipe ${list.length + 1}`, outside: 0.1, inside: 0.094 })}
          >
            <Icon name="plus" /> A pipe
          </Button>
          <Button look="quiet" onClick={() => pipes.set({ list: null })}>
            The usual ones
          </Button>
        </div>
      </Dialog>
    </div>
  );
}
