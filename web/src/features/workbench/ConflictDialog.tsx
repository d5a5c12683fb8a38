import { useSyncExternalStore } from 'react';
import type { RawDesign } from '../../api/types';
import { same } from '../../model/design';
import { fieldAt, isField, shown } from '../../model/units';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import type { Session } from './session';

/** Two windows changed the same variant: shows both and lets the user choose. Neither is lost. */
export function ConflictDialog({ session }: { session: Session }) {
  const { conflict } = useSyncExternalStore(session.keeper.subscribe, session.keeper.snapshot);
  if (!conflict) return null;
  return (
    <Dialog
      title="Changed in another window"
      about="The other state is kept in the history whichever you choose."
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
          {differences(conflict.mine, conflict.theirs).map(([place, mine, theirs]) => (
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

/** The field's symbol, or the place itself where it is no quantity. */
function nameOf(place: string): string {
  const path = place.replace(/\.(\d+)\./g, '[$1].');
  return isField(path) ? fieldAt(path).symbol : place;
}

/** Places where two designs differ, with what is written there. */
function differences(mine: RawDesign, theirs: RawDesign): [string, string, string][] {
  const found: [string, string, string][] = [];
  const walk = (place: string, a: unknown, b: unknown) => {
    if (same(a, b)) return;
    const both = typeof a === 'object' && a && typeof b === 'object' && b;
    if (!both) {
      found.push([place, written(a), written(b)]);
      return;
    }
    for (const name of new Set([...Object.keys(a), ...Object.keys(b)])) {
      const [left, right] = [(a as Record<string, unknown>)[name], (b as Record<string, unknown>)[name]];
      walk(place ? `${place}.${name}` : name, left, right);
    }
  };
  walk('', mine, theirs);
  return found;
}

function written(value: unknown): string {
  if (value === undefined || value === null) return '–';
  return typeof value === 'object' ? JSON.stringify(value) : shown(value as string | number);
}
