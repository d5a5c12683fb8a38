import { type KeyboardEvent, memo, type PointerEvent, type ReactNode, useMemo, useState } from 'react';
import type { Report } from '../api/types';
import type { Mark } from '../model/mark';
import { significant } from '../model/units';
import { MarkGlyph } from '../ui/MarkGlyph';
import { useSize } from '../ui/size';
import { AxisRule } from './AxisRule';
import { fraction, frequencyAt, nearest, noteAt } from './axis';
import { type Extra, LANES, type Lane } from './lane';
import { GUTTER, type Line, PADDING, Plot } from './Plot';
import { Ribbon } from './Ribbon';

export interface Shown {
  id: string;
  name: string;
  place: number;
  mark: Mark;
  report: Report;
}

interface Props {
  shown: Shown[];
  activeId: string;
  theme: string;
}

/** Where the cursor stands at first: the low E of a bass, Hz. */
const FIRST_CURSOR = 41.2;
const NAMES_WIDTH = 96;
const READOUT_WIDTH = 104;
const AXIS_HEIGHT = 84;

/** All lanes on one frequency axis, with one cursor across them. */
export const Lanes = memo(function Lanes({ shown, activeId, theme }: Props) {
  const [cursor, onCursor] = useState(FIRST_CURSOR);
  const [box, size] = useSize<HTMLDivElement>();
  const active = shown.find((one) => one.id === activeId) ?? shown[0];
  const plotWidth = Math.max(160, Math.floor(size.width - NAMES_WIDTH - READOUT_WIDTH));
  const present = LANES.filter((lane) => lane.present?.(shown.map((one) => one.report)) ?? true);
  const names = present.map((lane) => lane.id).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: `names` says which lanes are present
  const lanes = useMemo(() => heights(present, size.height - AXIS_HEIGHT), [size.height, names]);
  if (!active) return <div ref={box} className="h-full" />;

  const { frequency } = active.report.curves;
  const [from, to] = [frequency[0] ?? 10, frequency.at(-1) ?? 500];
  const index = nearest(frequency, cursor);
  const inner = plotWidth - GUTTER;
  const left = NAMES_WIDTH + GUTTER + inner * fraction(frequency[index] ?? from, from, to);

  function point(event: PointerEvent<HTMLDivElement>) {
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left - NAMES_WIDTH - GUTTER;
    if (x >= -8 && x <= inner + 8) onCursor(frequencyAt(Math.min(1, Math.max(0, x / inner)), from, to));
  }

  function onKeyDown(event: KeyboardEvent) {
    const step = event.shiftKey ? 10 : 1;
    const goal = { ArrowRight: index + step, ArrowLeft: index - step, Home: 0, End: frequency.length - 1 }[
      event.key
    ];
    if (goal === undefined) return;
    event.preventDefault();
    onCursor(frequency[Math.min(frequency.length - 1, Math.max(0, goal))] ?? cursor);
  }

  const now = frequency[index] ?? from;
  return (
    <div ref={box} className="relative h-full min-h-[420px] overflow-hidden">
      {size.width > 0 && (
        <div
          className="absolute inset-0 cursor-crosshair select-none"
          onPointerMove={point}
          onPointerDown={point}
        >
          {lanes.map(({ lane, height }) => (
            <LaneRow
              key={lane.id}
              lane={lane}
              height={height}
              width={plotWidth}
              shown={shown}
              active={active}
              index={index}
              theme={theme}
            />
          ))}
          <div style={{ paddingLeft: NAMES_WIDTH }}>
            <AxisRule from={from} to={to} width={plotWidth} cursor={now} />
          </div>
          <Ribbon
            pieces={active.report.ceiling.ribbon}
            from={from}
            to={to}
            width={plotWidth}
            names={NAMES_WIDTH}
          />
          <div
            role="slider"
            tabIndex={0}
            aria-label="Frequency cursor"
            aria-valuemin={from}
            aria-valuemax={to}
            aria-valuenow={now}
            aria-valuetext={`${significant(now, 3)} Hz, ${noteAt(now)}`}
            onKeyDown={onKeyDown}
            className="pointer-events-none absolute top-0 w-px bg-ink"
            style={{ left, bottom: AXIS_HEIGHT - 6 }}
          />
        </div>
      )}
    </div>
  );
});

