// The lanes as one picture: a list of strokes and words.

import { OUTLINE } from '../model/mark';
import { noteAt } from '../model/notes';
import { linear, logarithmic, rungs } from '../model/scale';
import { significant } from '../model/units';
import { FILM, LANDMARKS, ticks } from './axis';
import { drawing } from './drawing';
import { type Lane, unitOf } from './lane';
import { type Line, strokeOf } from './line';
import { namedPeaks, peakOf } from './peaks';
import { layRibbon } from './ribbon_pieces';
import type { Shown } from './shown';
import { valueAt } from './trace';

export type Stroke =
  | { kind: 'path'; d: string; stroke?: string; fill?: string; width?: number; dash?: readonly number[] }
  | {
      kind: 'text';
      x: number;
      y: number;
      text: string;
      size: number;
      colour: string;
      anchor?: 'start' | 'middle' | 'end';
      bold?: boolean;
    };

export interface Picture {
  width: number;
  height: number;
  background: string;
  strokes: Stroke[];
}

interface Ask {
  title: string;
  shown: Shown[];
  active: Shown;
  lanes: Lane[];
  span: readonly [number, number];
  ranges: Readonly<Record<string, readonly [number, number]>>;
  cursor: number;
  /** Whether peaks and dips are named. */
  peaks: boolean;
  colour: (name: string) => string;
}

const WIDTH = 1200;
const LEFT = 130;
const RIGHT = 24;
const HEAD = 64;
const SHARE = 120;
const GAP = 16;
/** Right end of the axis. */
const EDGE = WIDTH - RIGHT - 90;

/** Lays out title, legend, every lane, the axis and the readings at the cursor. */
export function pictureOf(ask: Ask): Picture {
  const { colour } = ask;
  const strokes: Stroke[] = [
    { kind: 'text', x: 24, y: 32, text: ask.title, size: 20, colour: colour('--ink'), bold: true },
    ...legend(ask),
  ];
  let top = HEAD;
  for (const lane of ask.lanes) {
    const height = Math.round(SHARE * lane.share);
    strokes.push(...laneStrokes(ask, lane, top, height));
    top += height + GAP;
  }
  strokes.push(...axis(ask, top - GAP), ...ribbon(ask, top + 52));
  return { width: WIDTH, height: top + 86, background: colour('--paper'), strokes };
}

/** What limits the active variant along the axis. */
function ribbon({ active, span, colour }: Ask, top: number): Stroke[] {
  const strokes: Stroke[] = [
    {
      kind: 'text',
      x: 24,
      y: top + 15,
      text: 'What limits it',
      size: 13,
      colour: colour('--ink'),
      bold: true,
    },
  ];
  for (const { left, right, fill, words } of layRibbon(active.report.ribbon, span, [LEFT, EDGE])) {
    const [from, to] = [left.toFixed(1), right.toFixed(1)];
    const d = `M${from} ${top}H${to}V${top + 20}H${from}Z`;
    strokes.push({ kind: 'path', d, fill: colour(fill), stroke: colour('--paper') });
    const middle = (left + right) / 2;
    if (words) strokes.push(note(words, middle, top + 14, colour('--ink'), 'middle'));
  }
  return strokes;
}

function note(
  text: string,
  x: number,
  y: number,
  colour: string,
  anchor: 'start' | 'middle' | 'end' = 'start',
): Stroke {
  return { kind: 'text', x, y, text, size: 11, colour, anchor };
}

function legend({ shown, cursor, colour }: Ask): Stroke[] {
  const words: Stroke[] = [];
  let x = 24;
  for (const { name, mark } of shown) {
    words.push(glyph(mark, x + 5, 50, colour));
    words.push({
      kind: 'text',
      x: x + 16,
      y: 54,
      text: name,
      size: 13,
      colour: colour(mark.colour),
      bold: true,
    });
    x += 40 + name.length * 7.4;
  }
  const at = `values at ${cursor.toFixed(1)} Hz ${noteAt(cursor)}`;
  words.push({
    kind: 'text',
    x: WIDTH - RIGHT,
    y: 54,
    text: at,
    size: 13,
    colour: colour('--soft'),
    anchor: 'end',
  });
  return words;
}

