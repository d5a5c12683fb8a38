import { useSyncExternalStore } from 'react';
import { differences, nameOf } from '../../model/differences';
import type { Held } from '../../model/documents';
import type { Conflict, Outbox } from '../../model/outbox';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';

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
      <table className="w-full">
        <thead>
          <tr className="border-line border-b text-left">
            <th scope="col">Value</th>
            <th scope="col">Here</th>
            <th scope="col">In the other window</th>
          </tr>
        </thead>
        <tbody>
          {differences(sides(conflict)).map(({ place, values: [mine, theirs] }) => (
            <tr key={place} className="border-grid border-b">
              <th scope="row" className="py-1 text-left font-normal">
                {nameOf(place)}
              </th>
              <td className="font-mono text-[13px]">{mine}</td>
              <td className="font-mono text-[13px]">{theirs}</td>
            </tr>
          ))}
        </tbody>
      </table>
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