function heights(lanes: Lane[], total: number): { lane: Lane; height: number }[] {
  const shares = lanes.reduce((sum, lane) => sum + lane.share, 0);
  return lanes.map((lane) => ({ lane, height: Math.max(56, Math.floor((total * lane.share) / shares)) }));
}

interface RowProps {
  lane: Lane;
  height: number;
  width: number;
  shown: Shown[];
  active: Shown;
  index: number;
  theme: string;
}

function LaneRow({ lane, height, width, shown, active, index, theme }: RowProps) {
  // Moving the cursor changes none of this.
  const { lines, extras, range, limit } = useMemo(() => drawing(lane, shown, active), [lane, shown, active]);
  const y = (value: number) =>
    PADDING + ((range[1] - value) / (range[1] - range[0])) * (height - 2 * PADDING);
  // Many readings stand closer, so that they stay within their lane.
  const line = Math.min(17, Math.floor((height - 5) / shown.length));
  return (
    <section aria-label={lane.name} className="flex" style={{ height }}>
      <header className="shrink-0 pt-1 pr-1" style={{ width: NAMES_WIDTH }}>
        <h2 className="font-sans font-semibold leading-tight">{lane.name}</h2>
        <p className="text-[12.5px] text-soft leading-tight">{lane.unit}</p>
      </header>
      <div className="relative" style={{ width }}>
        <Plot
          width={width}
          height={height}
          frequency={active.report.curves.frequency}
          lines={lines}
          range={range}
          limit={limit && limit.from < range[1] ? limit.from : null}
          threshold={lane.line?.at ?? null}
          theme={theme}
        />
        {limit && limit.from < range[1] && (
          <Note at={Math.max(PADDING, y(limit.from) - 17)} side="left">
            {limit.label} {significant(limit.from, 3)}
          </Note>
        )}
        {lane.line && (
          <Note at={y(lane.line.at) - 16} side="right">
            {lane.line.at} {lane.line.label}
          </Note>
        )}
        <ExtraLabels extras={extras} range={range} width={width} y={y} />
        {lane.id === 'level' && <EndLabels shown={shown} lines={lines} y={y} height={height} />}
      </div>
      <dl
        className={`shrink-0 pt-1 pl-2 font-mono ${line < 14 ? 'text-[12px]' : 'text-[13px]'}`}
        style={{ width: READOUT_WIDTH }}
      >
        {shown.map((one, row) => {
          const value = lines[row]?.values?.[index];
          return (
            <div key={one.id} className="flex items-center gap-1.5" style={{ lineHeight: `${line}px` }}>
              <dt className="flex">
                <MarkGlyph mark={one.mark} />
                <span className="sr-only">{one.name}</span>
              </dt>
              <dd className={`flex-1 text-right ${one.id === active.id ? 'font-bold' : ''}`}>
                {value === undefined || value === null ? '–' : value.toFixed(lane.decimals)}
                {lane.aside && (
                  <span className="ml-1 font-normal text-soft">{lane.aside(one.report.curves, index)}</span>
                )}
              </dd>
            </div>
          );
        })}
      </dl>
    </section>
  );
}

/** What a lane draws of the shown variants. */
function drawing(lane: Lane, shown: Shown[], active: Shown) {
  const mains = shown.map(
    (one): Line => ({
      place: one.place,
      mark: one.mark,
      strong: one.id === active.id,
      aside: false,
      values: useable(lane.values(one.report.curves)),
    }),
  );
  const extras = lane.extras?.(active.report) ?? [];
  const asides = extras.map(
    ({ values }): Line => ({ place: active.place, mark: active.mark, strong: false, aside: true, values }),
  );
  const reports = shown.map((one) => one.report);
  return {
    lines: [...mains, ...asides],
    extras,
    range: lane.range(reports, active.report),
    limit: lane.limit?.(active.report) ?? null,
  };
}

