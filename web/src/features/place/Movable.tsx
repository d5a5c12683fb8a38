import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { type Axes, type Chosen, movedTo, sizeOf, snapped, withItem } from '../../model/places';
import { inWords } from '../../model/preferences';
import type { RawListeningPlace } from '../../schema/types';
import { arrowSteps } from '../../ui/QuantityInput';
import { type Drawn, type Frame, reachOf } from './frame';

interface Props {
  item: Drawn;
  axes: Axes;
  frame: Frame;
  place: RawListeningPlace;
  pressed: boolean;
  onChoose: (chosen: Chosen) => void;
  onPreview: (place: RawListeningPlace) => void;
  onCommit: (label: string) => void;
}

/** One press of an arrow key, m, and of Page Up, rad. */
const STEP = 0.05;
const TURN = Math.PI / 12;
const PAUSE = 700;
/** Half the side of a cabinet that is drawn as a sign, px. */
const SIGN = 9;

/** A cabinet or seat on the plan: dragged, or moved by the arrow keys; Page Up and Page Down turn a cabinet. */
export function Movable({ item, axes, frame, place, pressed, onChoose, onPreview, onCommit }: Props) {
  const begun = useRef<[number, number] | null>(null);
  const resting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const { which, at } = item;
  const label = which === 'seats' ? 'seat' : 'cabinet';
  const here = [item.place[axes[0]], item.place[axes[1]]] as const;
  const reach = which === 'cabinets' ? reachOf(item, axes) : ([0, 0] as const);
  const size = sizeOf(place);
  const put = (point: readonly [number, number], snap: boolean) => {
    const walls = size && ([size[axes[0]], size[axes[1]]] as const);
    const laid = snap && which === 'cabinets' && axes[1] === 1 ? snapped(point, reach, walls) : point;
    onPreview(movedTo(place, which, at, axes, laid, reach));
  };
  const settle = () => {
    clearTimeout(resting.current);
    resting.current = setTimeout(() => onCommit(label), PAUSE);
  };

  function onPointerDown(event: PointerEvent<SVGGElement>) {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    begun.current = [event.clientX - frame.x(here[0]), event.clientY - frame.y(here[1])];
    onChoose({ which, at });
  }

  function onPointerMove(event: PointerEvent<SVGGElement>) {
    if (!begun.current || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    put(frame.at(event.clientX - begun.current[0], event.clientY - begun.current[1]), true);
  }

  function end() {
    if (!begun.current) return;
    begun.current = null;
    onCommit(label);
  }

  function onKeyDown(event: KeyboardEvent) {
    const steps = arrowSteps(event);
    if (!steps) return;
    event.preventDefault();
    if (event.key.startsWith('Page')) {
      const stand = place.cabinets?.[at];
      if (which !== 'cabinets' || !stand) return;
      const turned = Math.round(((item.turned + Math.sign(steps) * TURN) * 180) / Math.PI);
      const around = turned > 180 ? turned - 360 : turned <= -180 ? turned + 360 : turned;
      onPreview(withItem(place, 'cabinets', at, { ...stand, turned: `${around} deg` }));
    } else {
      const sideways = event.key === 'ArrowLeft' || event.key === 'ArrowRight';
      put([here[0] + (sideways ? steps * STEP : 0), here[1] + (sideways ? 0 : steps * STEP)], false);
    }
    settle();
  }

  const [first, second] =
    axes[0] === 0 ? ['from the left', 'up the plan'] : ['along the plan', 'above the floor'];
  const text = inWords(`${here[0].toFixed(2)} m ${first}, ${here[1].toFixed(2)} m ${second}`);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={item.name}
      aria-valuenow={Number(here[0].toFixed(2))}
      aria-valuetext={text}
      aria-roledescription={label}
      className="group cursor-move touch-none outline-none"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={end}
      onPointerCancel={end}
      onFocus={() => onChoose({ which, at })}
      onBlur={() => onCommit(label)}
      onKeyDown={onKeyDown}
    >
      <title>{`${item.name}: ${text}. Drag it, or press the arrow keys.`}</title>
      {which === 'seats' ? (
        <SeatSign item={item} frame={frame} here={here} pressed={pressed} />
      ) : (
        <CabinetSign item={item} frame={frame} axes={axes} here={here} pressed={pressed} />
      )}
    </g>
  );
}

