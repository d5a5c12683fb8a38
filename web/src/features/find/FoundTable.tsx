import { type Family, familyEntry } from '../../model/families';
import { inWords } from '../../model/preferences';
import { hertz } from '../../model/units';
import type { DriverMatchRow, Found } from '../../schema/types';
import { Silhouette } from '../../section/Silhouette';
import { Button } from '../../ui/Button';
import { Table } from '../../ui/Table';
import type { Chosen } from './chosen';

interface Props {
  rows: DriverMatchRow[];
  chosen: Chosen | null;
  busy: boolean;
  onChoose: (chosen: Chosen) => void;
  onTake: (driver: string, family: Family) => void;
}

/** The best cabinets, the best first. */
export function FoundTable({ rows, chosen, busy, onChoose, onTake }: Props) {
  if (rows.length === 0) return null;
  const looked = ({ driver, family }: DriverMatchRow) =>
    chosen?.driver === driver && (chosen.family ?? family) === family;
  return (
    <Table
      className="text-[1rem]"
      sticky
      rows={rows.flatMap((row) => (row.found ? [{ ...row, found: row.found }] : []))}
      keyOf={({ driver, family }) => `${driver} ${family}`}
      rowOf={(row) => ({
        className: `align-top ${looked(row) ? 'bg-rule' : 'hover:bg-card'}`,
        'data-found': `${row.name} ${row.family}`,
      })}
      columns={[
        {
          name: 'Driver and cabinet',
          names: true,
          headingClass: 'py-1',
          className: 'py-1',
          cell: (row) => (
            <button
              type="button"
              aria-pressed={looked(row)}
              className="flex items-center gap-2 rounded-[3px] text-left hover:underline"
              onClick={() => onChoose({ driver: row.driver, name: row.name, family: row.family })}
            >
              <Silhouette family={row.family} small />
              <span>
                <b className="block whitespace-nowrap leading-tight">{row.name}</b>
                <span className="block whitespace-nowrap text-[0.929rem] text-soft leading-tight">
                  {familyEntry(row.family).name}
                  {row.on_hand ? `, ${row.on_hand} on hand` : ''}
                </span>
              </span>
            </button>
          ),
        },
        {
          name: 'Met',
          heading: <span title="How well the brief is met; each part of it as a bar">Met</span>,
          className: 'py-1 pr-2',
          cell: ({ found }) => <Score found={found} />,
        },
        { name: 'F3', kind: 'figure', className: 'py-1', cell: ({ found }) => hertz(found.f3) },
        {
          name: 'Max. clean SPL',
          kind: 'figure',
          className: 'py-1',
          cell: ({ found }) => (found.loudness == null ? '–' : `${found.loudness.toFixed(1)} dB`),
        },
        { name: 'Air', kind: 'figure', className: 'py-1', cell: ({ found }) => litres(found.volume) },
        {
          name: 'What holds it back',
          headingClass: 'pl-4',
          className: 'py-1 pl-4 text-[0.929rem] leading-tight',
          cell: ({ stale, found }) => (
            <>
              {stale && <b className="block text-short">Its sheet was changed since; search again.</b>}
              {!found.box_checked && <span className="block text-soft">Box not checked.</span>}
              {found.holds_back || (
                <span className="text-met">
                  meets everything, {((found.spare - 1) * 100).toFixed(0)} % to spare
                </span>
              )}
            </>
          ),
        },
        {
          name: 'Try this design',
          kind: 'action',
          className: 'py-1',
          cell: ({ driver, name, family }) => (
            <Button
              disabled={busy}
              aria-label={`Try this design: ${name}, ${familyEntry(family).name}`}
              onClick={() => onTake(driver, family)}
            >
              Try this design
            </Button>
          ),
        },
      ]}
    />
  );
}

/** The score and its parts as bars; each says what it is of. */
export function Score({ found }: { found: Found }) {
  const spoken = found.parts.map(({ name, part }) => `${name} ${percent(part)}`).join(', ');
  return (
    <span className="flex items-center gap-2">
      <span className="w-12 whitespace-nowrap text-right font-mono">{percent(found.score / 100)}</span>
      <span role="img" aria-label={spoken} title={spoken} className="flex h-4 items-end gap-px">
        {found.parts.map(({ id, part }) => (
          <span key={id} className="flex h-4 w-2 items-end bg-grid">
            <span
              className={`w-full ${part < 1 ? 'bg-short' : 'bg-met'}`}
              style={{ height: `${Math.max(8, 100 * part)}%` }}
            />
          </span>
        ))}
      </span>
    </span>
  );
}

/** Rounded so that only what is whole is 100 %. */
export function percent(part: number): string {
  return `${part >= 1 - 1e-6 ? 100 : Math.min(99, Math.round(100 * part))} %`;
}

export function litres(volume: number): string {
  const value = volume * 1e3;
  return inWords(`${value.toFixed(value < 10 ? 1 : 0)} l`);
}
