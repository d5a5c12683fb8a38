import { useDeferredValue, useState } from 'react';
import { useDrivers } from '../../api/queries/library';
import { measure, unitOf } from '../../model/preferences';
import { type Field, fieldAt, shown, usualUnit } from '../../model/units';
import type { Driver, WantedDrivers } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { usePreferences } from '../../ui/observed';
import { type Column, Table } from '../../ui/Table';
import { UnreadableList } from '../../ui/UnreadableList';
import { DriverFilters } from './DriverFilters';
import { ALL_DRIVERS } from './wanted';

interface Props {
  action: string;
  onAct: (driver: Driver) => void;
  /** Drivers chosen for something, and a way to choose them; absent where nothing is chosen. */
  chosen?: ReadonlySet<string>;
  onChoose?: (driver: Driver, chosen: boolean) => void;
  archived?: boolean;
  /** Only the values that a woofer is known by. */
  short?: boolean;
  /** What is looked for, where the page remembers it. */
  sought?: WantedDrivers;
  onSeek?: (wanted: WantedDrivers) => void;
}

type Sort = NonNullable<WantedDrivers['sort']>;

interface Figure {
  name: string;
  unit: string;
  sort: Sort;
  value: (driver: Driver) => number | null | undefined;
  decimals: number;
  /** A value in SI that is read in the unit of this field, its decimals those of the usual one. */
  as?: Field;
}

const COLUMNS: Figure[] = [
  { name: 'Z', unit: 'Ω', sort: 'nominal', value: (driver) => driver.nominal, decimals: 0 },
  { name: 'Fs', unit: 'Hz', sort: 'fs', value: (driver) => driver.fs, decimals: 0 },
  { name: 'Qts', unit: '', sort: 'qts', value: (driver) => driver.qts, decimals: 2 },
  { name: 'Vas', unit: '', sort: 'vas', value: ({ vas }) => vas, decimals: 1, as: fieldAt('driver.vas') },
  { name: 'Sd', unit: '', sort: 'sd', value: ({ sd }) => sd, decimals: 0, as: fieldAt('driver.sd') },
  {
    name: 'Xmax',
    unit: '',
    sort: 'xmax',
    value: ({ xmax }) => xmax,
    decimals: 1,
    as: fieldAt('driver.xmax'),
  },
  { name: 'Pe', unit: 'W', sort: 'pe', value: (driver) => driver.pe, decimals: 0 },
  { name: '2.83 V', unit: 'dB', sort: 'level', value: (driver) => driver.level, decimals: 1 },
  { name: 'Price', unit: '', sort: 'price', value: (driver) => driver.price, decimals: 0 },
  { name: 'In stock', unit: '', sort: 'on_hand', value: (driver) => driver.on_hand, decimals: 0 },
];

const KNOWN_BY: Sort[] = ['nominal', 'fs', 'qts', 'vas', 'sd', 'xmax'];

const PAGE = 50;

const unitOfColumn = ({ unit, as }: Pick<Figure, 'unit' | 'as'>): string => {
  const symbol = as && unitOf(as, null)?.symbol;
  return symbol ? shown(symbol) : unit;
};

function written({ value, decimals, as }: Figure, driver: Driver): string {
  const figure = value(driver);
  if (figure == null) return '–';
  const usual = as && usualUnit(as);
  if (!usual) return figure.toFixed(decimals);
  const unit = unitOf(as, null) ?? usual;
  if (unit === usual) return (figure / usual.factor).toFixed(decimals);
  return measure(figure, unit, 3).replace(` ${unit.symbol}`, '');
}

const NOTES: Column<Driver> = {
  name: 'Tags and notes',
  headingClass: 'pl-6',
  className: 'max-w-56 truncate pl-6 text-soft',
  cell: ({ document: { tags, notes } }) => (
    <>
      {tags?.map((tag) => (
        <span key={tag} className="mr-1 rounded-[3px] border border-line px-1 text-ink">
          {tag}
        </span>
      ))}
      {notes}
    </>
  ),
};

