import {
  type CSSProperties,
  type KeyboardEvent,
  memo,
  type PointerEvent,
  useEffect,
  useRef,
  useState,
} from 'react';
import { nudged, rounded } from '../model/nudge';
import { measure, unitOf } from '../model/preferences';
import { roundUp } from '../model/scale';
import { type Field, shown, significant, type Unit, writeTyped } from '../model/units';
import type { Typed } from '../schema/types';
import { usePreferences } from './observed';
import { arrowSteps, QuantityInput } from './QuantityInput';
import { useSize } from './size';

interface Props {
  name: string;
  /** What the value may be; the one in use first. */
  fields: readonly [Field, ...Field[]];
  typed: Typed | null;
  /** SI value, typed or computed; null where there is none yet. */
  si: number | null;
  error?: string | undefined;
  /** Without a rule, where there is little room and little need. */
  plain?: boolean | undefined;
  /** May be emptied. */
  optional?: boolean | undefined;
  onPreview: (field: Field, typed: Typed) => void;
  onType: (field: Field, typed: Typed | null) => void;
  onCommit: () => void;
}

const HEIGHT = 26;
/** Width of a doubling on the rule, px. */
const OCTAVE = 150;
/** How near the edge the hand may come before the rule moves on. */
const EDGE = 24;
const PAUSE = 700;
/** Width of the rule until it is laid out, px. */
const UNLAID = 200;

/** A value as a piece of a carpenter's rule: type it, drag the hand, or nudge it with the arrow keys. */
export function Tape({
  name,
  fields,
  typed,
  si,
  error,
  plain,
  optional,
  onPreview,
  onType,
  onCommit,
}: Props) {
  const [field] = fields;
  usePreferences();
  const unit = unitOf(field, typed);
  const whole = field.path.endsWith('.count');
  const settling = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  function set(inUnit: number) {
    const factor = unit?.factor ?? 1;
    const within = Math.min(field.max / factor, Math.max(field.min / factor, inUnit));
    onPreview(field, writeTyped(Number(within.toPrecision(9)) * factor, unit, 5));
  }

  function nudge(steps: number) {
    if (!si) return;
    set(nudged(si / (unit?.factor ?? 1), steps, whole));
    clearTimeout(settling.current);
    settling.current = setTimeout(onCommit, PAUSE);
  }

  function commit() {
    clearTimeout(settling.current);
    onCommit();
  }

  const follows = si === null ? undefined : shown(measure(si, unit));
  return (
    <div
      className={`grid items-center gap-2 ${plain ? 'grid-cols-[auto_max(4.6rem,var(--written))]' : 'grid-cols-[5.6rem_7.6rem_1fr]'}`}
      style={{ '--written': `${String(typed ?? follows ?? '').length + 3}ch` } as CSSProperties}
    >
      <span aria-hidden="true">{name}</span>
      <QuantityInput
        label={name}
        fields={fields}
        typed={typed}
        follows={follows}
        error={error}
        optional={optional ?? false}
        className="font-mono text-[0.929rem]"
        onType={(next, value) => (value !== null || optional) && onType(next, value)}
        onArrow={nudge}
        onLeave={commit}
      />
      {!plain && (
        <Rule
          label={`${name}, rule`}
          field={field}
          unit={unit}
          si={si}
          whole={whole}
          onSlide={(value) => set(rounded(value, whole))}
          onNudge={nudge}
          onCommit={commit}
        />
      )}
    </div>
  );
}

/** So far along the rule, px, a finger means it. */
const ALONG = 8;

interface RuleProps {
  label: string;
  field: Field;
  unit: Unit | null;
  si: number | null;
  whole: boolean;
  onSlide: (inUnit: number) => void;
  onNudge: (steps: number) => void;
  onCommit: () => void;
}