function glyph(mark: Shown['mark'], x: number, y: number, colour: Ask['colour']): Stroke {
  return {
    kind: 'path',
    d: scaled(OUTLINE[mark.glyph], 5, x, y),
    fill: colour(mark.hollow ? '--card' : mark.colour),
    stroke: colour(mark.colour),
    width: 1,
  };
}

/** An outline of absolute moves, lines and arcs, made larger and put to a place. */
function scaled(d: string, size: number, x: number, y: number): string {
  const counts: Record<string, string> = { M: 'xy', L: 'xy', H: 'x', V: 'y', A: 'rr000xy', Z: '' };
  return d.replace(/([MLHVAZ])([^MLHVAZ]*)/g, (_, letter: string, rest: string) => {
    const numbers = rest.match(/-?\d*\.?\d+/g) ?? [];
    const kinds = counts[letter] ?? '';
    const put = numbers.map((number, at) => {
      const kind = kinds[at % Math.max(1, kinds.length)];
      const value = Number(number);
      if (kind === 'x') return (x + size * value).toFixed(1);
      if (kind === 'y') return (y + size * value).toFixed(1);
      return kind === 'r' ? (size * value).toFixed(1) : number;
    });
    return letter + put.join(' ');
  });
}

function laneStrokes(ask: Ask, lane: Lane, top: number, height: number): Stroke[] {
  const { shown, active, span, colour } = ask;
  const { lines, extras, range, limit } = drawing(lane, shown, active, ask.ranges[lane.id]);
  const right = EDGE;
  const x = logarithmic(span, [LEFT, right]);
  const y = linear(range, [top + height, top]);
  const clip = (value: number) => Math.min(top + height, Math.max(top, y(value)));
  const box = `M${LEFT} ${top}H${right}V${top + height}H${LEFT}Z`;
  const strokes: Stroke[] = [{ kind: 'path', d: box, fill: colour('--card') }];
  for (const { frequency: at, named } of ticks(...span)) {
    if (named)
      strokes.push({
        kind: 'path',
        d: `M${x(at).toFixed(1)} ${top}V${top + height}`,
        stroke: colour('--grid'),
      });
  }
  for (const value of rungs(range)) {
    strokes.push({ kind: 'path', d: `M${LEFT} ${y(value).toFixed(1)}H${right}`, stroke: colour('--grid') });
    strokes.push({
      kind: 'text',
      x: LEFT - 6,
      y: y(value) + 4,
      text: significant(value, 3),
      size: 11,
      colour: colour('--soft'),
      anchor: 'end',
    });
  }
  if (limit && limit.from < range[1]) {
    const low = clip(limit.from);
    const lean = low - top;
    const hatch = Array.from({ length: Math.ceil((right - LEFT) / 9) }, (_, k) => {
      const from = LEFT + k * 9;
      const to = Math.min(right, from + lean);
      return `M${from} ${low.toFixed(1)}L${to.toFixed(1)} ${(low - (to - from)).toFixed(1)}`;
    });
    strokes.push({
      kind: 'path',
      d: `${hatch.join('')}M${LEFT} ${low.toFixed(1)}H${right}`,
      stroke: colour('--short'),
      width: 0.7,
    });
    strokes.push({
      kind: 'text',
      x: LEFT + 6,
      y: low - 4,
      text: `${limit.label} ${significant(limit.from, 3)}`,
      size: 11,
      colour: colour('--short'),
    });
  }
  if (lane.line && lane.line.at < range[1]) {
    const { at, label } = lane.line;
    const d = `M${LEFT} ${y(at).toFixed(1)}H${right}`;
    strokes.push({ kind: 'path', d, stroke: colour('--short'), dash: [2, 3] });
    strokes.push(note(`${at} ${label}`, right - 6, y(at) - 4, colour('--short'), 'end'));
  }
  for (const line of lines) {
    const d = polyline(line, span, x, y, [top, top + height]);
    const stroke = strokeOf(line);
    if (d)
      strokes.push({
        kind: 'path',
        d,
        stroke: colour(stroke.colour),
        width: stroke.width,
        dash: stroke.dash,
      });
  }
  for (const { label, line } of extras) {
    const { part, value } = peakOf(line, range, span);
    const place = Math.min(right - label.length * 6 - 6, LEFT + (right - LEFT) * part);
    if (value > range[0])
      strokes.push(note(label, Math.max(LEFT + 6, place), y(value) - 4, colour('--soft')));
  }
  const main = lines[shown.indexOf(active)];
  if (ask.peaks && main) {
    for (const { at, value, kind } of namedPeaks(main, span, range)) {
      const words = `${value.toFixed(lane.decimals)} ${unitOf(lane)} · ${significant(at, 3)} Hz`;
      const place = Math.min(right - 60, Math.max(LEFT + 60, x(at)));
      strokes.push(note(words, place, clip(value) + (kind === 'dip' ? 14 : -6), colour('--ink'), 'middle'));
    }
  }
  shown.forEach((one, row) => {
    const line = lines[row];
    const value = line ? valueAt(line, ask.cursor) : null;
    strokes.push(glyph(one.mark, right + 16, top + 10 + row * 17, colour));
    const text = value === null ? '–' : value.toFixed(lane.decimals);
    strokes.push({
      kind: 'text',
      x: WIDTH - RIGHT,
      y: top + 14 + row * 17,
      text,
      size: 13,
      colour: colour('--ink'),
      anchor: 'end',
      bold: one === active,
    });
  });
  strokes.push({ kind: 'path', d: box, stroke: colour('--line') });
  strokes.push({
    kind: 'text',
    x: 24,
    y: top + 15,
    text: lane.name,
    size: 14,
    colour: colour('--ink'),
    bold: true,
  });
  strokes.push({ kind: 'text', x: 24, y: top + 32, text: lane.unit, size: 12, colour: colour('--soft') });
  if (ask.cursor >= span[0] && ask.cursor <= span[1]) {
    strokes.push({
      kind: 'path',
      d: `M${x(ask.cursor).toFixed(1)} ${top}v${height}`,
      stroke: colour('--ink'),
    });
  }
  return strokes;
}

