import { useState } from 'react';
import { useLevelMap } from '../../api/queries/place';
import { cursor } from '../../model/lane_view';
import { type Axes, type Chosen, sizeOf } from '../../model/places';
import { inWords } from '../../model/preferences';
import type { PlaceReport, RawDesign, RawListeningPlace } from '../../schema/types';
import { Choice } from '../../ui/Choice';
import { useObserved } from '../../ui/observed';
import { useSize } from '../../ui/size';
import { useThrottled } from '../../ui/throttle';
import { type Frame, frameOf, itemsOf } from './frame';
import { DEPTH, LevelPicture, loudestOf } from './LevelPicture';
import { Movable } from './Movable';

interface Props {
  design: RawDesign;
  place: RawListeningPlace;
  report: PlaceReport | undefined;
  chosen: Chosen;
  /** Places that are pointed at in a list, m. */
  ghosts: readonly (readonly number[])[];
  theme: string;
  onChoose: (chosen: Chosen) => void;
  onPreview: (place: RawListeningPlace) => void;
  onCommit: (label: string) => void;
}

/** From above across and along; from the side along and up. */
const VIEWS: Record<'above' | 'side', Axes> = { above: [0, 1], side: [1, 2] };
/** Frequencies that a place is looked at, Hz. */
const SPAN = [10, 200] as const;
/** How long the map waits for the cursor to rest, ms. */
const REST = 120;

/** The place to scale, with cabinets and seats that can be dragged, and how loud the frequency at the cursor is everywhere. */
export function Plan(props: Props) {
  const { design, place, report, chosen, ghosts, theme } = props;
  const [view, setView] = useState<'above' | 'side'>('above');
  const [mapped, setMapped] = useState(true);
  const [box, size] = useSize<HTMLDivElement>();
  const { frequency } = useObserved(cursor);
  const rounded = Number(Math.min(SPAN[1], Math.max(SPAN[0], frequency)).toPrecision(3));
  const asked = useThrottled(rounded, REST);
  const drawn = mapped && view === 'above';
  const map = useLevelMap(design, drawn ? asked : null).data;
  const axes = VIEWS[place.kind === 'outdoors' ? 'above' : view];
  const items = itemsOf(place, report);
  const frame = frameOf(place, items, axes, size);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-3 pb-1">
        {place.kind !== 'outdoors' && (
          <Choice
            label="View"
            value={view}
            options={[
              ['above', 'From above'],
              ['side', 'From the side'],
            ]}
            onChange={setView}
          />
        )}
        {axes[0] === 0 && (
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={mapped} onChange={(event) => setMapped(event.target.checked)} />
            Level at the cursor, {rounded} Hz
            {drawn && map && (
              <span className="text-soft">
                : {loudestOf(map).toFixed(0)} dB where strongest, {(loudestOf(map) - DEPTH).toFixed(0)} dB
                where blank
              </span>
            )}
          </label>
        )}
      </div>
      <div ref={box} className="relative min-h-0 flex-1 overflow-hidden">
        {frame && (
          <>
            {drawn && map && <LevelPicture map={map} frame={frame} theme={theme} />}
            {/* biome-ignore lint/a11y/useSemanticElements: a drawing holds no fieldset */}
            <svg
              width={size.width}
              height={size.height}
              className="absolute inset-0"
              role="group"
              aria-label={`Plan of ${place.name}`}
            >
              <Ground place={place} frame={frame} axes={axes} report={report} />
              {axes[0] === 0 &&
                ghosts.map((at) => (
                  <circle
                    key={at.join()}
                    cx={frame.x(at[0] ?? 0)}
                    cy={frame.y(at[1] ?? 0)}
                    r="13"
                    fill="none"
                    stroke="var(--oak)"
                    strokeWidth="2"
                    strokeDasharray="4 3"
                  />
                ))}
              {items.map((item) => (
                <Movable
                  key={`${item.which}-${item.at}`}
                  item={item}
                  axes={axes}
                  frame={frame}
                  pressed={chosen.which === item.which && chosen.at === item.at}
                  {...props}
                />
              ))}
            </svg>
          </>
        )}
      </div>
      {report?.cabinets.map(({ outside }, at) =>
        outside ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: cabinets have no other name
          <p key={at} role="alert" className="text-short">
            Cabinet {at + 1}: {outside}
          </p>
        ) : null,
      )}
    </div>
  );
}