interface SignProps {
  item: Drawn;
  frame: Frame;
  here: readonly [number, number];
  pressed: boolean;
}

function SeatSign({ item, frame, here, pressed }: SignProps) {
  return (
    <g transform={`translate(${frame.x(here[0])} ${frame.y(here[1])})`}>
      <circle r="13" fill="transparent" />
      <circle
        r="10"
        className="group-focus-visible:stroke-[4px]"
        fill={pressed ? 'var(--ink)' : 'var(--card)'}
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <text
        y="4"
        textAnchor="middle"
        className="font-mono font-semibold text-[0.786rem]"
        fill={pressed ? 'var(--paper)' : 'var(--ink)'}
      >
        {item.at + 1}
      </text>
      <text
        y="24"
        textAnchor="middle"
        className="text-[0.857rem]"
        fill="var(--ink)"
        stroke="var(--paper)"
        strokeWidth="3"
        paintOrder="stroke"
      >
        {item.name}
      </text>
    </g>
  );
}

function CabinetSign({ item, frame, axes, here, pressed }: SignProps & { axes: Axes }) {
  const [left, right, below, above] =
    axes[1] === 2
      ? [
          Math.min(...item.outline.map((corner) => corner[1])),
          Math.max(...item.outline.map((corner) => corner[1])),
          0,
          item.height,
        ]
      : [0, 0, 0, 0];
  const corners: (readonly [number, number])[] =
    axes[1] === 2
      ? [
          [left, below],
          [right, below],
          [right, above],
          [left, above],
        ]
      : item.outline;
  // Too small to be seen, it is drawn as a sign.
  const wide = Math.max(...item.outline.map(([x]) => Math.abs(x))) * frame.scale;
  const sign = wide < SIGN;
  const points = corners.map(([x, y]) => `${frame.x(here[0] + x)},${frame.y(here[1] + y)}`).join(' ');
  const front = axes[1] === 1 ? item.outline.slice(2, 4) : [];
  const [x, y] = [frame.x(here[0]), frame.y(here[1] + (axes[1] === 2 ? item.height / 2 : 0))];
  return (
    <>
      <circle cx={x} cy={y} r="14" fill="transparent" />
      {sign ? (
        <rect
          x={x - SIGN}
          y={y - SIGN}
          width={2 * SIGN}
          height={2 * SIGN}
          className="group-focus-visible:stroke-[4px]"
          fill={pressed ? 'var(--oak)' : 'var(--rule)'}
          stroke={pressed ? 'var(--ink)' : 'var(--oak)'}
          strokeWidth="1.5"
        />
      ) : (
        <polygon
          points={points}
          className="group-focus-visible:stroke-[4px]"
          fill={pressed ? 'var(--oak)' : 'var(--rule)'}
          stroke={pressed ? 'var(--ink)' : 'var(--oak)'}
          strokeWidth="1.5"
        />
      )}
      {!sign && front.length === 2 && (
        <polyline
          points={front.map(([dx, dy]) => `${frame.x(here[0] + dx)},${frame.y(here[1] + dy)}`).join(' ')}
          stroke="var(--ink)"
          strokeWidth="4"
          fill="none"
        />
      )}
      <text
        x={x}
        y={y + 4}
        textAnchor="middle"
        className="font-mono font-semibold text-[0.857rem]"
        fill={pressed ? 'var(--on-oak)' : 'var(--ink)'}
      >
        {item.at + 1}
        {item.inverted ? '−' : ''}
      </text>
    </>
  );
}
