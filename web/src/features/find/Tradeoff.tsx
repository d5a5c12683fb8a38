import { useState } from 'react';
import { familyEntry } from '../../model/families';
import { inWords } from '../../model/preferences';
import type { DriverMatchPoint } from '../../schema/types';
import { Select } from '../../ui/Select';
import type { Chosen } from './chosen';
import { AXES, type Axis, nextOnFront, scaleOf } from './tradeoff';

interface Props {
  points: DriverMatchPoint[];
  chosen: Chosen | null;
  onChoose: (chosen: Chosen) => void;
}

const VIEWS = [
  ['volume f3', 'size against lowest note'],
  ['volume loudness', 'size against loudness'],
  ['f3 loudness', 'lowest note against loudness'],
] as const;

const [WIDTH, HEIGHT, LEFT, TOP, BOTTOM] = [372, 232, 44, 18, 34];

/** What each cabinet gives for its size; those that no other beats in size, lowest note and loudness stand out. */
export function Tradeoff({ points, chosen, onChoose }: Props) {
  const [view, setView] = useState<(typeof VIEWS)[number][0]>('volume f3');
  if (points.length === 0) return null;
  const [across, up] = view.split(' ').map((id) => AXES[id as Axis['id']]) as [Axis, Axis];
  const [x, y] = [scaleOf(across, points), scaleOf(up, points)];
  const left = (point: DriverMatchPoint) => LEFT + x.place(across.value(point)) * (WIDTH - LEFT - 8);
  const top = (point: DriverMatchPoint) => TOP + (HEIGHT - BOTTOM) * (1 - y.place(up.value(point)));
  const isChosen = (point: DriverMatchPoint) =>
    point.driver === chosen?.driver && (chosen.family === null || point.family === chosen.family);
  const current = points.find((point) => point.front && isChosen(point)) ?? points.find(isChosen);
  const choose = ({ driver, name, family }: DriverMatchPoint) => onChoose({ driver, name, family });
  const front = points.filter((point) => point.front).length;
  return (
    <section aria-label="What each cabinet gives for its size">
      <div className="flex items-center gap-2">
        <h2 className="flex-1 text-lg">Trade-off</h2>
        <Select label="What is drawn" className="max-w-60" value={view} options={VIEWS} onChange={setView} />
      </div>
      <div
        role="slider"
        tabIndex={0}
        aria-label="Best trade-offs of size, lowest note and loudness; arrow keys go from one to the next"
        aria-valuemin={0}
        aria-valuemax={front}
        aria-valuenow={current?.front ? 1 + indexOnFront(points, across, current) : 0}
        aria-valuetext={current ? spoken(current) : 'none chosen'}
        className="rounded-[3px]"
        onKeyDown={(event) => {
          const direction = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
          if (!direction) return;
          event.preventDefault();
          const next = nextOnFront(points, across, current, direction as 1 | -1);
          if (next) choose(next);
        }}
      >
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT + TOP}`}
          className="block w-full max-w-[36rem] font-mono text-[0.786rem]"
          aria-hidden="true"
        >
          {x.ticks.map((tick) => {
            const at = LEFT + x.place(tick) * (WIDTH - LEFT - 8);
            return (
              <g key={tick}>
                <path d={`M${at} ${TOP}V${HEIGHT - BOTTOM + TOP}`} stroke="var(--grid)" />
                <text x={at} y={HEIGHT - BOTTOM + TOP + 14} textAnchor="middle" fill="var(--soft)">
                  {tick}
                </text>
              </g>
            );
          })}
          {y.ticks.map((tick) => {
            const at = TOP + (HEIGHT - BOTTOM) * (1 - y.place(tick));
            return (
              <g key={tick}>
                <path d={`M${LEFT} ${at}H${WIDTH - 8}`} stroke="var(--grid)" />
                <text x={LEFT - 5} y={at + 4} textAnchor="end" fill="var(--soft)">
                  {tick}
                </text>
              </g>
            );
          })}
          <text x={WIDTH - 8} y={HEIGHT + TOP - 4} textAnchor="end" fill="var(--ink)" className="font-sans">
            {across.name}, {across.unit}
          </text>
          <text x={4} y={11} fill="var(--ink)" className="font-sans">
            {up.name}, {up.unit}
          </text>
          {[...points].sort(order(isChosen)).map((point) => (
            // biome-ignore lint/a11y/noStaticElementInteractions: the slider around it serves the keyboard
            <circle
              key={`${point.driver} ${point.family}`}
              cx={left(point)}
              cy={top(point)}
              r={isChosen(point) ? 6 : point.front ? 4.2 : 2.6}
              fill={point.score > 99.999 ? 'var(--met)' : point.front ? 'var(--oak)' : 'var(--line)'}
              stroke={isChosen(point) ? 'var(--ink)' : point.front ? 'var(--card)' : 'var(--soft)'}
              strokeWidth={isChosen(point) ? 2 : 0.7}
              className="cursor-pointer"
              onClick={() => choose(point)}
            >
              <title>{spoken(point)}</title>
            </circle>
          ))}
        </svg>
      </div>
      <p className="text-[0.929rem] text-soft">
        <Dot fill="var(--met)" /> reaches all <Dot fill="var(--oak)" /> best trade-off{' '}
        <Dot fill="var(--line)" /> others. {current && <span className="text-ink">{spoken(current)}</span>}
      </p>
    </section>
  );
}

function Dot({ fill }: { fill: string }) {
  return (
    <svg width="9" height="9" viewBox="-5 -5 10 10" aria-hidden="true" className="inline">
      <circle r="4" fill={fill} stroke="var(--soft)" strokeWidth="0.7" />
    </svg>
  );
}

/** What matters most is drawn last. */
function order(isChosen: (point: DriverMatchPoint) => boolean) {
  const rank = (point: DriverMatchPoint) => Number(point.front) + 2 * Number(isChosen(point));
  return (a: DriverMatchPoint, b: DriverMatchPoint) => rank(a) - rank(b);
}

function indexOnFront(points: DriverMatchPoint[], axis: Axis, point: DriverMatchPoint): number {
  return points.filter((other) => other.front && axis.value(other) < axis.value(point)).length;
}

function spoken({ name, family, volume, f3, loudness }: DriverMatchPoint): string {
  return `${name}, ${familyEntry(family).name.toLowerCase()}: ${inWords(`${(volume * 1e3).toFixed(0)} l`)}, ${f3.toFixed(1)} Hz, ${loudness.toFixed(1)} dB`;
}