interface GroundProps {
  place: RawListeningPlace;
  frame: Frame;
  axes: Axes;
  report: PlaceReport | undefined;
}

/** Walls with a rule along two of them; in the open rings of distance. */
function Ground({ place, frame, axes, report }: GroundProps) {
  const size = sizeOf(place);
  const [low, high] = [frame.low, frame.high];
  const ticks = (axis: 0 | 1) => {
    const span = high[axis] - low[axis];
    const step = span > 60 ? 20 : span > 24 ? 5 : span > 3 ? 1 : 0.5;
    const count = Math.floor(span / step + 1e-6);
    const first = Math.ceil(low[axis] / step - 1e-6) * step;
    return Array.from({ length: count + 1 }, (_, k) => first + k * step).filter(
      (at) => at <= high[axis] + 1e-6,
    );
  };
  return (
    <g>
      {size && (
        <rect
          x={frame.x(0)}
          y={frame.y(size[axes[1]])}
          width={size[axes[0]] * frame.scale}
          height={size[axes[1]] * frame.scale}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="3"
        />
      )}
      {axes[0] === 0 &&
        (place.areas ?? []).map((area, at) => {
          const [left, right, below, above] = [area.left, area.right, area.below, area.above].map(
            (typed) => frame.metres(typed) ?? 0,
          ) as [number, number, number, number];
          return (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: areas have no other name
              key={at}
              x={frame.x(left)}
              y={frame.y(above)}
              width={(right - left) * frame.scale}
              height={(above - below) * frame.scale}
              fill="none"
              stroke="var(--rule-line)"
              strokeWidth="1.5"
              strokeDasharray="6 4"
            />
          );
        })}
      {place.kind === 'outdoors' &&
        report?.field?.distances.map(([distance, level]) => {
          const r = (distance ?? 0) * frame.scale;
          const [x, y] = [frame.x(frame.middle[0]), frame.y(frame.middle[1])];
          return r > 40 ? (
            <g key={distance}>
              <circle cx={x} cy={y} r={r} fill="none" stroke="var(--rule-line)" strokeDasharray="2 4" />
              <text
                x={x + r * 0.97 + 3}
                y={y + r * 0.26}
                className="fill-ink font-mono text-[0.786rem]"
                stroke="var(--paper)"
                strokeWidth="3"
                paintOrder="stroke"
              >
                {inWords(`${distance} m`)}, {level?.toFixed(0)} dB
              </text>
            </g>
          ) : null;
        })}
      {ticks(0).map((at) => (
        <g key={`x${at}`} transform={`translate(${frame.x(at)} ${frame.y(low[1])})`}>
          <line y2="5" stroke="var(--ink)" />
          <text y="17" textAnchor="middle" className="fill-soft font-mono text-[0.786rem]">
            {Number(at.toFixed(1))}
          </text>
        </g>
      ))}
      {ticks(1).map((at) => (
        <g key={`y${at}`} transform={`translate(${frame.x(low[0])} ${frame.y(at)})`}>
          <line x2="-5" stroke="var(--ink)" />
          <text x="-8" y="4" textAnchor="end" className="fill-soft font-mono text-[0.786rem]">
            {Number(at.toFixed(1))}
          </text>
        </g>
      ))}
      <text x={frame.x(high[0]) + 4} y={frame.y(low[1]) + 17} className="fill-soft text-[0.786rem]">
        m
      </text>
    </g>
  );
}
