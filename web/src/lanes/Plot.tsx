import { useLayoutEffect, useRef } from 'react';
import uPlot from 'uplot';
import 'uplot/dist/uPlot.min.css';
import { ticks } from './axis';
import { Backdrop } from './backdrop';
import { type Band, GUTTER, type Line, PADDING } from './line';
import { band, colour, curve, hatch, marks, threshold } from './paint';

interface Props {
  width: number;
  height: number;
  lines: Line[];
  range: readonly [number, number];
  /** Lowest and highest frequency on show, Hz. */
  span: readonly [number, number];
  band?: Band | null;
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
  const { width, height, lines, theme } = props;

  // biome-ignore lint/correctness/useExhaustiveDependencies: colours are read where it is made
  useLayoutEffect(() => {
    if (!holder.current) return undefined;
    const next = new uPlot(options(latest.current, latest), AXES, holder.current);
    plot.current = next;
    return () => {
      plot.current = null;
      next.destroy();
    };
  }, [theme]);

  useLayoutEffect(() => {
    plot.current?.setSize({ width, height });
  }, [width, height]);

  const drawn = useRef<unknown[]>([]);
  useLayoutEffect(() => {
    const next = [
      ...props.range,
      ...props.span,
      props.band,
      props.limit,
      props.threshold,
      ...lines.flatMap((line) => [line.frequency, line.values, line.place, line.strong]),
    ];
    const changed =
      next.length !== drawn.current.length || next.some((item, at) => item !== drawn.current[at]);
    drawn.current = next;
    if (changed) plot.current?.setData(AXES);
  });

  return <div ref={holder} aria-hidden="true" />;
}

/** Whether a line is of the variant that is worked on. */
function moves({ strong, secondary }: Line): boolean {
  return strong || secondary;
}

/** Lines have frequencies of their own and are painted here; of uPlot come scales, axes and grid. */
const AXES: uPlot.AlignedData = [
  [1, 1000],
  [null, null],
];

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
    series: [{}, { points: { show: false } }],
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
          const of: unknown[] = [theme, limit, at, ...span, ...range];
          for (const { frequency, values, mark, place } of still) of.push(frequency, values, mark, place);
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
            if (moves(line)) curve(plot.ctx, plot, line);
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
