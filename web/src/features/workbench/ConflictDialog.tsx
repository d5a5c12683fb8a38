import { useSyncExternalStore } from 'react';
import { differences, nameOf } from '../../model/differences';
import type { Held } from '../../model/documents';
import type { Conflict, Outbox } from '../../model/outbox';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Table } from '../../ui/Table';

interface Props {
  outbox: Outbox;
  /** Closed without a choice: nothing is decided, and the choice waits beside the state of saving. */
  onClose: () => void;
}

/** Two windows changed the same document: shows both and lets the user choose. Neither is lost. */
export function ConflictDialog({ outbox, onClose }: Props) {
  const { conflict } = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  if (!conflict) return null;
  return (
    <Dialog
      title="Changed in another window"
      about={`${conflict.name} was changed here and there. Both states stay in the history whichever you choose.`}
      open
      onClose={onClose}
    >
      <Table
        className="text-[1rem]"
        rows={differences(sides(conflict))}
        keyOf={({ place }) => place}
        columns={[
          { name: 'Value', names: true, className: 'py-1', cell: ({ place }) => nameOf(place) },
          { name: 'Here', className: 'font-mono text-[0.929rem]', cell: ({ values }) => values[0] },
          {
            name: 'In the other window',
            className: 'font-mono text-[0.929rem]',
            cell: ({ values }) => values[1],
          },
        ]}
      />
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={() => outbox.resolve('theirs')}>Take the other</Button>
        <Button look="strong" onClick={() => outbox.resolve('mine')}>
          Keep what is here
        </Button>
      </div>
    </Dialog>
  );
}

/** What is compared: of an archived document that it is. */
function sides({ document, mine, theirs }: Conflict): object[] {
  const both = [mine, theirs] as Held<object>[];
  if (document.kind === 'order') return both;
  const archived = both.some((side) => side.archived);
  return both.map((side) => (archived ? { archived: side.archived, ...side.content } : side.content));
}
