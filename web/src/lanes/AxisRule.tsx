import { type PointerEvent, useState } from 'react';
import { noteAt } from '../model/notes';
import { logarithmic } from '../model/scale';
import { significant } from '../model/units';
import { FILM, frequencyAt, LANDMARKS, ticks } from './axis';
import { GUTTER } from './line';

interface Props {
  from: number;
  to: number;
  width: number;
  cursor: number;
  onSpan: (span: [number, number]) => void;
}

const TAG = 96;
export const AXIS_RULE = 62;
/** What is dragged across is a span from this width on, px. */
const LEAST_DRAG = 12;

/** The frequency axis as a rule, with the notes that builders aim at below it. Drag along it to zoom. */
export function AxisRule({ from, to, width, cursor, onSpan }: Props) {
  const [dragged, setDragged] = useState<[number, number] | null>(null);
  const inner = width - GUTTER;
  const x = logarithmic([from, to], [GUTTER, width]);
  const within = (frequency: number) => frequency >= from && frequency <= to;
  const tag = Math.min(width - TAG, Math.max(GUTTER, x(cursor) - TAG / 2));
  const place = (event: PointerEvent<SVGRectElement>) =>
    Math.min(inner, Math.max(0, event.clientX - event.currentTarget.getBoundingClientRect().left));
  const film = [Math.max(from, FILM.from), Math.min(to, FILM.to)] as const;

  function drop() {
    if (dragged && Math.abs(dragged[1] - dragged[0]) >= LEAST_DRAG) {
      const [a, b] = dragged.map((at) => frequencyAt(at / inner, from, to)) as [number, number];
      onSpan([a, b]);
    }
    setDragged(null);
  }

  return (
    <svg width={width} height={AXIS_RULE} aria-hidden="true" className="block font-mono text-[0.857rem]">
      <rect
        x={GUTTER}
        y="1"
        width={inner}
        height="26"
        fill="var(--rule)"
        stroke="var(--rule-line)"
        className="cursor-col-resize touch-none"
        onPointerDown={(event) => {
          event.stopPropagation();
          event.currentTarget.setPointerCapture(event.pointerId);
          setDragged([place(event), place(event)]);
        }}
        onPointerMove={(event) => {
          if (!dragged) return;
          event.stopPropagation();
          setDragged([dragged[0], place(event)]);
        }}
        onPointerUp={drop}
        onPointerCancel={() => setDragged(null)}
      >
        <title>Drag along the rule to zoom</title>
      </rect>
      <g className="pointer-events-none">
        {dragged && (
          <rect
            x={GUTTER + Math.min(...dragged)}
            y="1"
            width={Math.abs(dragged[1] - dragged[0])}
            height="26"
            fill="var(--oak)"
            opacity="0.35"
          />
        )}
        {ticks(from, to).map(({ frequency, named }) => (
          <g key={frequency}>
            <path d={`M${x(frequency)} 1v${named ? 10 : 5}`} stroke="var(--rule-line)" />
            {named && (
              <text
                x={Math.min(GUTTER + inner - 12, Math.max(GUTTER + 10, x(frequency)))}
                y="22"
                textAnchor="middle"
                fontSize="12"
                fill="var(--ink)"
              >
                {significant(frequency, 3)}
              </text>
            )}
          </g>
        ))}
      </g>
      {LANDMARKS.filter(({ frequency }) => within(frequency)).map(({ frequency, label, meaning, anchor }) => (
        <g key={label}>
          <title>{`${label}, ${meaning}: ${significant(frequency, 4)} Hz`}</title>
          <path d={`M${x(frequency)} 28v6`} stroke="var(--plum)" />
          <text
            x={x(frequency) + { start: -2, middle: 0, end: 2 }[anchor]}
            y="45"
            textAnchor={anchor}
            fontSize="12"
            fill="var(--plum)"
          >
            {label}
          </text>
        </g>
      ))}
      {film[1] > film[0] && (
        <g>
          <title>{`${FILM.label}: ${FILM.from} to ${FILM.to} Hz, common practice`}</title>
          <path d={`M${x(film[0])} 50v6V53H${x(film[1])}m0 -3v6`} fill="none" stroke="var(--plum)" />
          <text x={x(film[1]) + 5} y="57" fontSize="11.5" fill="var(--plum)" className="font-sans">
            {FILM.label}
          </text>
        </g>
      )}
      {within(cursor) && (
        <g transform={`translate(${tag} 3)`} className="pointer-events-none">
          <rect width={TAG} height="22" rx="3" fill="var(--ink)" />
          <text x={TAG / 2} y="15.5" textAnchor="middle" fontSize="13" fontWeight="600" fill="var(--paper)">
            {`${cursor.toFixed(1)} Hz ${noteAt(cursor)}`}
          </text>
        </g>
      )}
    </svg>
  );
}
