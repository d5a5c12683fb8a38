import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { ask } from '../../api/ask';
import { useComparison, useDriversById } from '../../api/queries/library';
import { Lanes } from '../../lanes/Lanes';
import { LanesMenu } from '../../lanes/LanesMenu';
import type { Shown } from '../../lanes/shown';
import type { Asked } from '../../model/conditions';
import { FAMILIES, type Family } from '../../model/families';
import { markAt } from '../../model/mark';
import { fieldAt, hertz } from '../../model/units';
import type { Boxed, Comparison, RawDesign, RawDriver, Report, Typed } from '../../schema/types';
import { Choice } from '../../ui/Choice';
import { LineSample, MarkGlyph } from '../../ui/MarkGlyph';
import { Message } from '../../ui/Message';
import { QuantityInput } from '../../ui/QuantityInput';
import { Select } from '../../ui/Select';
import { Shell } from '../shell/Shell';
import { useTheme } from '../shell/theme';

/** Two to six drivers with all else equal. */
export function ComparePage() {
  const [search] = useSearchParams();
  const ids = (search.get('of') ?? '').split(',').filter(Boolean);
  const drivers = useDriversById(ids);
  const error = drivers.find((one) => one.error)?.error;
  const sheets = drivers.flatMap(({ data }) => (data ? [data.document] : []));
  return (
    <Shell
      title="Drivers compared"
      beside={
        <Link to="/drivers" className="rounded-[3px] px-1 font-medium text-oak hover:underline">
          ← To the library
        </Link>
      }
    >
      {sheets.length === ids.length && ids.length >= 2 ? (
        <Compared drivers={sheets} />
      ) : (
        <div className="p-8">
          <h1 className="mb-2 text-2xl">Drivers compared</h1>
          <Message error={error} />
          {ids.length < 2 && <p>Mark two to six drivers in the library to compare them.</p>}
        </div>
      )}
    </Shell>
  );
}

type Place = 'same' | 'own';

function Compared({ drivers }: { drivers: RawDriver[] }) {
  const theme = useTheme();
  const [family, setFamily] = useState<Family>('ported');
  const [change, setChange] = useState<{ volume?: Typed; tuning?: Typed }>({});
  const [place, setPlace] = useState<Place>('same');
  const suggested = useComparison({ drivers, family });
  const suggestion = suggested.data?.enclosure;
  const changed = suggestion && { ...suggestion, ...change };
  const given = useComparison({ drivers, family, enclosure: changed }, Object.keys(change).length > 0);
  const comparison = given.data ?? suggested.data;
  const { shown, active } = useShown(comparison, place);
  return (
    <div className="flex h-full flex-col">
      <div className="flex flex-wrap items-center gap-2 px-4 pt-3 pb-2">
        <h1 className="mr-auto text-xl">{drivers.length} drivers, all else equal</h1>
        <Choice
          label="Which box is drawn"
          value={place}
          options={[
            ['same', 'In the same box'],
            ['own', 'Each in its own'],
          ]}
          onChange={setPlace}
        />
        <Select
          label="Kind of cabinet"
          className="max-w-48"
          value={family}
          options={KINDS}
          onChange={(next) => {
            setFamily(next);
            setChange({});
          }}
        />
        {(['volume', 'tuning'] as const).map((name) => {
          const field = fieldAt(`enclosure.${name}`);
          const typed = changed?.[name];
          if (typed == null) return null;
          return (
            <div key={name} className="flex w-36 items-center gap-1.5">
              <span aria-hidden="true">{name === 'volume' ? 'Vb' : 'Fb'}</span>
              <QuantityInput
                label={name === 'volume' ? 'Volume of the same box' : 'Tuning of the same box'}
                fields={[field]}
                typed={typed}
                onType={(_, next) => next !== null && setChange({ ...change, [name]: next })}
              />
            </div>
          );
        })}
      </div>
      <div className="px-4">
        <Message error={given.error ?? suggested.error} />
      </div>
      <div className="min-h-0 flex-1 px-4">
        {active && (
          <Lanes
            shown={shown}
            activeId={active}
            theme={theme}
            tools={
              <LanesMenu
                title={`${drivers.length} drivers, all else equal`}
                shown={shown}
                activeId={active}
              />
            }
          />
        )}
      </div>
      {comparison && <Table comparison={comparison} />}
    </div>
  );
}

const KINDS = FAMILIES.filter(({ id }) => id !== 'infinite_baffle').map(
  ({ id, name }) => [id, name] as const,
);

