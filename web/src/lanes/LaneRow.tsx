import { type ReactNode, useMemo } from 'react';
import { linear, logarithmic } from '../model/scale';
import { significant } from '../model/units';
import { MarkGlyph } from '../ui/MarkGlyph';
import { frequencyAt } from './axis';
import { drawing } from './drawing';
import { LaneMenu } from './LaneMenu';
import { EndLabels, ExtraLabels, Note, PeakLabels } from './labels';
import { type Lane, mainOf, unitOf } from './lane';
import { GUTTER, PADDING } from './line';
import { Plot } from './Plot';
import type { LanePlace } from './place';
import type { Shown } from './shown';
import { phaseAt, valueAt } from './trace';

export interface Columns {
  /** Widths of the names and of the readings; no names are told within the plot. */
  names: number;
  readout: number;
}

interface Props {
  lane: Lane;
  /** Null where it is folded. */
  height: number | null;
  width: number;
  columns: Columns;
  shown: Shown[];
  active: Shown;
  /** Where the cursor stands, Hz. */
  frequency: number;
  span: readonly [number, number];
  own: readonly [number, number] | undefined;
  peaks: boolean;
  order: readonly string[];
  theme: string;
  /** What is laid over it. */
  over?: ((place: LanePlace) => ReactNode) | undefined;
  /** Whether it always stands open: the page is about it. */
  pinned?: boolean;
}

export const FOLDED = 24;

/** One lane: its name, its curves, and what they are at the cursor. */
export function LaneRow(props: Props) {
  const { lane, height, columns } = props;
  const name = (
    <LaneMenu
      lane={lane}
      order={props.order}
      folded={height === null}
      pinned={props.pinned ?? false}
      range={props.own}
    />
  );
  if (height === null) {
    return (
      <section aria-label={lane.name} className="flex items-center" style={{ height: FOLDED }}>
        {name}
        <span className="ml-2 h-px flex-1 bg-line" />
      </section>
    );
  }
  return (
    <section aria-label={lane.name} className="relative flex" style={{ height }}>
      <header
        className={
          columns.names
            ? 'shrink-0 pt-1 pr-1'
            : 'absolute top-1.5 left-10 z-10 flex items-baseline gap-1.5 bg-paper/80 px-1'
        }
        style={columns.names ? { width: columns.names } : {}}
      >
        {name}
        <p className="text-[0.893rem] text-soft leading-tight">{lane.unit}</p>
      </header>
      <Curves {...props} height={height} />
    </section>
  );
}

function Curves({
  lane,
  height,
  width,
  columns,
  shown,
  active,
  frequency,
  span,
  own,
  peaks,
  theme,
  over,
}: Props & { height: number }) {
  // Moving the cursor changes none of this.
  const { lines, extras, range, limit } = useMemo(
    () => drawing(lane, shown, active, own),
    [lane, shown, active, own],
  );
  const y = linear(range, [height - PADDING, PADDING]);
  const x = logarithmic(span, [GUTTER, width]);
  // Many readings stand closer, so that they stay within their lane.
  const line = Math.min(17, Math.floor((height - 5) / shown.length));
  const main = lines[shown.indexOf(active)];
  return (
    <>
      <div className="relative overflow-hidden" style={{ width }}>
        <Plot
          width={width}
          height={height}
          lines={lines}
          range={range}
          span={span}
          limit={limit && limit.from < range[1] ? limit.from : null}
          threshold={lane.line?.at ?? null}
          theme={theme}
        />
        {limit && limit.from < range[1] && (
          <Note at={Math.max(PADDING, y(limit.from) - 17)} side={columns.names ? 'left' : 'right'}>
            {limit.label} {significant(limit.from, 3)}
          </Note>
        )}
        {lane.line && lane.line.at < range[1] && (
          <Note at={y(lane.line.at) - 16} side="right">
            {lane.line.at} {lane.line.label}
          </Note>
        )}
        <ExtraLabels extras={extras} span={span} range={range} width={width} y={y} />
        {peaks && main && (
          <PeakLabels
            line={main}
            span={span}
            range={range}
            unit={unitOf(lane)}
            decimals={lane.decimals}
            x={(at) => Math.min(width - 62, Math.max(GUTTER + 58, x(at)))}
            y={y}
            height={height}
          />
        )}
        {over?.({
          lane: lane.id,
          span,
          width,
          height,
          x,
          frequency: (px) => frequencyAt((px - GUTTER) / (width - GUTTER), ...span),
          y,
          perUnit: (height - 2 * PADDING) / (range[1] - range[0]),
          at: (frequency) => (main ? valueAt(main, frequency) : null),
        })}
        {lane.id === 'level' && <EndLabels shown={shown} lines={lines} end={span[1]} y={y} height={height} />}
      </div>
      <dl
        className={`shrink-0 pt-1 pl-2 font-mono ${line < 14 ? 'text-[0.857rem]' : 'text-[0.929rem]'}`}
        style={{ width: columns.readout }}
      >
        {shown.map((one, row) => {
          const line = lines[row];
          const value = line ? valueAt(line, frequency) : null;
          return (
            <div key={one.id} className="flex items-center gap-1.5" style={{ lineHeight: `${line}px` }}>
              <dt className="flex">
                <MarkGlyph mark={one.mark} />
                <span className="sr-only">{one.name}</span>
              </dt>
              <dd className={`flex-1 text-right ${one.id === active.id ? 'font-bold' : ''}`}>
                {value === null ? '–' : value.toFixed(lane.decimals)}
                {value !== null && lane.beside && columns.names > 0 && (
                  <span className="ml-1 font-normal text-soft">{lane.beside(value, one)}</span>
                )}
                {lane.phase && columns.names > 0 && (
                  <span className="ml-1 font-normal text-soft">{phaseAt(mainOf(lane, one), frequency)}</span>
                )}
              </dd>
            </div>
          );
        })}
      </dl>
    </>
  );
}