/** The library as a table: found, filtered, sorted and paged by the server. */
export function DriverTable({
  action,
  onAct,
  chosen,
  onChoose,
  archived = false,
  short = false,
  sought,
  onSeek,
}: Props) {
  usePreferences();
  // What is typed is shown at once; the address follows.
  const [wanted, show] = useState<WantedDrivers>(sought ?? ALL_DRIVERS);
  const setWanted = (next: WantedDrivers) => {
    show(next);
    onSeek?.(next);
  };
  const find = useDeferredValue(wanted);
  const page = useDrivers({ ...find, archived, limit: PAGE });
  const narrow = (change: WantedDrivers) => setWanted({ ...wanted, ...change, offset: 0 });
  const sort = (by: Sort) =>
    narrow({ sort: by, descending: wanted.sort === by ? !wanted.descending : false });
  const sortable = ({ name, sort: by, ...of }: Pick<Figure, 'name' | 'unit' | 'sort' | 'as'>) => {
    const sorted = wanted.sort === by;
    const order = wanted.descending ? 'descending' : 'ascending';
    return {
      name,
      sorted: sorted ? order : ('none' as const),
      heading: (
        <button
          type="button"
          className="inline-flex items-center gap-0.5 whitespace-nowrap rounded-[3px] px-0.5 font-semibold hover:bg-rule"
          onClick={() => sort(by)}
        >
          {name} <span className="font-normal text-soft">{unitOfColumn(of)}</span>
          {sorted && <Icon name={wanted.descending ? 'down' : 'up'} />}
        </button>
      ),
    } satisfies Partial<Column<Driver>>;
  };
  const offset = wanted.offset ?? 0;
  const total = page.data?.total ?? 0;
  return (
    <div>
      <DriverFilters
        wanted={wanted}
        tags={page.data?.tags ?? []}
        onChange={narrow}
        onClear={() => setWanted(ALL_DRIVERS)}
      />
      <Message error={page.error} />
      <UnreadableList documents={page.data?.unreadable ?? []} />
      <Table
        className="text-[1rem]"
        rows={page.data?.drivers ?? []}
        keyOf={({ id }) => id}
        rowOf={() => ({ className: 'hover:bg-card' })}
        columns={[
          ...(onChoose
            ? [
                {
                  name: 'Chosen',
                  heading: <span className="sr-only">Chosen</span>,
                  cell: (driver: Driver) => (
                    <input
                      type="checkbox"
                      aria-label={`Compare ${driver.document.name}`}
                      checked={chosen?.has(driver.id) ?? false}
                      onChange={(event) => onChoose(driver, event.target.checked)}
                    />
                  ),
                },
              ]
            : []),
          {
            ...sortable({ name: 'Driver', sort: 'name', unit: '' }),
            names: true,
            headingClass: 'py-1',
            className: 'max-w-64 truncate py-0.5 font-semibold',
            cell: ({ document }) => document.name,
          },
          ...COLUMNS.filter(({ sort }) => !short || KNOWN_BY.includes(sort)).map((column) => ({
            ...sortable(column),
            kind: 'figure' as const,
            className: 'text-[0.929rem]',
            cell: (driver: Driver) => written(column, driver),
          })),
          ...(short ? [] : [NOTES]),
          {
            name: action,
            kind: 'action',
            cell: (driver) => (
              <Button onClick={() => onAct(driver)} aria-label={`${action} ${driver.document.name}`}>
                {action}
              </Button>
            ),
          },
        ]}
      />
      <div className="flex items-center gap-2 py-2" aria-live="polite">
        <p className="flex-1 text-soft">
          {page.isPending ? 'Opening the library …' : counted(total, offset)}
        </p>
        {total > PAGE && (
          <>
            <Button disabled={offset === 0} onClick={() => setWanted({ ...wanted, offset: offset - PAGE })}>
              Previous
            </Button>
            <Button
              disabled={offset + PAGE >= total}
              onClick={() => setWanted({ ...wanted, offset: offset + PAGE })}
            >
              Next
            </Button>
          </>
        )}
      </div>
    </div>
  );
}

function counted(total: number, offset: number): string {
  if (total === 0) return 'No matches.';
  if (total <= PAGE) return total === 1 ? '1 driver' : `${total} drivers`;
  return `${offset + 1} to ${Math.min(offset + PAGE, total)} of ${total} drivers`;
}
