import { useState } from 'react';
import { useSweep } from '../../api/queries/design';
import { markAt } from '../../model/mark';
import { inWords } from '../../model/preferences';
import { roundUp } from '../../model/scale';
import { parseQuantity, shown } from '../../model/units';
import type { RawDesign, Sweep, SweepStep } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { MarkGlyph } from '../../ui/MarkGlyph';
import { Message } from '../../ui/Message';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';
import { Term } from '../../ui/Term';
import { Against } from './Against';
import { Chart } from './Chart';
import { parameterValue } from './suggestions';
import { columnsOf, written } from './swept';

interface Props {
  design: RawDesign;
  /** In words. */
  conditions: string;
  onUse: (design: RawDesign) => void;
  onTry: (design: RawDesign) => void;
  onClose: () => void;
}

type Curve = 'level' | 'excursion' | 'impedance' | 'group_delay';

const CURVES: [Curve, string, string][] = [
  ['level', 'SPL', 'dB at 1 m'],
  ['excursion', 'Cone travel', 'mm'],
  ['impedance', 'Impedance', 'Ω'],
  ['group_delay', 'Group delay', 'ms'],
];

/** One value turned step by step, and what comes of it. */
export function SweepDialog({ design, conditions, onUse, onTry, onClose }: Props) {
  const [parameter, setKnob] = useState<string | null>(null);
  const [ends, setEnds] = useState<{ from: number; to: number } | null>(null);
  const [curve, setCurve] = useState<Curve>('level');
  const asked = useSweep({ design, parameter, from: ends?.from ?? null, to: ends?.to ?? null });
  const sweep = asked.data;
  const current = sweep?.parameters.find(({ id }) => id === sweep.parameter);
  return (
    <Dialog
      title="What if: one value varied"
      about={`Everything else stays as it is. What the variant has now is among the steps. ${conditions}.`}
      open
      wide
      onClose={onClose}
    >
      <div className="mb-3 flex flex-wrap items-center gap-3">
        {sweep && current && (
          <>
            <Select
              label="Value to vary"
              className="max-w-56"
              value={sweep.parameter}
              options={sweep.parameters.map(
                ({ id, name, label }) => [id, `${name}, now ${shown(inWords(label))}`] as const,
              )}
              onChange={(next) => {
                setKnob(next);
                setEnds(null);
              }}
            />
            {!current.choices && (
              <Ends
                key={sweep.parameter}
                sweep={sweep}
                unit={current}
                onEnds={(from, to) => setEnds({ from, to })}
              />
            )}
            <Choice
              label="Which curve"
              value={curve}
              options={CURVES.map(([id, name]) => [id, name] as const)}
              onChange={setCurve}
            />
          </>
        )}
      </div>
      <Message error={asked.error} />
      {!sweep && asked.isPending && <p className="text-soft">Computing …</p>}
      {sweep && (
        <>
          <Family sweep={sweep} curve={curve} />
          {!current?.choices && <Against sweep={sweep} />}
          <Steps sweep={sweep} name={design.name ?? ''} onUse={onUse} onTry={onTry} />
        </>
      )}
    </Dialog>
  );
}

interface EndsProps {
  sweep: Sweep;
  unit: Sweep['parameters'][number];
  onEnds: (from: number, to: number) => void;
}

/** From where and how far, typed with units. */
function Ends({ sweep, unit, onEnds }: EndsProps) {
  const written = (si: number) => parameterValue(si, unit);
  const [texts, setTexts] = useState<[string, string] | null>(null);
  const [wrong, setWrong] = useState('');
  const [from, to] = texts ?? [written(sweep.from), written(sweep.to)];
  function take() {
    if (!texts) return;
    const read = texts.map((text) =>
      parseQuantity(text.replace('²', '2').replace('°', 'deg'), unit.dimension),
    );
    const [low, high] = read;
    if (!low?.ok || !high?.ok) {
      setWrong(!low?.ok && low ? low.reason : high && !high.ok ? high.reason : '');
      return;
    }
    setWrong('');
    setTexts(null);
    onEnds(low.value.si, high.value.si);
  }
  return (
    <div className="flex flex-wrap items-center gap-2">
      {(['from', 'to'] as const).map((end, at) => (
        <label key={end} className="flex items-center gap-1.5">
          {end}
          <input
            className="field w-24 font-mono text-[0.929rem]"
            value={at ? to : from}
            onChange={(event) => setTexts(at ? [from, event.target.value] : [event.target.value, to])}
            onKeyDown={(event) => event.key === 'Enter' && take()}
            onBlur={take}
          />
        </label>
      ))}
      {wrong && (
        <p role="alert" className="text-short">
          {wrong}
        </p>
      )}
    </div>
  );
}