/** A line that is cut off at the edges of its lane. */
function polyline(
  { frequency, values }: Line,
  [from, to]: readonly [number, number],
  x: (frequency: number) => number,
  y: (value: number) => number,
  [high, low]: [number, number],
): string {
  let d = '';
  let pen = false;
  frequency.forEach((one, k) => {
    const value = values[k] ?? null;
    const at = value === null ? Number.NaN : y(value);
    const inside = one >= from * 0.999 && one <= to * 1.001 && at >= high && at <= low;
    if (inside) d += `${pen ? 'L' : 'M'}${x(one).toFixed(1)} ${at.toFixed(1)}`;
    pen = inside;
  });
  return d;
}

function axis({ span, colour }: Ask, top: number): Stroke[] {
  const right = EDGE;
  const x = logarithmic(span, [LEFT, right]);
  const strokes: Stroke[] = [
    {
      kind: 'path',
      d: `M${LEFT} ${top + 4}H${right}V${top + 28}H${LEFT}Z`,
      fill: colour('--rule'),
      stroke: colour('--rule-line'),
    },
    { kind: 'text', x: 24, y: top + 21, text: 'Hz', size: 14, colour: colour('--ink'), bold: true },
  ];
  for (const { frequency, named } of ticks(...span)) {
    strokes.push({
      kind: 'path',
      d: `M${x(frequency).toFixed(1)} ${top + 4}v${named ? 9 : 5}`,
      stroke: colour('--rule-line'),
    });
    if (named)
      strokes.push({
        kind: 'text',
        x: x(frequency),
        y: top + 25,
        text: significant(frequency, 3),
        size: 11.5,
        colour: colour('--ink'),
        anchor: 'middle',
      });
  }
  for (const { frequency, label, anchor } of LANDMARKS) {
    if (frequency < span[0] || frequency > span[1]) continue;
    strokes.push({ kind: 'path', d: `M${x(frequency).toFixed(1)} ${top + 29}v5`, stroke: colour('--plum') });
    strokes.push({
      kind: 'text',
      x: x(frequency),
      y: top + 46,
      text: label,
      size: 11.5,
      colour: colour('--plum'),
      anchor,
    });
  }
  const film = [Math.max(span[0], FILM.from), Math.min(span[1], FILM.to)] as const;
  if (film[1] > film[0]) {
    strokes.push({ kind: 'path', d: `M${x(film[0])} ${top + 52}H${x(film[1])}`, stroke: colour('--plum') });
    strokes.push({
      kind: 'text',
      x: x(film[1]) + 5,
      y: top + 56,
      text: FILM.label,
      size: 11.5,
      colour: colour('--plum'),
    });
  }
  return strokes;
}
