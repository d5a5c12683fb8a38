import { archivedPlaces, keepPlace, NEW_PLACES, placesOn } from '../../model/places';
import type { Bench, Workbench } from '../../model/workbench';
import { Button } from '../../ui/Button';

const KINDS = [
  ['room', 'A room', 'Standing waves decide which notes are loud at which seat.'],
  ['car', 'A car', 'The closed cabin lifts the bottom down to its leak.'],
  ['outdoors', 'Outdoors', 'Nothing comes between but distance, and the battery runs down.'],
] as const;

/** Where it is listened to, said for the first time. */
export function NewPlace({ workbench, bench }: { workbench: Workbench; bench: Bench }) {
  const others = placesOn(bench);
  const archived = archivedPlaces(bench);
  return (
    <div className="mx-auto flex max-w-3xl flex-col gap-4 pt-6">
      <h2 className="text-[1.286rem]">Where is it listened to?</h2>
      <p>
        All curves so far are in the open, 1 m before the box. A place adds what arrives at the seats, as
        lines of their own; the curves of the box stay as they are.
      </p>
      <ul className="grid grid-cols-1 gap-3 sm:grid-cols-3">
        {KINDS.map(([kind, name, about]) => (
          <li key={kind}>
            <button
              type="button"
              className="h-full w-full rounded-[3px] border border-line bg-card px-3 py-2 text-left hover:border-oak"
              onClick={() =>
                keepPlace(workbench, { id: crypto.randomUUID(), place: NEW_PLACES[kind] }, 'new place')
              }
            >
              <b className="text-[1.071rem]">{name}</b>
              <span className="block text-soft">{about}</span>
            </button>
          </li>
        ))}
      </ul>
      {others.length > 0 && (
        <p className="flex flex-wrap items-center gap-2">
          Or one of this build:
          {others.map(({ id, place }) => (
            <Button key={id} onClick={() => workbench.listen({ place: id })}>
              {place.name}
            </Button>
          ))}
        </p>
      )}
      {archived.length > 0 && (
        <p className="flex flex-wrap items-center gap-2">
          <span className="text-soft">Archived:</span>
          {archived.map((one) => (
            <Button key={one.id} onClick={() => keepPlace(workbench, one, 'bring back')}>
              Bring back {one.place.name}
            </Button>
          ))}
        </p>
      )}
    </div>
  );
}
