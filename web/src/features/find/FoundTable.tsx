import type { DriverMatchRow, Found } from '../../api/types';
import { type Family, familyEntry } from '../../model/families';
import { hertz } from '../../model/units';
import { Silhouette } from '../../section/Silhouette';
import { Button } from '../../ui/Button';
import type { Chosen } from './FindPage';

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
  return (
    <table className="w-full">
      <thead className="sticky top-0 bg-paper">
        <tr className="border-line border-b text-left">
          <th scope="col" className="py-1">
            Driver and cabinet
          </th>
          <th scope="col" title="How well the brief is met; each part of it as a bar">
            Met
          </th>
          <th scope="col" className="text-right">
            F3
          </th>
          <th scope="col" className="text-right">
            Max. clean SPL
          </th>
          <th scope="col" className="text-right">
            Air
          </th>
          <th scope="col" className="pl-4">
            What holds it back
          </th>
          <th scope="col">
            <span className="sr-only">Make a variant</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ driver, name, family, found, on_hand, stale }) => {
          if (!found) return null;
          const looked = chosen?.driver === driver && (chosen.family ?? family) === family;
          return (
            <tr
              key={`${driver} ${family}`}
              data-found={`${name} ${family}`}
              className={`border-grid border-b align-top ${looked ? 'bg-rule' : 'hover:bg-card'}`}
            >
              <th scope="row" className="py-1 text-left font-normal">
                <button
                  type="button"
                  aria-pressed={looked}
                  className="flex items-center gap-2 rounded-[3px] text-left hover:underline"
                  onClick={() => onChoose({ driver, name, family })}
                >
                  <Silhouette family={family} small />
                  <span>
                    <b className="block whitespace-nowrap leading-tight">{name}</b>
                    <span className="block whitespace-nowrap text-[13px] text-soft leading-tight">
                      {familyEntry(family).name}
                      {on_hand ? `, ${on_hand} on hand` : ''}
                    </span>
                  </span>
                </button>
              </th>
              <td className="py-1 pr-2">
                <Score found={found} />
              </td>
              <td className="whitespace-nowrap py-1 text-right font-mono">{hertz(found.f3)}</td>
              <td className="whitespace-nowrap py-1 pl-2 text-right font-mono">
                {found.loudness == null ? '–' : `${found.loudness.toFixed(1)} dB`}
              </td>
              <td className="whitespace-nowrap py-1 pl-2 text-right font-mono">{litres(found.volume)}</td>
              <td className="py-1 pl-4 text-[13px] leading-tight">
                {stale && <b className="block text-short">Its sheet was changed since; search again.</b>}
                {!found.box_checked && <span className="block text-soft">Box not checked.</span>}
                {found.holds_back || (
                  <span className="text-met">
                    meets everything, {((found.spare - 1) * 100).toFixed(0)} % to spare
                  </span>
                )}
              </td>
              <td className="py-1 pl-2 text-right">
                <Button
                  disabled={busy}
                  aria-label={`Make a variant of ${name}, ${familyEntry(family).name}`}
                  onClick={() => onTake(driver, family)}
                >
                  Try this design
                </Button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
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
  return `${value.toFixed(value < 10 ? 1 : 0)} l`;
}
