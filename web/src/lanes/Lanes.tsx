import {
  type KeyboardEvent,
  memo,
  type PointerEvent,
  type ReactNode,
  useEffect,
  useMemo,
  useRef,
} from 'react';
import { cursor, laneViews } from '../model/lane_view';
import { noteAt } from '../model/notes';
import { significant } from '../model/units';
import { useObserved } from '../ui/observed';
import { useSize } from '../ui/size';
import { AXIS_RULE, AxisRule } from './AxisRule';
import { fraction, frequencyAt, nearest } from './axis';
import { type Columns, FOLDED, LaneRow } from './LaneRow';
import { isPresent, LANES, type Lane } from './lane';
import { GUTTER } from './line';
import { overdriven } from './over';
import type { LanePlace } from './place';
import { Ribbon } from './Ribbon';
import type { Shown } from './shown';
import { TIME_LANE, TimeLane } from './TimeLane';

interface Props {
  shown: Shown[];
  activeId: string;
  theme: string;
  /** Stands beside the axis: what can be done with all lanes. */
  tools: ReactNode;
  /** What is laid over each lane. */
  over?: (place: LanePlace) => ReactNode;
  /** The lanes that a page is about; all where nothing is said. */
  only?: readonly string[];
}

const AXIS_HEIGHT = AXIS_RULE + 28;
/** Where there is less room than this, names go into the plots, px. */
const NARROW = 500;
const LEAST_LANE = 56;

/** The lanes that there are for some variants, in the order they stand. */
export function presentLanes(shown: Shown[]): Lane[] {
  const present = LANES.filter((lane) => isPresent(lane, shown));
  const order = laneViews.ordered(present.map(({ id }) => id));
  return order.flatMap((id) => present.find((lane) => lane.id === id) ?? []);
}

/** Those of some lanes that are not folded, or the one that has all the room; of a page that is about them all. */
export function openLanes(lanes: Lane[], pinned = false): Lane[] {
  const { folded, alone } = laneViews.snapshot();
  const only = lanes.find((lane) => lane.id === alone);
  return only ? [only] : lanes.filter((lane) => pinned || !folded.includes(lane.id));
}

