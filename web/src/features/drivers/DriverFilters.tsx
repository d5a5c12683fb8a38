import { Popover } from 'radix-ui';
import { asRead } from '../../model/preferences';
import { type Field, fieldAt, readTyped, shown, usualUnit, writeTyped } from '../../model/units';
import type { Typed, WantedDrivers } from '../../schema/types';
import { Button } from '../../ui/Button';
import { QuantityInput } from '../../ui/QuantityInput';
import { Select } from '../../ui/Select';

interface Props {
  wanted: WantedDrivers;
  tags: string[];
  onChange: (change: WantedDrivers) => void;
  onClear: () => void;
}

/** What a driver can be filtered by: the name in the query, and the field it is written as. */
const BOUNDS = [
  ['size', 'driver.size'],
  ['nominal', 'driver.nominal'],
  ['fs', 'driver.fs'],
  ['qts', 'driver.qts'],
  ['qes', 'driver.qes'],
  ['qms', 'driver.qms'],
  ['vas', 'driver.vas'],
  ['sd', 'driver.sd'],
  ['mms', 'driver.mms'],
  ['bl', 'driver.bl'],
  ['re', 'driver.re'],
  ['le', 'driver.le'],
  ['xmax', 'driver.xmax'],
  ['pe', 'driver.pe'],
  ['level', 'driver.level_2v83'],
  ['price', 'driver.price'],
] as const;

type Name = (typeof BOUNDS)[number][0];
type Bound = `${Name}_${'min' | 'max'}`;

const filters = BOUNDS.map(([name, path]) => ({ name, field: fieldAt(path) }));

/** Words, a tag, and bounds on any value. */
export function DriverFilters({ wanted, tags, onChange, onClear }: Props) {
  const active = filters.filter(({ name }) => wanted[`${name}_min`] != null || wanted[`${name}_max`] != null);
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <input
        type="search"
        className="field w-72"
        aria-label="Find a driver"
        placeholder="Find by name, size, tag or note"
        value={wanted.find ?? ''}
        onChange={(event) => onChange({ find: event.target.value })}
      />
      {tags.length > 0 && (
        <Select
          label="Tag"
          className="max-w-44"
          value={wanted.tag ?? ''}
          options={[['', 'any tag'], ...tags.map((tag) => [tag, tag] as const)]}
          onChange={(tag) => onChange({ tag })}
        />
      )}
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={wanted.in_stock ?? false}
          onChange={(event) => onChange({ in_stock: event.target.checked })}
        />
        in stock
      </label>
      <Popover.Root>
        <Popover.Trigger asChild>
          <Button>Filters …</Button>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={4}
            aria-label="Filters on values"
            className="z-50 w-[520px] max-w-[calc(100vw-1rem)] rounded-md border border-line bg-paper p-3 shadow-xl"
          >
            <p className="mb-2 text-soft">
              A driver whose sheet lacks a value passes no filter on it. Fs is no limit of how low a driver
              plays; the box decides that.
            </p>
            <div className="grid grid-cols-1 gap-x-5 gap-y-1.5 sm:grid-cols-2">
              {filters.map(({ name, field }) => (
                <fieldset key={name} className="grid grid-cols-[3.6rem_1fr_auto_1fr] items-center gap-1">
                  <legend className="sr-only">{field.symbol}</legend>
                  <span aria-hidden="true">{field.symbol}</span>
                  <BoundInput side="min" name={name} field={field} wanted={wanted} onChange={onChange} />
                  <span aria-hidden="true">to</span>
                  <BoundInput side="max" name={name} field={field} wanted={wanted} onChange={onChange} />
                </fieldset>
              ))}
            </div>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {active.map(({ name, field }) => (
        <Button
          key={name}
          aria-label={`Remove the filter on ${field.symbol}`}
          onClick={() => onChange({ [`${name}_min`]: undefined, [`${name}_max`]: undefined })}
        >
          {field.symbol} {inWords(field, wanted[`${name}_min`], wanted[`${name}_max`])} ×
        </Button>
      ))}
      {(active.length > 0 || wanted.find || wanted.tag || wanted.in_stock) && (
        <Button onClick={onClear}>Show all</Button>
      )}
    </div>
  );
}

function inWords(field: Field, min: number | null | undefined, max: number | null | undefined): string {
  const write = (value: number) => shown(asRead(writeTyped(value, usualUnit(field), 4), field));
  if (min != null && max != null) return `${write(min)} to ${write(max)}`;
  return min != null ? `from ${write(min)}` : `to ${write(max ?? 0)}`;
}

interface BoundProps {
  side: 'min' | 'max';
  name: Name;
  field: Field;
  wanted: WantedDrivers;
  onChange: (change: WantedDrivers) => void;
}

function BoundInput({ side, name, field, wanted, onChange }: BoundProps) {
  const key: Bound = `${name}_${side}`;
  const value = wanted[key];
  const typed: Typed | null = value == null ? null : writeTyped(value, usualUnit(field), 4);
  return (
    <QuantityInput
      label={`${field.symbol}, ${side === 'min' ? 'at least' : 'at most'}`}
      fields={[field]}
      typed={typed}
      optional
      onType={(_, next) =>
        onChange({ [key]: next === null ? undefined : readTyped(next, field.dimension)?.si })
      }
    />
  );
}
