// Words on the curves.

import type { ReactNode } from 'react';
import { significant } from '../model/units';
import { MarkGlyph } from '../ui/MarkGlyph';
import { GUTTER, type Line, PADDING } from './line';
import { namedPeaks, peakOf } from './peaks';
import type { Shown } from './shown';
import { valueAt } from './trace';

/** A line that stays below this share of its lane gets no name: there is no room for one. */
const LEAST_HEIGHT = 0.15;

/** A line beside the main one, with its name. */
interface Extra {
  label: string;
  line: Line;
}

interface ExtraProps {
  span: readonly [number, number];
  extras: Extra[];
  range: readonly [number, number];
  width: number;
  y: (value: number) => number;
}

const LETTER = 6.4;

/** The names of further lines, each where its line is highest within the lane, moved aside where two meet. */
export function ExtraLabels({ span, extras, range, width, y }: ExtraProps) {
  let free = GUTTER + 4;
  return extras
    .map((extra) => ({ label: extra.label, ...peakOf(extra.line, range, span) }))
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
          className="pointer-events-none absolute rounded-[2px] bg-paper/80 px-1 text-[0.857rem] text-soft leading-[14px]"
          style={{ top: Math.max(PADDING, y(value) - 15), left }}
        >
          {label}
        </span>
      );
    });
}

export function Note({ at, side, children }: { at: number; side: 'left' | 'right'; children: ReactNode }) {
  return (
    <span
      className="pointer-events-none absolute rounded-[2px] bg-paper/85 px-1 text-[0.857rem] text-short leading-[15px]"
      style={{ top: at, ...(side === 'left' ? { left: GUTTER + 6 } : { right: 6 }) }}
    >
      {children}
    </span>
  );
}

interface EndProps {
  shown: Shown[];
  lines: Line[];
  /** The highest frequency on show, Hz. */
  end: number;
  y: (value: number) => number;
  height: number;
}

const LABEL_HEIGHT = 16;

/** The variants' names at the ends of their lines, moved apart where the lines end together. */
export function EndLabels({ shown, lines, end, y, height }: EndProps) {
  const ends = shown
    .map((one, row) => ({ one, at: y(lastOf(lines[row], end)) + 4 }))
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
      className="pointer-events-none absolute right-1.5 flex max-w-40 items-center gap-1 rounded-[2px] bg-paper/80 px-1 text-[0.857rem] leading-[15px]"
      style={{ top, color: `var(${one.mark.colour})` }}
    >
      <MarkGlyph mark={one.mark} size={10} />
      <span className="truncate font-semibold">{one.name}</span>
    </span>
  ));
}

/** Where a line ends at the right of what is on show. */
function lastOf(line: Line | undefined, end: number): number {
  return (line && (valueAt(line, end) ?? line.values.at(-1))) ?? 0;
}

interface PeakProps {
  line: Line;
  /** Lowest and highest frequency on show, Hz. */
  span: readonly [number, number];
  range: readonly [number, number];
  unit: string;
  decimals: number;
  x: (frequency: number) => number;
  y: (value: number) => number;
  height: number;
}

/** Names peaks and dips of the active variant. */
export function PeakLabels(props: PeakProps) {
  const { line, span, range, unit, decimals, x, y, height } = props;
  return namedPeaks(line, span, range).map(({ at, value, kind }) => {
    const below = kind === 'dip' || y(value) < PADDING + 18;
    return (
      <span
        key={at}
        className="pointer-events-none absolute -translate-x-1/2 whitespace-nowrap rounded-[2px] bg-paper/85 px-1 font-mono text-[0.821rem] text-ink leading-[14px]"
        style={{ left: x(at), top: Math.min(height - 20, Math.max(2, y(value) + (below ? 4 : -18))) }}
      >
        {`${value.toFixed(decimals)} ${unit} · ${significant(at, 3)} Hz`}
      </span>
    );
  });
}
