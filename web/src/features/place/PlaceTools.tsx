import {
  archivePlace,
  type Chosen,
  type Item,
  inMetres,
  type KeptPlace,
  keepPlace,
  NEW_PLACES,
  sizeOf,
  withItem,
} from '../../model/places';
import type { Workbench } from '../../model/workbench';
import type { PlaceReport, RawListeningPlace } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Menu, Item as MenuItem } from '../../ui/Menu';
import { TextInput } from '../../ui/TextInput';

interface Props {
  here: KeptPlace;
  workbench: Workbench;
  report: PlaceReport | undefined;
  onHistory: () => void;
  onEdit: (place: RawListeningPlace, label: string) => void;
  onChoose: (chosen: Chosen) => void;
}

const MOST: Record<Item, number> = { cabinets: 8, seats: 12 };

/** The name of the place, and what can be put into it. */
export function PlaceTools({ here, workbench, report, onHistory, onEdit, onChoose }: Props) {
  const { place } = here;
  const size = sizeOf(place);
  const add = (which: Item) => {
    const list = place[which] ?? [];
    const last = list.at(-1);
    const middle = size ? inMetres(size[0] / 2) : '0 m';
    const beside =
      which === 'seats'
        ? {
            across: middle,
            along: size ? inMetres(size[1] / 2) : '6 m',
            up: place.kind === 'outdoors' ? '1.6 m' : '1.1 m',
          }
        : { ...last, across: middle, along: last?.along ?? '0 m' };
    onEdit(withItem(place, which, list.length, beside), which === 'seats' ? 'seat' : 'cabinet');
    onChoose({ which, at: list.length });
  };
  const steered = report?.field?.steered;
  const steer = () => {
    const [first] = place.cabinets ?? [];
    if (!steered || !first) return;
    const [x = 0, y = 0] = steered.at;
    const second = {
      ...first,
      across: inMetres(x),
      along: inMetres(y),
      delay: `${(steered.delay * 1e3).toFixed(2)} ms`,
      inverted: !first.inverted,
    };
    onEdit({ ...place, cabinets: [first, second, ...(place.cabinets ?? []).slice(2)] }, 'steered pair');
    onChoose({ which: 'cabinets', at: 1 });
  };
  return (
    <div className="flex items-center gap-1.5">
      <TextInput
        label="Name of the place"
        value={place.name}
        longest={120}
        className="min-w-0 flex-1 font-semibold"
        onChange={(name) => onEdit({ ...place, name }, 'name of the place')}
      />
      <Button disabled={(place.cabinets?.length ?? 0) >= MOST.cabinets} onClick={() => add('cabinets')}>
        Add a cabinet
      </Button>
      <Button disabled={(place.seats?.length ?? 0) >= MOST.seats} onClick={() => add('seats')}>
        Add a seat
      </Button>
      <Menu trigger={<Button aria-label="More of places">More</Button>}>
        {(['room', 'car', 'outdoors'] as const).map((kind) => (
          <MenuItem
            key={kind}
            onSelect={() =>
              keepPlace(workbench, { id: crypto.randomUUID(), place: NEW_PLACES[kind] }, 'new place')
            }
          >
            {{ room: 'New room', car: 'New car', outdoors: 'New place outdoors' }[kind]}
          </MenuItem>
        ))}
        <MenuItem
          onSelect={() =>
            keepPlace(
              workbench,
              { id: crypto.randomUUID(), place: { ...place, name: `${place.name}, another` } },
              'copy of the place',
            )
          }
        >
          Duplicate this place
        </MenuItem>
        {steered && (place.cabinets?.length ?? 0) < MOST.cabinets && (
          <MenuItem onSelect={steer}>Steer a pair to the front</MenuItem>
        )}
        <MenuItem onSelect={onHistory}>History of this place …</MenuItem>
        <MenuItem onSelect={() => archivePlace(workbench, here)}>Archive this place</MenuItem>
      </Menu>
    </div>
  );
}
