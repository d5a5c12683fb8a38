import { useMemo, useState } from 'react';
import { AxisRule } from '../../lanes/AxisRule';
import { fraction } from '../../lanes/axis';
import { GUTTER, type Line, PADDING, Plot } from '../../lanes/Plot';
import { linear } from '../../model/scale';
import { useSize } from '../../ui/size';
import { useTheme } from '../shell/theme';

interface Props {
  label: string;
  frequency: number[];
  lines: (Line & { name: string })[];
  range: readonly [number, number];
  band?: { low: number[]; high: number[] } | null;
  height: number;
}

const LABEL = 15;
/** Where the first line gets its name, as a part of the axis. */
const NAMED_FROM = 0.05;

/** Curves over frequency in a dialog, each named on its line. */
export function Chart({ label, frequency, lines, range, band = null, height }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const theme = useTheme();
  const whole = useMemo(() => [frequency[0] ?? 10, frequency.at(-1) ?? 500] as const, [frequency]);
  const [zoom, setZoom] = useState<readonly [number, number] | null>(null);
  const span = zoom ?? whole;
  const width = Math.floor(size.width);
  const y = linear(range, [height - PADDING, PADDING]);
  return (
    <figure ref={box} aria-label={label} className="relative m-0">
      {width > 0 && frequency.length > 0 && (
        <>
          <Plot
            width={width}
            height={height}
            frequency={frequency}
            lines={lines}
            range={range}
            span={span}
            band={band}
            limit={null}
            threshold={null}
            theme={theme}
          />
          {named(lines, frequency, span, y, height).map(({ name, colour, left, top }) => (
            <span
              key={name}
              className="pointer-events-none absolute rounded-[2px] bg-paper/85 px-0.5 font-mono text-[11.5px] leading-[13px]"
              style={{ left: GUTTER + left * (width - GUTTER), top, color: `var(${colour})` }}
            >
              {name}
            </span>
          ))}
          <AxisRule from={span[0]} to={span[1]} width={width} cursor={0} onSpan={setZoom} />
          {zoom && (
            <button type="button" className="text-oak underline" onClick={() => setZoom(null)}>
              Show all frequencies
            </button>
          )}
        </>
      )}
    </figure>
  );
}

interface Named {
  name: string;
  colour: string;
  left: number;
  top: number;
}

/** Where each line is named: one after the other along the axis, so that names stand apart. */
function named(
  lines: Props['lines'],
  frequency: number[],
  span: readonly [number, number],
  y: (value: number) => number,
  height: number,
): Named[] {
  const step = 0.6 / Math.max(1, lines.length);
  return lines.flatMap(({ name, mark, values }, row) => {
    const part = NAMED_FROM + step * row;
    const at = frequency.findIndex((one) => fraction(one, ...span) >= part);
    const value = values?.[at];
    if (!name || value === null || value === undefined) return [];
    const top = Math.min(height - LABEL, Math.max(0, y(value) - LABEL));
    return [{ name, colour: mark.colour, left: part, top }];
  });
}
