// What is painted on the canvas of a lane beside uPlot's own lines.

import type uPlot from 'uplot';
import { type Mark, OUTLINE } from '../model/mark';
import { frequencyAt } from './axis';
import { type Band, type Line, strokeOf } from './line';
import { valueAt } from './trace';

const colours = { theme: '', known: new Map<string, string>() };

/** A colour of the theme in use. */
export function colour(name: string): string {
  const theme = document.documentElement.dataset.theme ?? '';
  if (theme !== colours.theme) Object.assign(colours, { theme, known: new Map() });
  let value = colours.known.get(name);
  if (!value) {
    value = getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    colours.known.set(name, value);
  }
  return value;
}

/** Hatches everything from a value upwards. */
export function hatch(ctx: CanvasRenderingContext2D, plot: uPlot, from: number): void {
  const { bbox } = plot;
  const bottom = Math.min(bbox.top + bbox.height, plot.valToPos(from, 'y', true));
  if (bottom <= bbox.top) return;
  const gap = 7 * devicePixelRatio;
  ctx.save();
  ctx.beginPath();
  ctx.rect(bbox.left, bbox.top, bbox.width, bottom - bbox.top);
  ctx.clip();
  ctx.strokeStyle = colour('--short');
  ctx.lineWidth = devicePixelRatio;
  ctx.globalAlpha = 0.3;
  ctx.beginPath();
  const height = bottom - bbox.top;
  for (let x = bbox.left - height; x < bbox.left + bbox.width; x += gap) {
    ctx.moveTo(x, bottom);
    ctx.lineTo(x + height, bbox.top);
  }
  ctx.stroke();
  ctx.globalAlpha = 0.9;
  ctx.beginPath();
  ctx.moveTo(bbox.left, bottom);
  ctx.lineTo(bbox.left + bbox.width, bottom);
  ctx.stroke();
  ctx.restore();
}

/** Fills between two lines. */
export function band(plot: uPlot, { frequency, low, high }: Band, name: string): void {
  const { ctx, bbox } = plot;
  const at = (values: readonly number[], k: number): [number, number] => [
    plot.valToPos(frequency[k] ?? 1, 'x', true),
    plot.valToPos(values[k] ?? 0, 'y', true),
  ];
  ctx.save();
  ctx.beginPath();
  ctx.rect(bbox.left, bbox.top, bbox.width, bbox.height);
  ctx.clip();
  ctx.beginPath();
  for (let k = 0; k < frequency.length; k += 1) ctx.lineTo(...at(high, k));
  for (let k = frequency.length - 1; k >= 0; k -= 1) ctx.lineTo(...at(low, k));
  ctx.closePath();
  ctx.globalAlpha = 0.22;
  ctx.fillStyle = colour(name);
  ctx.fill();
  ctx.restore();
}

/** A dotted line at a value. */
export function threshold(ctx: CanvasRenderingContext2D, plot: uPlot, at: number): void {
  const { bbox } = plot;
  const y = plot.valToPos(at, 'y', true);
  if (y < bbox.top || y > bbox.top + bbox.height) return;
  ctx.save();
  ctx.strokeStyle = colour('--short');
  ctx.lineWidth = devicePixelRatio;
  ctx.setLineDash([2 * devicePixelRatio, 3 * devicePixelRatio]);
  ctx.beginPath();
  ctx.moveTo(bbox.left, y);
  ctx.lineTo(bbox.left + bbox.width, y);
  ctx.stroke();
  ctx.restore();
}

const outlines = new Map<Mark['glyph'], Path2D>();

function outlineOf(glyph: Mark['glyph']): Path2D {
  const made = outlines.get(glyph) ?? new Path2D(OUTLINE[glyph]);
  outlines.set(glyph, made);
  return made;
}

/** A line over its own frequencies: strong for what is worked on, thin for what stands beside it. */
export function curve(ctx: CanvasRenderingContext2D, plot: uPlot, line: Line): void {
  const { bbox } = plot;
  const { frequency, values } = line;
  const stroke = strokeOf(line);
  ctx.save();
  ctx.beginPath();
  ctx.rect(bbox.left, bbox.top, bbox.width, bbox.height);
  ctx.clip();
  ctx.beginPath();
  let broken = true;
  for (let k = 0; k < frequency.length; k += 1) {
    const value = values[k] ?? null;
    if (value !== null) {
      const x = plot.valToPos(frequency[k] as number, 'x', true);
      const y = plot.valToPos(value, 'y', true);
      if (broken) ctx.moveTo(x, y);
      else ctx.lineTo(x, y);
    }
    broken = value === null;
  }
  ctx.strokeStyle = colour(stroke.colour);
  ctx.lineWidth = stroke.width * devicePixelRatio;
  ctx.lineJoin = 'round';
  ctx.setLineDash(stroke.dash.map((length) => length * devicePixelRatio));
  ctx.stroke();
  ctx.restore();
}

/** Puts a variant's mark on its line, at places that no other variant's marks share. */
export function marks(
  ctx: CanvasRenderingContext2D,
  plot: uPlot,
  line: Line,
  span: readonly [number, number],
): void {
  const { mark, place } = line;
  const { bbox } = plot;
  const size = 4.2 * devicePixelRatio;
  for (let stop = 0.06 + 0.05 * (place % 4); stop < 1; stop += 0.2) {
    const frequency = frequencyAt(stop, ...span);
    const value = valueAt(line, frequency);
    if (value === null) continue;
    const y = plot.valToPos(value, 'y', true);
    if (y < bbox.top || y > bbox.top + bbox.height) continue;
    const x = plot.valToPos(frequency, 'x', true);
    ctx.save();
    ctx.translate(x, y);
    ctx.scale(size, size);
    const outline = outlineOf(mark.glyph);
    ctx.fillStyle = colour(mark.hollow ? '--card' : mark.colour);
    ctx.fill(outline);
    ctx.lineWidth = 0.4;
    ctx.strokeStyle = colour(mark.hollow ? mark.colour : '--card');
    ctx.stroke(outline);
    ctx.restore();
  }
}
