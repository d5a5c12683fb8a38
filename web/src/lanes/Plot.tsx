import { useLayoutEffect, useRef } from 'react';
import uPlot from 'uplot';
import 'uplot/dist/uPlot.min.css';
import type { Mark } from '../model/mark';
import { ticks } from './axis';
import { Backdrop } from './backdrop';
import { band, colour, curve, hatch, marks, threshold } from './paint';

/** Width left of every plot for the numbers of its axis, px. */
export const GUTTER = 40;
export const PADDING = 7;

export interface Line {
  place: number;
  mark: Mark;
  strong: boolean;
  /** Belongs to the active variant beside its main line; drawn thin and without marks. */
  secondary: boolean;
  values: (number | null)[] | null;
}

interface Props {
  width: number;
  height: number;
  frequency: number[];
  lines: Line[];
  range: readonly [number, number];
  /** Lowest and highest frequency on show, Hz. */
  span: readonly [number, number];
  /** An area around the first line that its real value may lie in. */
  band?: { low: number[]; high: number[] } | null;
  limit: number | null;
  threshold: number | null;
  theme: string;
}

/** One lane's curves. */
export function Plot(props: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const plot = useRef<uPlot | null>(null);
  const latest = useRef(props);
  latest.current = props;
  const { width, height, frequency, lines, theme } = props;
  const made = `${theme} ${lines.map((line) => `${line.place}${line.strong}${line.secondary}`).join()}`;

  // biome-ignore lint/correctness/useExhaustiveDependencies: `made` says when the lines need making anew
  useLayoutEffect(() => {
    if (!holder.current) return undefined;
    const next = new uPlot(options(latest.current, latest), data(latest.current), holder.current);
    plot.current = next;
    return () => {
      plot.current = null;
      next.destroy();
    };
  }, [made]);

  useLayoutEffect(() => {
    plot.current?.setSize({ width, height });
  }, [width, height]);

  const drawn = useRef<unknown[]>([]);
  useLayoutEffect(() => {
    const next = [
      frequency,
      ...props.range,
      ...props.span,
      props.band,
      props.limit,
      props.threshold,
      ...lines.map((line) => line.values),
    ];
    const changed =
      next.length !== drawn.current.length || next.some((item, at) => item !== drawn.current[at]);
    drawn.current = next;
    if (changed) plot.current?.setData(data(props));
  });

  return <div ref={holder} aria-hidden="true" />;
}

/** Whether a line is of the variant that is worked on. */
function moves({ strong, secondary }: Line): boolean {
  return strong || secondary;
}

function data({ frequency, lines }: Props): uPlot.AlignedData {
  return [frequency, ...lines.map((line) => line.values ?? frequency.map(() => null))];
}

function options(props: Props, latest: { current: Props }): uPlot.Options {
  const backdrop = new Backdrop();
  const named = () =>
    ticks(...latest.current.span)
      .filter((tick) => tick.named)
      .map((tick) => tick.frequency);
  const grid = { stroke: colour('--grid'), width: 1 };
  return {
    width: props.width,
    height: props.height,
    padding: [PADDING, 0, PADDING, 0],
    cursor: { show: false },
    legend: { show: false },
    scales: {
      x: { time: false, distr: 3, range: () => [...latest.current.span] },
      y: { range: () => [...latest.current.range] },
    },
    axes: [
      {
        size: 0,
        grid,
        ticks: { show: false },
        splits: named,
        filter: (_, splits) => splits,
        values: (_, splits) => splits.map(() => ''),
      },
      {
        size: GUTTER,
        gap: 5,
        grid,
        ticks: { show: false },
        stroke: colour('--soft'),
        font: '12px "Atkinson Hyperlegible Mono Variable"',
        space: 22,
      },
    ],
    series: [
      {},
      ...props.lines.map((line) => ({
        stroke: colour(line.mark.colour),
        width: line.secondary ? 1 : 2.2,
        dash: line.secondary ? [3, 3] : line.mark.dash,
        points: { show: false },
        spanGaps: false,
        // Those that stand still are in the backdrop.
        ...(moves(line) ? {} : { paths: () => null }),
      })),
    ],
    hooks: {
      drawClear: [
        ({ ctx, bbox }) => {
          ctx.fillStyle = colour('--card');
          ctx.fillRect(bbox.left, bbox.top, bbox.width, bbox.height);
        },
      ],
      drawAxes: [
        (plot) => {
          const { limit, threshold: at, band: area, lines, span, range, theme } = latest.current;
          const still = lines.filter((line) => !moves(line));
          const grid = plot.data[0];
          const of: unknown[] = [theme, limit, at, ...span, ...range, grid.length, grid[0], grid.at(-1)];
          for (const { values, mark, place } of still) of.push(values, mark, place);
          backdrop.lay(plot.ctx, of, (ctx) => {
            if (limit !== null) hatch(ctx, plot, limit);
            if (at !== null) threshold(ctx, plot, at);
            for (const line of still) {
              curve(ctx, plot, line);
              marks(ctx, plot, line, span);
            }
          });
          if (area) band(plot, area, lines[0]?.mark.colour ?? '--oak');
        },
      ],
      draw: [
        (plot) => {
          const { lines, span } = latest.current;
          for (const line of lines) {
            if (line.strong) marks(plot.ctx, plot, line, span);
          }
          const { ctx, bbox } = plot;
          ctx.setLineDash([]);
          ctx.strokeStyle = colour('--line');
          ctx.lineWidth = devicePixelRatio;
          ctx.strokeRect(bbox.left, bbox.top, bbox.width, bbox.height);
        },
      ],
    },
  };
}