/** All lanes on one frequency axis, with one cursor across them. */
export const Lanes = memo(function Lanes({ shown, activeId, theme, tools, over: laid, only }: Props) {
  const view = useObserved(laneViews);
  const [box, size] = useSize<HTMLDivElement>();
  const active = shown.find((one) => one.id === activeId) ?? shown[0];
  const narrow = size.width < NARROW;
  const columns: Columns = narrow ? { names: 0, readout: 74 } : { names: 108, readout: 100 };
  const width = Math.max(160, Math.floor(size.width - columns.names - columns.readout));
  const lanes = presentLanes(shown).filter(({ id }) => !only || only.includes(id));
  const pinned = only !== undefined;
  const names = lanes.map((lane) => lane.id).join();
  const order = useMemo(() => names.split(','), [names]);
  const below = (only ? AXIS_RULE + 4 : AXIS_HEIGHT) + (view.played ? TIME_LANE : 0);
  const ids = `${names} ${view.folded} ${view.alone}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: `ids` says which lanes there are, and which are open
  const heights = useMemo(() => share(lanes, size.height - below, pinned), [size.height, below, ids, pinned]);
  const over = useMemo(() => (active ? overdriven(active.traces) : []), [active]);
  if (!active) return <div ref={box} className="h-full" />;

  const frequency = active.traces[0]?.frequency ?? [];
  const whole = [frequency[0] ?? 10, frequency.at(-1) ?? 500] as const;
  const span = view.span ?? whole;
  const inner = width - GUTTER;
  const at = (clientX: number, element: HTMLElement) =>
    clientX - element.getBoundingClientRect().left - columns.names - GUTTER;

  function point(event: PointerEvent<HTMLDivElement>) {
    const x = at(event.clientX, event.currentTarget);
    if (x >= -8 && x <= inner + 8) cursor.move(frequencyAt(Math.min(1, Math.max(0, x / inner)), ...span));
  }

  return (
    <div
      ref={box}
      className={`relative h-full overflow-y-auto overflow-x-hidden ${only ? '' : 'min-h-[420px]'}`}
    >
      {size.width > 0 && (
        <Wheel
          whole={whole}
          at={(clientX, element) =>
            frequencyAt(Math.min(1, Math.max(0, at(clientX, element) / inner)), ...span)
          }
          onPoint={point}
        >
          <WithCursor frequency={frequency}>
            {(index) => (
              <>
                {lanes.map((lane) => (
                  <LaneRow
                    key={lane.id}
                    lane={lane}
                    height={heights.get(lane.id) ?? null}
                    width={width}
                    columns={columns}
                    shown={shown}
                    active={active}
                    frequency={frequency[index] ?? whole[0]}
                    span={span}
                    own={view.ranges[lane.id]}
                    peaks={view.peaks}
                    order={order}
                    theme={theme}
                    over={laid}
                    pinned={pinned}
                  />
                ))}
                <div className="flex">
                  {columns.names > 0 && (
                    <div className="shrink-0 pr-2" style={{ width: columns.names }}>
                      {tools}
                    </div>
                  )}
                  <AxisRule
                    from={span[0]}
                    to={span[1]}
                    width={width}
                    cursor={frequency[index] ?? whole[0]}
                    onSpan={(wanted) => laneViews.show(wanted, whole)}
                  />
                </div>
                {!only && (
                  <Ribbon
                    pieces={active.report.ribbon}
                    over={over}
                    from={span[0]}
                    to={span[1]}
                    width={width}
                    names={columns.names}
                  />
                )}
                {view.played && (
                  <TimeLane
                    shown={shown}
                    active={active}
                    played={view.played}
                    frequency={frequency[index] ?? whole[0]}
                    columns={columns}
                    width={width}
                  />
                )}
                {narrow && <div className="pt-2">{tools}</div>}
                <CursorLine
                  frequency={frequency}
                  index={index}
                  left={columns.names + GUTTER + inner * fraction(frequency[index] ?? 1, ...span)}
                  hidden={
                    (frequency[index] ?? 1) < span[0] * 0.999 || (frequency[index] ?? 1) > span[1] * 1.001
                  }
                  bottom={below - 6}
                />
              </>
            )}
          </WithCursor>
        </Wheel>
      )}
    </div>
  );
});

/** Only what stands in here is drawn anew when the cursor moves. */
function WithCursor({
  frequency,
  children,
}: {
  frequency: number[];
  children: (index: number) => ReactNode;
}) {
  return children(nearest(frequency, useObserved(cursor).frequency));
}

interface WheelProps {
  whole: readonly [number, number];
  at: (clientX: number, element: HTMLElement) => number;
  onPoint: (event: PointerEvent<HTMLDivElement>) => void;
  children: ReactNode;
}

/** Zooms by the wheel with Ctrl held, so that a plain wheel still scrolls the page. */
function Wheel({ whole, at, onPoint, children }: WheelProps) {
  const area = useRef<HTMLDivElement>(null);
  const latest = useRef({ whole, at });
  latest.current = { whole, at };
  useEffect(() => {
    const element = area.current;
    if (!element) return undefined;
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      laneViews.zoom(
        event.deltaY < 0 ? 'in' : 'out',
        latest.current.at(event.clientX, element),
        latest.current.whole,
      );
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, []);
  return (
    <div
      ref={area}
      className="relative cursor-crosshair select-none"
      onPointerMove={onPoint}
      onPointerDown={onPoint}
    >
      {children}
    </div>
  );
}

interface CursorProps {
  frequency: number[];
  index: number;
  left: number;
  hidden: boolean;
  bottom: number;
}

function CursorLine({ frequency, index, left, hidden, bottom }: CursorProps) {
  const now = frequency[index] ?? 0;
  function onKeyDown(event: KeyboardEvent) {
    const step = event.shiftKey ? 10 : 1;
    const last = frequency.length - 1;
    const goal = { ArrowRight: index + step, ArrowLeft: index - step, Home: 0, End: last }[event.key];
    if (goal === undefined) return;
    event.preventDefault();
    cursor.move(frequency[Math.min(last, Math.max(0, goal))] ?? now);
  }
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Frequency cursor"
      aria-valuemin={frequency[0] ?? 0}
      aria-valuemax={frequency.at(-1) ?? 0}
      aria-valuenow={now}
      aria-valuetext={`${significant(now, 3)} Hz, ${noteAt(now)}`}
      onKeyDown={onKeyDown}
      className={`pointer-events-none absolute top-0 w-px ${hidden ? 'bg-transparent' : 'bg-ink'}`}
      style={{ left, bottom }}
    />
  );
}

/** Heights of the open lanes, by id. */
function share(lanes: Lane[], total: number, pinned: boolean): Map<string, number> {
  const open = openLanes(lanes, pinned);
  const left = total - FOLDED * (lanes.length - open.length);
  const shares = open.reduce((sum, lane) => sum + lane.share, 0);
  return new Map(
    open.map((lane) => [lane.id, Math.max(LEAST_LANE, Math.floor((left * lane.share) / shares))]),
  );
}