function Rule({ label, field, unit, si, whole, onSlide, onNudge, onCommit }: RuleProps) {
  const [box, size] = useSize<HTMLDivElement>();
  const width = size.width || UNLAID;
  const factor = unit?.factor ?? 1;
  // A rule of octaves has no zero.
  const value = si ? si / factor : null;
  const centre = useCentre(value, width);

  const at = (v: number) => placeOf(v, centre, width);

  // A finger may only be on its way down the page: nothing is set before it goes along the rule.
  const touched = useRef<number | null>(null);

  function slide(event: PointerEvent<HTMLDivElement>) {
    const left = event.currentTarget.getBoundingClientRect().left;
    onSlide(2 ** (centre + (event.clientX - left - width / 2) / OCTAVE));
  }

  function onKeyDown(event: KeyboardEvent) {
    const steps = arrowSteps(event);
    if (!steps) return;
    event.preventDefault();
    onNudge(steps);
  }

  return (
    <div
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={field.min / factor}
      aria-valuemax={field.max / factor}
      aria-valuenow={value ?? field.min / factor}
      aria-valuetext={si === null ? 'none' : shown(measure(si, unit))}
      aria-disabled={value === null ? true : undefined}
      className="h-[26px] cursor-ew-resize touch-pan-y overflow-hidden rounded-[2px] border border-rule-line bg-rule"
      onPointerDown={(event) => {
        if (value === null || event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        touched.current = event.pointerType === 'touch' ? event.clientX : null;
        if (touched.current === null) slide(event);
      }}
      onPointerMove={(event) => {
        if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
        if (touched.current !== null && Math.abs(event.clientX - touched.current) < ALONG) return;
        touched.current = null;
        slide(event);
      }}
      onPointerUp={onCommit}
      onPointerCancel={onCommit}
      onKeyDown={onKeyDown}
      onBlur={onCommit}
    >
      <svg width={width} height={HEIGHT} aria-hidden="true" className="block select-none">
        {value !== null && <Ticks centre={centre} width={width} whole={whole} />}
        {value !== null && (
          <g transform={`translate(${at(value).toFixed(1)} 0)`}>
            <path d={`M0 0V${HEIGHT}`} stroke="var(--oak)" strokeWidth="2" />
            <path d="M-5.5 26H5.5L0 18Z" fill="var(--oak)" />
          </g>
        )}
      </svg>
    </div>
  );
}

/** Where the middle of the rule is, in octaves of the unit: it follows only when the hand nears an edge. */
function useCentre(value: number | null, width: number): number {
  const [centre, setCentre] = useState(() => Math.log2(value ?? 1));
  const reach = Math.max(0, width / 2 - EDGE) / OCTAVE;
  const octave = value === null ? centre : Math.log2(value);
  const off = octave - centre;
  const far = Math.abs(off) > 2 * reach;
  const next = far ? octave : Math.abs(off) > reach ? octave - Math.sign(off) * reach : centre;
  useEffect(() => setCentre(next), [next]);
  return next;
}

interface TicksProps {
  centre: number;
  width: number;
  whole: boolean;
}

/** Position of a value on a rule, px. */
function placeOf(value: number, centre: number, width: number): number {
  return width / 2 + OCTAVE * (Math.log2(value) - centre);
}

// Most of what is on screen in a drag is ticks, and none of them move.
const Ticks = memo(function Ticks({ centre, width, whole }: TicksProps) {
  const [low, high] = [2 ** (centre - width / 2 / OCTAVE), 2 ** (centre + width / 2 / OCTAVE)];
  const fine = whole ? 1 : roundUp((low + high) / 60, [1, 2, 5]);
  const ticks = [];
  for (let k = Math.ceil(low / fine); k * fine <= high && ticks.length < 120; k += 1) ticks.push(k);
  return ticks.map((k) => {
    const named = k % 5 === 0 || whole;
    const x = placeOf(k * fine, centre, width).toFixed(1);
    return (
      <g key={k}>
        <path d={`M${x} 0v${named ? 9 : 5}`} stroke="var(--rule-line)" />
        {named && k > 0 && (
          <text x={x} y="20" textAnchor="middle" fontSize="10.5" fill="var(--ink)">
            {significant(k * fine, 4)}
          </text>
        )}
      </g>
    );
  });
});