/** The drivers' curves in one of the boxes. */
function useShown(comparison: Comparison | undefined, place: Place): { shown: Shown[]; active: string } {
  const designs = comparison?.rows.map((row) => row[place].design ?? null) ?? [];
  const results = useQueries({ queries: designs.map((design) => curves(design)) });
  const shown = results.flatMap(({ data }, at): Shown[] => {
    const name = comparison?.rows[at]?.name ?? '';
    const design = designs[at];
    return data && design
      ? [{ id: String(at), place: at, report: data, traces: data.traces, design, name, mark: markAt(at) }]
      : [];
  });
  return { shown, active: shown[0]?.id ?? '' };
}

/** Drivers are compared on the bench. */
const BENCH: Asked = { brief: null, conditions: { basis: 'bench' } };

function curves(design: RawDesign | null) {
  return {
    queryKey: ['curves', design],
    queryFn: async ({ signal }: { signal: AbortSignal }): Promise<Report | null> => {
      const result = design && (await ask(design, BENCH, signal));
      return result?.ok ? result.report : null;
    },
    gcTime: 5000,
  };
}

const FIGURES: [string, (boxed: Boxed) => string][] = [
  ['Air, l', ({ volume }) => (volume == null ? '–' : (volume * 1e3).toFixed(volume < 0.01 ? 1 : 0))],
  ['F3', ({ f3 }) => hertz(f3)],
  ['2.83 V, dB', ({ level }) => level?.toFixed(1) ?? '–'],
  ['Peak, dB', ({ peak }) => peak?.toFixed(1) ?? '–'],
  ['Max. clean SPL at F3, dB', ({ clean }) => clean?.toFixed(1) ?? '–'],
  ['Minimum impedance, Ω', ({ impedance }) => impedance?.toFixed(1) ?? '–'],
];

function Table({ comparison }: { comparison: Comparison }) {
  return (
    <div className="max-h-[38%] shrink-0 overflow-y-auto border-line border-t bg-shelf px-4 py-2">
      <table className="w-full">
        <thead>
          <tr className="text-left">
            <th rowSpan={2} scope="col" className="align-bottom">
              Driver
            </th>
            <th colSpan={FIGURES.length} scope="colgroup" className="border-line border-l pl-2">
              In the same box
            </th>
            <th colSpan={FIGURES.length} scope="colgroup" className="border-line border-l pl-2">
              Each in its own box
            </th>
          </tr>
          <tr className="border-line border-b">
            {(['same', 'own'] as const).map((place) =>
              FIGURES.map(([name], at) => (
                <th
                  key={`${place} ${name}`}
                  scope="col"
                  className={`px-1.5 text-right font-normal text-soft ${at === 0 ? 'border-line border-l' : ''}`}
                >
                  {name}
                </th>
              )),
            )}
          </tr>
        </thead>
        <tbody>
          {comparison.rows.map((row, at) => (
            <tr key={row.name} className="border-grid border-b">
              <th scope="row" className="py-0.5 text-left font-semibold">
                <span className="flex items-center gap-1.5">
                  <MarkGlyph mark={markAt(at)} />
                  {row.name}
                  <LineSample mark={markAt(at)} width={26} />
                </span>
              </th>
              <Figures boxed={row.same} />
              <Figures boxed={row.own} />
            </tr>
          ))}
        </tbody>
      </table>
      <p className="pt-1 text-[0.929rem] text-soft">
        Drawn at 2.83 V. The maximum clean SPL at F3 is within Xmax, Pe and 17 m/s in ports. Its own box is
        that of the first starting point of this kind that has one for the driver.
      </p>
      <details className="text-[0.929rem]">
        <summary className="text-soft">Where each one's own box comes from</summary>
        <dl>
          {comparison.rows.map((row) => (
            <div key={row.name} className="flex gap-2">
              <dt className="shrink-0 font-semibold">{row.name}</dt>
              <dd>{row.own.reason}</dd>
            </div>
          ))}
        </dl>
      </details>
    </div>
  );
}

function Figures({ boxed }: { boxed: Boxed }) {
  if (!boxed.design)
    return (
      <td
        colSpan={FIGURES.length}
        className="border-line border-l pl-2 text-[0.929rem] text-short leading-tight"
      >
        {boxed.reason || 'No box.'}
      </td>
    );
  return FIGURES.map(([name, figure], at) => (
    <td key={name} className={`px-1.5 text-right font-mono ${at === 0 ? 'border-line border-l' : ''}`}>
      {figure(boxed)}
    </td>
  ));
}