function Family({ sweep, curve }: { sweep: Sweep; curve: Curve }) {
  const stands = sweep.parameters.find(({ id }) => id === sweep.parameter)?.value;
  const lines = sweep.steps.map((step, place) => ({
    place,
    mark: markAt(place),
    strong: step.value === stands,
    secondary: false,
    frequency: sweep.frequency,
    values: step.outcome?.[curve] ?? [],
    name: step.outcome ? shown(inWords(step.label)) : '',
  }));
  const most = Math.max(0, ...lines.flatMap(({ values }) => values));
  const top = curve === 'level' ? Math.ceil((most + 2) / 5) * 5 : roundUp(Math.min(most, cap(curve, sweep)));
  const range = curve === 'level' ? ([top - 40, top] as const) : ([0, top] as const);
  const [, name, unit] = CURVES.find(([id]) => id === curve) ?? CURVES[0] ?? ['', '', ''];
  return <Chart label={`${name}, ${unit}, for each step`} lines={lines} range={range} height={230} />;
}

/** A cone that nothing holds below the tuning would flatten everything else. */
function cap(curve: Curve, sweep: Sweep): number {
  if (curve !== 'excursion') return Number.POSITIVE_INFINITY;
  const inBand = sweep.steps.map(({ outcome }) => outcome?.excursion_in_band ?? 0);
  return 3e3 * Math.max(...inBand, 1e-3);
}

interface StepsProps extends Pick<Props, 'onUse' | 'onTry'> {
  sweep: Sweep;
  name: string;
}

function Steps({ sweep, name, onUse, onTry }: StepsProps) {
  const parameter = sweep.parameters.find(({ id }) => id === sweep.parameter);
  const columns = columnsOf(sweep);
  const now = parameter?.value;
  return (
    <div className="mt-2 overflow-x-auto">
      <Table
        rows={sweep.steps}
        keyOf={({ value }) => value}
        rowOf={({ value }) => ({ className: value === now ? 'bg-rule font-bold' : '' })}
        instead={({ outcome, problem }) => outcome == null && problem}
        columns={[
          {
            name: parameter?.name ?? '',
            names: true,
            className: 'whitespace-nowrap py-0.5 font-mono',
            cell: ({ label, value }, place) => (
              <span className="flex items-center gap-1.5">
                <MarkGlyph mark={markAt(place)} /> {shown(inWords(label))}
                {value === now && <span className="font-normal font-sans">now</span>}
              </span>
            ),
          },
          ...columns.map((column) => ({
            name: column.name,
            heading: <Term name={column.name} />,
            kind: 'figure' as const,
            cell: ({ outcome }: SweepStep) => outcome && written(column, outcome),
          })),
          {
            name: 'Use',
            kind: 'action',
            cell: ({ design, outcome, value, label }) =>
              design &&
              outcome &&
              value !== now && (
                <span className="flex justify-end gap-1">
                  <Button onClick={() => onUse(design)} aria-label={`Use ${label}`}>
                    Use
                  </Button>
                  <Button
                    onClick={() => onTry({ ...design, name: `${name}, ${label}`.slice(0, 110) })}
                    aria-label={`${label} as a variant`}
                  >
                    As a variant
                  </Button>
                </span>
              ),
          },
        ]}
      />
    </div>
  );
}