/** A line that stays below this share of its lane gets no name: there is no room for one. */
const LEAST_HEIGHT = 0.15;

interface ExtraProps {
  extras: Extra[];
  range: [number, number];
  width: number;
  y: (value: number) => number;
}

const LETTER = 6.4;

/** The names of further lines, each where its line is highest within the lane, moved aside where two meet. */
function ExtraLabels({ extras, range, width, y }: ExtraProps) {
  let free = GUTTER + 4;
  return extras
    .map((extra) => ({ label: extra.label, ...peakOf(extra, range) }))
    .filter(({ value }) => value >= range[0] + LEAST_HEIGHT * (range[1] - range[0]))
    .sort((a, b) => a.part - b.part)
    .map(({ label, part, value }) => {
      const wide = label.length * LETTER + 10;
      const wanted = GUTTER + (width - GUTTER) * part - wide / 2;
      const left = Math.min(width - wide, Math.max(free, wanted));
      free = left + wide;
      return (
        <span
          key={label}
          className="pointer-events-none absolute rounded-[2px] bg-paper/80 px-1 text-[12px] text-soft leading-[14px]"
          style={{ top: Math.max(PADDING, y(value) - 15), left }}
        >
          {label}
        </span>
      );
    });
}

/** The highest value that the lane shows, and where along the axis it lies, 0 to 1. */
function peakOf({ values }: Extra, range: [number, number]): { part: number; value: number } {
  let [top, value] = [0, Number.NEGATIVE_INFINITY];
  values.forEach((one, at) => {
    if (one !== null && one <= range[1] && one > value) [top, value] = [at, one];
  });
  return { part: top / Math.max(1, values.length - 1), value };
}

function useable(values: number[] | null): number[] | null {
  return values?.length ? values : null;
}

function Note({ at, side, children }: { at: number; side: 'left' | 'right'; children: ReactNode }) {
  return (
    <span
      className="pointer-events-none absolute rounded-[2px] bg-paper/85 px-1 text-[12px] text-short leading-[15px]"
      style={{ top: at, ...(side === 'left' ? { left: GUTTER + 6 } : { right: 6 }) }}
    >
      {children}
    </span>
  );
}

interface EndProps {
  shown: Shown[];
  lines: Line[];
  y: (value: number) => number;
  height: number;
}

const LABEL_HEIGHT = 16;

/** The variants' names at the ends of their lines, moved apart where the lines end together. */
function EndLabels({ shown, lines, y, height }: EndProps) {
  const ends = shown
    .map((one, row) => ({ one, at: y(lines[row]?.values?.at(-1) ?? 0) + 4 }))
    .sort((a, b) => a.at - b.at);
  let free = PADDING;
  const placed = ends.map(({ one, at }) => {
    const top = Math.max(free, at);
    free = top + LABEL_HEIGHT;
    return { one, top };
  });
  // What was pushed over the lower edge goes back up, and pushes only what is in its way.
  let lowest = height - PADDING - LABEL_HEIGHT;
  for (const label of placed.toReversed()) {
    label.top = Math.min(label.top, lowest);
    lowest = label.top - LABEL_HEIGHT;
  }
  return placed.map(({ one, top }) => (
    <span
      key={one.id}
      className="pointer-events-none absolute right-1.5 flex max-w-40 items-center gap-1 rounded-[2px] bg-paper/80 px-1 text-[12px] leading-[15px]"
      style={{ top, color: `var(${one.mark.colour})` }}
    >
      <MarkGlyph mark={one.mark} size={10} />
      <span className="truncate font-semibold">{one.name}</span>
    </span>
  ));
}
