import { useMemo, useState } from 'react';
import { useComparedTraces } from '../../api/queries/measure';
import { markAt } from '../../model/mark';
import { asColumns, isImpedance, type KeptMeasurement, KINDS } from '../../model/measurements';
import { clockOf, dayOf } from '../../model/moment';
import { shown, significant } from '../../model/units';
import type { RawComparedTraces } from '../../schema/types';
import { Button } from '../../ui/Button';
import { save } from '../../ui/download';
import { Message } from '../../ui/Message';
import { Select } from '../../ui/Select';
import { Chart } from '../workbench/Chart';

interface Props {
  all: readonly KeptMeasurement[];
}

const SHAPES = [
  ['', 'as measured'],
  ['48', '1/48 octave'],
  ['24', '1/24 octave'],
  ['12', '1/12 octave'],
  ['6', '1/6 octave'],
  ['3', '1/3 octave'],
  ['1', '1 octave'],
  ['b3', 'third-octave bands'],
  ['b1', 'octave bands'],
] as const;
type Shape = (typeof SHAPES)[number][0];

const EQUAL = [
  ['', 'as measured'],
  ['100 200', '100 to 200 Hz'],
  ['60 120', '60 to 120 Hz'],
  ['40 80', '40 to 80 Hz'],
] as const;
type Equal = (typeof EQUAL)[number][0];

const MOST = 6;

const nameOf = ({
  measurement: { of, variant, driver, at, notes, sweep_level, angle },
}: KeptMeasurement): string =>
  [
    notes?.trim() || variant || KINDS[of],
    `${KINDS[of].toLowerCase()}${driver ? ` ${driver}` : ''}`,
    sweep_level != null && `${sweep_level.toFixed(0)} dB`.replace('-', '−'),
    angle != null && shown(angle),
    `${dayOf(at)} ${clockOf(at)}`,
  ]
    .filter(Boolean)
    .join(', ');

/** Levels of the build beside each other, box against box: at equal level, smoothed or in bands, with lowest note and evenness. */
export function ComparePanel({ all }: Props) {
  const levels = all.filter(({ measurement: { of } }) => !isImpedance(of) && of !== 'loopback');
  const [chosen, choose] = useState<readonly string[]>(() => levels.slice(0, 2).map(({ id }) => id));
  const [shape, setShape] = useState<Shape>('6');
  const [equal, setEqual] = useState<Equal>('60 120');
  const picked = levels.filter(({ id }) => chosen.includes(id)).slice(0, MOST);
  const key = picked.map(({ id }) => id).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: `key` says which are picked
  const asked = useMemo<RawComparedTraces>(() => {
    const band = equal ? (equal.split(' ').map(Number) as [number, number]) : null;
    const part = Number(shape.replace('b', ''));
    return {
      traces: picked.map((one) => ({ name: nameOf(one), measurement: one.measurement })),
      ...(shape !== '' && { part, banded: shape.startsWith('b') }),
      ...(band && { equal: band }),
    };
  }, [key, shape, equal]);
  const answer = useComparedTraces(asked);
  if (levels.length === 0)
    return (
      <p className="text-soft">
        No level is measured yet: near fields and traces at the seat are compared here.
      </p>
    );
  return (
    <div className="flex flex-col gap-2">
      <fieldset className="rounded-[3px] border border-rule-line bg-card px-3 py-1.5">
        <legend className="px-1 font-medium">Traces, at most {MOST}</legend>
        {levels.map((one) => (
          <label key={one.id} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={chosen.includes(one.id)}
              disabled={!chosen.includes(one.id) && picked.length >= MOST}
              onChange={(event) =>
                choose(event.target.checked ? [...chosen, one.id] : chosen.filter((id) => id !== one.id))
              }
            />
            {nameOf(one)}
          </label>
        ))}
      </fieldset>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <div className="flex items-center gap-1.5">
          Smoothed
          <Select label="Smoothing" value={shape} options={SHAPES} onChange={setShape} />
        </div>
        <div className="flex items-center gap-1.5">
          Equal level over
          <Select label="Equal level" value={equal} options={EQUAL} onChange={setEqual} />
        </div>
      </div>
      <Message error={answer.error} />
      {answer.data && picked.length > 0 && <Compared compared={answer.data} />}
    </div>
  );
}

function Compared({
  compared: { traces, average },
}: {
  compared: NonNullable<ReturnType<typeof useComparedTraces>['data']>;
}) {
  const most = Math.max(...traces.flatMap(({ points }) => points.map(([, level = 0]) => level)));
  const top = Math.ceil((most + 2) / 5) * 5;
  const lines = traces.map(({ points }, at) => ({
    name: String(at + 1),
    place: at,
    mark: markAt(at),
    strong: at === 0,
    secondary: false,
    frequency: points.map(([frequency = 0]) => frequency),
    values: points.map(([, level = 0]) => level),
  }));
  const best = (of: (one: (typeof traces)[number]) => number | null | undefined) =>
    traces.length > 1 ? Math.min(...traces.map((one) => of(one) ?? Number.POSITIVE_INFINITY)) : null;
  const [lowest, evenest] = [best(({ f3 }) => f3), best(({ evenness }) => evenness)];
  const hertz = (value: number | null | undefined) =>
    value == null ? 'below it' : `${significant(value, 3)} Hz`;
  return (
    <>
      <Chart label="Traces beside each other" height={230} range={[top - 40, top]} lines={lines} />
      <table className="w-full text-[0.929rem]">
        <thead>
          <tr className="text-left">
            <th scope="col">Trace</th>
            <th scope="col">−3 dB</th>
            <th scope="col">−10 dB</th>
            <th scope="col">Evenness</th>
            <th scope="col">Shifted</th>
          </tr>
        </thead>
        <tbody>
          {traces.map(({ name, f3, f10, evenness, shift }, at) => (
            <tr key={name} className="border-line border-t align-top">
              <th scope="row" className="pr-2 text-left font-medium">
                {at + 1} · {name}
              </th>
              <td className={`whitespace-nowrap font-mono ${f3 === lowest ? 'font-bold text-met' : ''}`}>
                {hertz(f3)}
                {f3 === lowest && <span className="sr-only">, lowest</span>}
              </td>
              <td className="whitespace-nowrap font-mono">{hertz(f10)}</td>
              <td
                className={`whitespace-nowrap font-mono ${evenness === evenest ? 'font-bold text-met' : ''}`}
              >
                ±{evenness.toFixed(1)} dB
                {evenness === evenest && <span className="sr-only">, evenest</span>}
              </td>
              <td className="whitespace-nowrap font-mono">{shift.toFixed(1).replace('-', '−')} dB</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[0.929rem] text-soft">
        −3 and −10 dB against the mean power from 40 to 120 Hz; evenness is the standard deviation there.
        {average.length > 0 &&
          ' A near field and a trace at the seat are not to be compared with each other.'}
      </p>
      <p>
        <Button onClick={() => save('traces.txt', new Blob([asColumns(traces)], { type: 'text/plain' }))}>
          Save as text
        </Button>
      </p>
    </>
  );
}
