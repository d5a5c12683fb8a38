import { useMemo, useState } from 'react';
import { AxisRule } from '../../lanes/AxisRule';
import { frequencyAt } from '../../lanes/axis';
import { type Band, GUTTER, type Line, PADDING } from '../../lanes/line';
import { Plot } from '../../lanes/Plot';
import { valueAt } from '../../lanes/trace';
import { linear } from '../../model/scale';
import { useSize } from '../../ui/size';
import { useTheme } from '../shell/theme';

interface Props {
  label: string;
  lines: (Line & { name: string })[];
  range: readonly [number, number];
  band?: Band | null;
  height: number;
}

const LABEL = 15;
/** Where the first line gets its name, as a part of the axis. */
const NAMED_FROM = 0.05;

/** Curves over frequency in a dialog, each named on its line. */
export function Chart({ label, lines, range, band = null, height }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const theme = useTheme();
  const frequency = lines[0]?.frequency;
  const whole = useMemo(() => [frequency?.[0] ?? 10, frequency?.at(-1) ?? 500] as const, [frequency]);
  const [zoom, setZoom] = useState<readonly [number, number] | null>(null);
  const span = zoom ?? whole;
  const width = Math.floor(size.width);
  const y = linear(range, [height - PADDING, PADDING]);
  return (
    <figure ref={box} aria-label={label} className="relative m-0">
      {width > 0 && frequency && (
        <>
          <Plot
            width={width}
            height={height}
            lines={lines}
            range={range}
            span={span}
            band={band}
            limit={null}
            threshold={null}
            theme={theme}
          />
          {named(lines, span, y, height).map(({ name, colour, left, top }) => (
            <span
              key={name}
              className="pointer-events-none absolute rounded-[2px] bg-paper/85 px-0.5 font-mono text-[0.821rem] leading-[13px]"
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
  span: readonly [number, number],
  y: (value: number) => number,
  height: number,
): Named[] {
  const step = 0.6 / Math.max(1, lines.length);
  return lines.flatMap((line, row) => {
    const { name, mark } = line;
    const part = NAMED_FROM + step * row;
    const value = valueAt(line, frequencyAt(part, ...span));
    if (!name || value === null) return [];
    const top = Math.min(height - LABEL, Math.max(0, y(value) - LABEL));
    return [{ name, colour: mark.colour, left: part, top }];
  });
}
