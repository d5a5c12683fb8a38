import { useEffect, useRef } from 'react';
import type { LevelMap } from '../../schema/types';
import type { Frame } from './frame';

interface Props {
  map: LevelMap;
  frame: Frame;
  theme: string;
}

/** From the loudest spot down to where nothing is painted any more, dB. */
export const DEPTH = 24;

/** The loudest spot of a map, dB. */
export const loudestOf = ({ levels }: LevelMap): number => Math.max(...levels.flat());

/** How loud a frequency is everywhere, painted under the plan: the louder the darker. */
export function LevelPicture({ map, frame, theme }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { low, high, levels } = map;
  const [left, top] = [frame.x(low[0] ?? 0), frame.y(high[1] ?? 0)];
  const [width, height] = [
    ((high[0] ?? 0) - (low[0] ?? 0)) * frame.scale,
    ((high[1] ?? 0) - (low[1] ?? 0)) * frame.scale,
  ];
  const loudest = loudestOf(map);
  useEffect(() => {
    const drawn = canvas.current;
    const context = drawn?.getContext('2d');
    if (!drawn || !context || !theme) return;
    const [rows, columns] = [levels.length, levels[0]?.length ?? 0];
    drawn.width = columns;
    drawn.height = rows;
    const oak = getComputedStyle(document.documentElement).getPropertyValue('--oak');
    context.clearRect(0, 0, columns, rows);
    context.fillStyle = oak;
    levels.forEach((row, y) => {
      row.forEach((level, x) => {
        context.globalAlpha = 0.55 * Math.max(0, 1 - (loudest - level) / DEPTH);
        // Rows stand from below up.
        context.fillRect(x, rows - 1 - y, 1, 1);
      });
    });
  }, [levels, loudest, theme]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`Level at ${map.frequency} Hz: up to ${loudest.toFixed(0)} dB, painted down to ${(loudest - DEPTH).toFixed(0)} dB`}
      className="absolute"
      style={{ left, top, width, height }}
    />
  );
}
