import { useSyncExternalStore } from 'react';
import { differences, nameOf } from '../../model/differences';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import type { Session } from './session';

/** Two windows changed the same variant: shows both and lets the user choose. Neither is lost. */
export function ConflictDialog({ session }: { session: Session }) {
  const { conflict } = useSyncExternalStore(session.sync.subscribe, session.sync.snapshot);
  if (!conflict) return null;
  return (
    <Dialog
      title="Changed in another window"
      about="The other state stays in the history whichever you choose."
      open
      onClose={() => session.resolveConflict('mine')}
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
          {differences([conflict.mine, conflict.theirs]).map(({ place, values: [mine, theirs] }) => (
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
        <Button onClick={() => session.resolveConflict('theirs')}>Take the other</Button>
        <Button look="strong" onClick={() => session.resolveConflict('mine')}>
          Keep what is here
        </Button>
      </div>
    </Dialog>
  );
}
