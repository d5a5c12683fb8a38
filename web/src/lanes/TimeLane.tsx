import { useDeferredValue } from 'react';
import { useTransients } from '../api/queries/design';
import { linear, roundUp } from '../model/scale';
import { significant } from '../model/units';
import type { Columns } from './LaneRow';
import { GUTTER } from './line';
import type { Shown } from './shown';

interface Props {
  shown: Shown[];
  active: Shown;
  played: 'step' | 'burst';
  /** Of a burst, Hz. */
  frequency: number;
  columns: Columns;
  width: number;
}

export const TIME_LANE = 132;
const TOP = 8;
const PLOT = 100;
/** How much is shown: a step until it has died away, a burst with what rings after it, s. */
const STEP_TIME = 0.12;
const BURST_CYCLES = 9;

/** What is heard over time: the one lane with an axis of its own. */
export function TimeLane({ shown, active, played, frequency, columns, width }: Props) {
  // The cursor and a drag go on meanwhile.
  const tone = useDeferredValue(Math.round(Math.min(500, Math.max(5, frequency))));
  const designs = useDeferredValue(shown.map((one) => one.design));
  const answers = useTransients(designs, played, tone);
  const end = played === 'step' ? STEP_TIME : Math.min(0.5, BURST_CYCLES / tone);
  const lists = answers.map(({ data }) => data);
  const inner = width - GUTTER;
  const time = lists.find((one) => one)?.time ?? [];
  const until = time.findIndex((at) => at > end);
  const last = until < 0 ? time.length : until;
  const most = roundUp(
    Math.max(1e-3, ...lists.flatMap((one) => one?.pressure.slice(0, last).map(Math.abs) ?? [])),
  );
  const x = linear([0, end], [GUTTER, width]);
  const y = linear([-most, most], [TOP + PLOT, TOP]);
  const steps = Array.from({ length: 7 }, (_, k) => (end * k) / 6);
  const name = played === 'step' ? 'Step' : `Burst, ${tone} Hz`;
  return (
    <section aria-label={name} className="flex">
      {columns.names > 0 && (
        <header className="shrink-0 pt-1 pr-1" style={{ width: columns.names }}>
          <h2 className="font-sans font-semibold leading-tight">{name}</h2>
          <p className="text-[0.893rem] text-soft leading-tight">Pa at 1 m, ms</p>
        </header>
      )}
      <svg
        width={width}
        height={TIME_LANE}
        role="img"
        aria-label={spokenOf(name, shown, lists)}
        className="block font-mono text-[0.857rem]"
      >
        <rect x={GUTTER} y={TOP} width={inner} height={PLOT} fill="var(--card)" stroke="var(--line)" />
        {steps.map((at) => (
          <g key={at}>
            <path d={`M${x(at)} ${TOP}v${PLOT}`} stroke="var(--grid)" />
            <text
              x={x(at)}
              y={TOP + PLOT + 15}
              textAnchor={at === 0 ? 'start' : at === end ? 'end' : 'middle'}
              fill="var(--soft)"
            >
              {significant(at * 1e3, 2)}
            </text>
          </g>
        ))}
        {[-most, 0, most].map((pressure) => (
          <g key={pressure}>
            <path d={`M${GUTTER} ${y(pressure)}h${inner}`} stroke="var(--grid)" />
            <text x={GUTTER - 5} y={y(pressure) + 4} textAnchor="end" fill="var(--soft)">
              {significant(pressure, 2)}
            </text>
          </g>
        ))}
        {shown.map((one, row) => {
          const list = lists[row];
          if (!list) return null;
          const points = list.pressure
            .slice(0, last)
            .map((p, k) => `${x(list.time[k] ?? 0).toFixed(1)} ${y(p).toFixed(1)}`);
          return (
            <path
              key={one.id}
              d={`M${points.join('L')}`}
              fill="none"
              stroke={`var(${one.mark.colour})`}
              strokeWidth={one.id === active.id ? 2 : 1.4}
              strokeDasharray={one.mark.dash.join(' ')}
            />
          );
        })}
      </svg>
    </section>
  );
}

function spokenOf(name: string, shown: Shown[], lists: ({ pressure: number[] } | undefined)[]): string {
  const each = shown.map((one, row) => {
    const peak = Math.max(0, ...(lists[row]?.pressure ?? []).map(Math.abs));
    return `${one.name} up to ${significant(peak, 2)} Pa`;
  });
  return `${name} over time: ${each.join(', ')}`;
}
