import { type KeyboardEvent, type PointerEvent, useEffect, useRef } from 'react';
import type { LanePlace } from '../../lanes/place';
import { nudged } from '../../model/nudge';
import { readTyped, significant } from '../../model/units';
import type { RawDesign, RawFilter } from '../../schema/types';
import { arrowSteps } from '../../ui/QuantityInput';
import { filtersOf, hasGain, hasHandle, kindName, withFilters, withItem } from './filters';

interface Props {
  place: LanePlace;
  design: RawDesign;
  selected: string;
  onSelect: (block: string) => void;
  onPreview: (design: RawDesign) => void;
  onCommit: (label: string) => void;
}

/** A handle on the curve for each filter: along it the frequency, up and down the gain, the wheel its Q. */
export function FilterHandles(props: Props) {
  if (props.place.lane !== 'level') return null;
  return filtersOf(props.design).map((filter, at) =>
    // biome-ignore lint/suspicious/noArrayIndexKey: filters have no other name
    hasHandle(filter) ? <Handle key={at} at={at} filter={filter} {...props} /> : null,
  );
}

const PAUSE = 700;
const MOST_GAIN = 40;
const Q_RANGE = [0.1, 50] as const;

function Handle({
  at,
  filter,
  place,
  design,
  selected,
  onSelect,
  onPreview,
  onCommit,
}: Props & { at: number; filter: RawFilter }) {
  const element = useRef<HTMLDivElement>(null);
  const from = useRef<{ x: number; y: number; gain: number } | null>(null);
  const settling = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const frequency = readTyped(filter.frequency, 'frequency')?.si ?? 0;
  const gain = readTyped(filter.gain, 'level')?.si ?? 0;
  const q = Number(filter.q ?? 1);
  const put = (change: Partial<RawFilter>) =>
    onPreview(withFilters(design, withItem(filtersOf(design), at, { ...filter, ...change })));
  const setFrequency = (hertz: number) => {
    const within = Math.min(place.span[1], Math.max(place.span[0], hertz));
    put({ frequency: `${Number(within.toPrecision(3))} Hz` });
  };
  /** Keys and wheel are one gesture until they rest. */
  const settle = () => {
    clearTimeout(settling.current);
    settling.current = setTimeout(() => onCommit('filter'), PAUSE);
  };
  const setQ = (steps: number) => {
    const next = Math.min(Q_RANGE[1], Math.max(Q_RANGE[0], q * 1.1 ** steps));
    put({ q: Number(next.toPrecision(2)) });
    settle();
  };
  const turn = useRef(setQ);
  turn.current = setQ;
  const has = filter.kind !== 'high_pass' && filter.kind !== 'low_pass';
  // React's own listener is passive, and the page must not scroll.
  useEffect(() => {
    const here = element.current;
    if (!here || !has) return undefined;
    const onWheel = (event: WheelEvent) => {
      if (event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      turn.current(event.deltaY < 0 ? 1 : -1);
    };
    here.addEventListener('wheel', onWheel, { passive: false });
    return () => here.removeEventListener('wheel', onWheel);
  }, [has]);

  const inside = frequency >= place.span[0] && frequency <= place.span[1];
  if (!inside) return null;
  const left = place.x(frequency);
  const level = place.at(frequency);
  const top = Math.min(place.height - 12, Math.max(12, level === null ? place.height / 2 : place.y(level)));

  function onPointerDown(event: PointerEvent<HTMLDivElement>) {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { x: event.clientX - left, y: event.clientY, gain };
    onSelect(`filter-${at}`);
  }

  function onPointerMove(event: PointerEvent<HTMLDivElement>) {
    const begun = from.current;
    if (!begun || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const hertz = Math.min(place.span[1], Math.max(place.span[0], place.frequency(event.clientX - begun.x)));
    const change: Partial<RawFilter> = { frequency: `${Number(hertz.toPrecision(3))} Hz` };
    if (hasGain(filter)) {
      const wanted = begun.gain + (begun.y - event.clientY) / place.perUnit;
      const decibels = Math.min(MOST_GAIN, Math.max(-MOST_GAIN, wanted));
      change.gain = `${Number(decibels.toFixed(1))} dB`;
    }
    put(change);
  }

  function end() {
    if (!from.current) return;
    from.current = null;
    onCommit('filter');
  }

  function onKeyDown(event: KeyboardEvent) {
    const steps = arrowSteps(event);
    if (!steps) return;
    event.preventDefault();
    if (event.key.startsWith('Page')) setQ(Math.sign(steps));
    else if (hasGain(filter) && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
      put({ gain: `${Number((gain + 0.5 * steps).toFixed(1))} dB` });
    else setFrequency(nudged(frequency, steps, false));
    settle();
  }

  const text = [
    `${significant(frequency, 3)} Hz`,
    ...(hasGain(filter) ? [`${String(gain).replace('-', '−')} dB`] : []),
    ...(has && filter.q != null ? [`Q ${q}`] : []),
  ].join(', ');
  return (
    <div
      ref={element}
      role="slider"
      tabIndex={0}
      aria-label={`${at + 1} ${kindName(filter.kind)}, handle`}
      aria-valuemin={place.span[0]}
      aria-valuemax={place.span[1]}
      aria-valuenow={frequency}
      aria-valuetext={text}
      title={`${text}. Drag; the wheel changes Q.`}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={end}
      onPointerCancel={end}
      onFocus={() => onSelect(`filter-${at}`)}
      onKeyDown={onKeyDown}
      onBlur={() => onCommit('filter')}
      className={`absolute z-10 flex size-6 cursor-move touch-none items-center justify-center rounded-full border-2 font-mono font-semibold text-[0.786rem] ${
        selected === `filter-${at}` ? 'border-ink bg-oak text-on-oak' : 'border-oak bg-card text-ink'
      }`}
      style={{ left: left - 12, top: top - 12 }}
    >
      {at + 1}
    </div>
  );
}
