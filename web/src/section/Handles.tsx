import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { inWords } from '../model/preferences';
import { parseNumber } from '../model/units';
import type { RawDesign } from '../schema/types';
import type { Frame } from './frame';
import type { Handle } from './handles';

interface Props {
  handles: Handle[];
  frame: Frame;
  onPull: (design: RawDesign) => void;
  onCommit: (label: string) => void;
}

/** One press of an arrow key, m. */
const STEP = 0.001;
const PAUSE = 700;
/** How far a grip reaches, px. */
const REACH = 13;

/** Grips on the drawing: drag them, or press the arrow keys. */
export function Handles({ handles, frame, onPull, onCommit }: Props) {
  return handles.map((handle) => (
    <Grip key={handle.id} handle={handle} frame={frame} onPull={onPull} onCommit={onCommit} />
  ));
}

function Grip({ handle, frame, onPull, onCommit }: Omit<Props, 'handles'> & { handle: Handle }) {
  // A drag is measured from where and how large the drawing was when it began.
  const begun = useRef<{ at: number; scale: number; pull: Handle['pull'] } | null>(null);
  const pause = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const along = (event: PointerEvent) => (handle.axis === 'x' ? event.clientX : -event.clientY);

  function pull(design: RawDesign | null) {
    if (design) onPull(design);
  }

  function drop() {
    begun.current = null;
    onCommit(handle.label);
  }

  const said = inWords(handle.said);

  function onKeyDown(event: KeyboardEvent) {
    const steps = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!steps) return;
    event.preventDefault();
    pull(handle.pull(steps * STEP * (event.shiftKey ? 10 : 1)));
    clearTimeout(pause.current);
    pause.current = setTimeout(() => onCommit(handle.label), PAUSE);
  }

  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={handle.label}
      aria-valuenow={leadingNumber(said)}
      aria-valuetext={said}
      className={`group touch-none ${handle.axis === 'x' ? 'cursor-ew-resize' : 'cursor-ns-resize'}`}
      // A grip beside the drawing stays on the sheet.
      transform={`translate(${Math.min(frame.x(handle.x), frame.width - REACH)} ${frame.y(handle.y)})`}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        begun.current = { at: along(event), scale: frame.scale, pull: handle.pull };
      }}
      onPointerMove={(event) => {
        const { current } = begun;
        if (current) pull(current.pull((along(event) - current.at) / current.scale));
      }}
      onPointerUp={drop}
      onPointerCancel={drop}
      onKeyDown={onKeyDown}
    >
      <title>{`${handle.label}: ${said}. Drag, or press the arrow keys.`}</title>
      <circle r="12" fill="transparent" />
      <circle
        r="5"
        fill="var(--card)"
        stroke="var(--oak)"
        strokeWidth="2"
        className="group-hover:fill-oak group-focus:fill-oak"
      />
    </g>
  );
}

/** The number that a quantity begins with; a fraction of an inch is one. */
function leadingNumber(said: string): number {
  const [number = ''] = said.match(/^[-−\d.,/ ]+/) ?? [];
  const value = parseNumber(number);
  return typeof value === 'number' ? value : 0;
}
