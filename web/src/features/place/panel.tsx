import { Refusal } from '../../api/client';
import type { Chosen } from '../../model/places';
import { fieldAt } from '../../model/units';
import type { PlaceReport, RawBrief, RawDesign, RawListeningPlace, Typed } from '../../schema/types';
import { HelpText } from '../../ui/HelpText';
import { QuantityInput } from '../../ui/QuantityInput';

/** What every panel of a place is given. */
export interface PanelProps {
  place: RawListeningPlace;
  report: PlaceReport | undefined;
  /** Why there is no report. */
  error: unknown;
  chosen: Chosen;
  design: RawDesign;
  build: string;
  brief: RawBrief | null;
  onBrief: (brief: RawBrief) => void;
  onChoose: (chosen: Chosen) => void;
  onEdit: (place: RawListeningPlace, label: string) => void;
  /** Places that are pointed at, shown on the plan, m. */
  onGhosts: (places: readonly (readonly number[])[]) => void;
}

/** A value of a place: where it stands in it, and what it is. */
export interface PlaceRow {
  path: string;
  typed: Typed | null | undefined;
  /** What it is where nothing is typed. */
  follows?: string;
  optional?: boolean;
  onType: (typed: Typed | null) => void;
}

interface Props {
  rows: readonly PlaceRow[];
  error: unknown;
  otherwise?: string;
}

const WALL_NAMES: Record<string, string> = {
  left: 'Left wall',
  right: 'Right wall',
  below: 'Bottom wall of the plan',
  above: 'Top wall of the plan',
  floor: 'Floor',
  ceiling: 'Ceiling',
};

/** Some values of a place, with one line that explains the value in hand. */
export function PlaceValues({ rows, error, otherwise = '' }: Props) {
  const refusal = error instanceof Refusal ? error : null;
  return (
    <HelpText otherwise={otherwise}>
      {(explain) => (
        <div className="grid grid-cols-1 gap-x-4 gap-y-[3px] sm:grid-cols-2">
          {rows.map(({ path, typed, follows, optional = true, onType }) => {
            const [, wall] = /^walls\.(\w+)$/.exec(path) ?? [];
            const field = fieldAt(wall ? 'place.walls' : `place.${path}`);
            const name = wall ? (WALL_NAMES[wall] ?? wall) : field.symbol;
            return (
              <div
                key={path}
                className="grid grid-cols-[minmax(0,1fr)_6.6rem] items-center gap-2"
                {...explain(field)}
              >
                <span aria-hidden="true" className="truncate">
                  {name}
                </span>
                <QuantityInput
                  label={name}
                  fields={[field]}
                  typed={typed ?? null}
                  follows={follows}
                  optional={optional}
                  error={refusal?.errorOf(`conditions.place.${path}`)}
                  className="font-mono text-[0.929rem]"
                  onType={(_, next) => onType(next)}
                />
              </div>
            );
          })}
        </div>
      )}
    </HelpText>
  );
}

/** An object without what is null. */
export function without<Of extends object>(value: Of): Of {
  return Object.fromEntries(
    Object.entries(value).filter(([, one]) => one !== null && one !== undefined),
  ) as Of;
}
