import { useState } from 'react';
import { useTolerance } from '../../api/queries/design';
import type { Mark } from '../../model/mark';
import { significant } from '../../model/units';
import type { Percentiles, RawDesign, RawSpreads, Tolerance } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { Table } from '../../ui/Table';
import { Term } from '../../ui/Term';
import { Chart } from './Chart';

interface Props {
  design: RawDesign;
  /** In words. */
  conditions: string;
  mark: Mark;
  onClose: () => void;
}

type Spread = keyof RawSpreads;

const SPREADS: [Spread, string][] = [
  ['fs', 'Fs'],
  ['qes', 'Qes'],
  ['qms', 'Qms'],
  ['vas', 'Vas'],
  ['volume', 'Volume'],
  ['port_length', 'Port length'],
];

/** A design built many times with drivers and boards as built. */
export function SpreadDialog({ design, conditions, mark, onClose }: Props) {
  const [spreads, setSpreads] = useState<RawSpreads>({});
  const asked = useTolerance({ design, spreads });
  const percentiles = asked.data;
  return (
    <Dialog
      title="How sure is it?"
      about={`The variant built 400 times, each time with a driver and boards a little off. 19 of 20 lie in the shaded band. ${conditions}.`}
      open
      wide
      onClose={onClose}
    >
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <span className="text-soft">19 of 20 are within ±</span>
        {SPREADS.map(([id, name]) => (
          <Percent
            key={id}
            name={name}
            value={percentiles?.spreads[id] ?? spreads[id] ?? null}
            onChange={(value) => setSpreads({ ...spreads, [id]: value })}
          />
        ))}
        {Object.keys(spreads).length > 0 && <Button onClick={() => setSpreads({})}>Usual ones</Button>}
      </div>
      <Message error={asked.error} />
      {!percentiles && asked.isPending && <p className="text-soft">Building …</p>}
      {percentiles && <Outcome percentiles={percentiles} mark={mark} />}
    </Dialog>
  );
}

interface PercentProps {
  name: string;
  value: number | null;
  onChange: (value: number) => void;
}

function Percent({ name, value, onChange }: PercentProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const written = value === null ? '' : significant(value * 100, 3);
  function take() {
    const percent = Number((draft ?? '').replace(',', '.').replace('%', ''));
    if (draft?.trim() && Number.isFinite(percent)) onChange(percent / 100);
    setDraft(null);
  }
  return (
    <label className="flex items-center gap-1.5">
      {name}
      <input
        className="field w-14 text-right font-mono text-[0.929rem]"
        inputMode="decimal"
        value={draft ?? written}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      %
    </label>
  );
}

const ROWS: [string, (percentiles: Tolerance) => Percentiles | null | undefined, string, number][] = [
  ['F3', ({ f3 }) => f3, 'Hz', 3],
  ['Fb', ({ tuning }) => tuning, 'Hz', 3],
  ['Qtc', ({ qtc }) => qtc, '', 3],
  ['Peak', ({ peak }) => peak, 'dB', 2],
];

interface Row {
  name: string;
  of: Percentiles;
  unit: string;
  digits: number;
}

const PERCENTILES: [string, (of: Percentiles) => number][] = [
  ['as designed', ({ designed }) => designed],
  ['2.5th percentile', ({ low }) => low],
  ['median', ({ middle }) => middle],
  ['97.5th percentile', ({ high }) => high],
];

function rowsOf(tolerance: Tolerance): Row[] {
  return ROWS.flatMap(([name, read, unit, digits]) => {
    const of = read(tolerance);
    return of ? [{ name, of, unit, digits }] : [];
  });
}

function Outcome({ percentiles, mark }: { percentiles: Tolerance; mark: Mark }) {
  const top = Math.ceil((Math.max(...percentiles.high) + 2) / 5) * 5;
  const line = {
    place: 0,
    mark,
    strong: true,
    secondary: false,
    frequency: percentiles.frequency,
    values: percentiles.level,
    name: 'as designed',
  };
  return (
    <>
      <ul className="mb-2">
        {percentiles.words.map((words, at) => (
          <li key={words} className={at === 0 ? 'font-semibold text-[1.143rem]' : ''}>
            {words}
          </li>
        ))}
      </ul>
      <Chart
        label="SPL, dB at 1 m, as designed and as built"
        lines={[line]}
        band={percentiles}
        range={[top - 40, top]}
        height={230}
      />
      <Table
        className="mt-2"
        rows={rowsOf(percentiles)}
        keyOf={({ name }) => name}
        columns={[
          { name: 'Figure', names: true, cell: ({ name }) => <Term name={name} /> },
          ...PERCENTILES.map(([name, of]) => ({
            name,
            kind: 'figure' as const,
            cell: (row: Row) => `${significant(of(row.of), row.digits)} ${row.unit}`,
          })),
        ]}
      />
    </>
  );
}
