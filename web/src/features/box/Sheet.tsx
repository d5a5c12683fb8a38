import { type ReactNode, useState } from 'react';
import { inWords } from '../../model/preferences';
import type { DrawingReport, WaveReport } from '../../schema/types';
import { Patterns } from '../../section/Patterns';
import { usePreferences } from '../../ui/observed';
import { useSize } from '../../ui/size';
import { type Fit, GAP, grouped, type PartShapes, ROW, scaled } from './sheet';

interface Props {
  drawing: DrawingReport;
  /** A standing wave laid over the side section, with the room it fills: back and floor, front and ceiling, m. */
  wave: { wave: WaveReport; from: [number, number]; to: [number, number] } | null;
  selected: string;
  onSelect: (part: string) => void;
}

/** A drawing of the box to scale; each part can be chosen. */
export function Sheet({ drawing, wave, selected, onSelect }: Props) {
  const [holder, size] = useSize<HTMLDivElement>();
  usePreferences();
  const fitted = scaled(drawing, size.width, size.height);
  return (
    <div ref={holder} className="h-full min-h-64 overflow-hidden">
      {size.width > 0 && (
        // biome-ignore lint/a11y/useSemanticElements: a drawing that holds buttons
        <svg width={size.width} height={size.height} role="group" aria-label={`${drawing.name} of the box`}>
          <Patterns />
          {grouped(drawing).map((shapes, at) => (
            <Chosen
              // biome-ignore lint/suspicious/noArrayIndexKey: equal parts have equal names, and keep their order
              key={at}
              shapes={shapes}
              selected={selected === shapes.part}
              onSelect={onSelect}
            >
              <Shapes shapes={shapes} fitted={fitted} />
              {wave && shapes.part === 'chamber' && <Wave {...wave} fitted={fitted} />}
            </Chosen>
          ))}
          {drawing.measures.map((measure, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: measures keep their order
            <Measure key={at} measure={measure} fitted={fitted} />
          ))}
          {drawing.labels.map(({ at, words }) => (
            <text
              key={words}
              x={fitted.x(at[0] ?? 0)}
              y={fitted.y(at[1] ?? 0)}
              textAnchor="middle"
              fontSize="12.5"
              fill="var(--ink)"
              stroke="var(--paper)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {words}
            </text>
          ))}
        </svg>
      )}
    </div>
  );
}

const LOOKS: Record<string, { fill: string; stroke: string; dash?: string }> = {
  cut: { fill: 'url(#grain)', stroke: 'var(--rule-line)' },
  seen: { fill: 'var(--card)', stroke: 'var(--rule-line)' },
  hidden: { fill: 'none', stroke: 'var(--soft)', dash: '6 4' },
  air: { fill: 'var(--paper)', stroke: 'var(--river)' },
  metal: { fill: 'var(--cone)', stroke: 'var(--ink)' },
  fill: { fill: 'url(#wool)', stroke: 'var(--rule-line)', dash: '2 3' },
  middle: { fill: 'none', stroke: 'var(--short)', dash: '12 3 2 3' },
};

interface ChosenProps {
  shapes: PartShapes;
  selected: boolean;
  onSelect: (part: string) => void;
  children: ReactNode;
}

function Chosen({ shapes: { part, opens }, selected, onSelect, children }: ChosenProps) {
  const [focused, setFocused] = useState(false);
  if (!opens) return <g className="pointer-events-none">{children}</g>;
  return (
    // biome-ignore lint/a11y/useSemanticElements: there is no button element inside a drawing
    <g
      role="button"
      tabIndex={0}
      aria-label={`${part[0]?.toUpperCase()}${part.slice(1)}`}
      aria-pressed={selected}
      className={`cursor-pointer outline-offset-2 hover:opacity-80 ${selected || focused ? '[&>*]:stroke-[2.5]' : ''}`}
      onFocus={() => setFocused(true)}
      onBlur={() => setFocused(false)}
      onClick={() => onSelect(part)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onSelect(part);
      }}
    >
      {children}
    </g>
  );
}

function Shapes({ shapes: { strokes, rings }, fitted }: { shapes: PartShapes; fitted: Fit }) {
  return (
    <>
      {strokes.map(({ line, points, closed }, at) => {
        const look = LOOKS[line] ?? LOOKS.seen;
        const path = points.map(([x = 0, y = 0]) => `${fitted.x(x).toFixed(2)} ${fitted.y(y).toFixed(2)}`);
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: strokes keep their order
            key={at}
            d={`M${path.join('L')}${closed ? 'Z' : ''}`}
            fill={look?.fill}
            stroke={look?.stroke}
            strokeDasharray={look?.dash}
          />
        );
      })}
      {rings.map(({ line, middle, radius }, at) => {
        const look = LOOKS[line] ?? LOOKS.seen;
        return (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: rings keep their order
            key={at}
            cx={fitted.x(middle[0] ?? 0)}
            cy={fitted.y(middle[1] ?? 0)}
            r={radius * fitted.scale}
            fill={line === 'hidden' ? 'none' : look?.fill}
            stroke={look?.stroke}
            strokeDasharray={look?.dash}
          />
        );
      })}
    </>
  );
}

function Wave({ wave, from, to, fitted }: NonNullable<Props['wave']> & { fitted: Fit }) {
  const rows = wave.picture.length;
  const columns = wave.picture[0]?.length ?? 0;
  const [width, height] = [(to[0] - from[0]) / columns, (to[1] - from[1]) / rows];
  return (
    <g className="pointer-events-none" shapeRendering="crispEdges">
      {wave.picture.flatMap((row, up) =>
        row.map((pressure, along) => (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: a raster
            key={`${up} ${along}`}
            x={fitted.x(from[0] + along * width)}
            y={fitted.y(from[1] + (up + 1) * height)}
            width={width * fitted.scale}
            height={height * fitted.scale}
            fill={pressure > 0 ? 'var(--oak)' : 'var(--river)'}
            opacity={0.65 * Math.abs(pressure)}
          />
        )),
      )}
    </g>
  );
}

function Measure({ measure, fitted }: { measure: DrawingReport['measures'][number]; fitted: Fit }) {
  const { upright, row } = measure;
  const [from = 0, to = 0] = measure.between;
  const text = inWords(`${Math.round((to - from) * 1e4) / 10} mm`);
  const away = GAP + ROW * row;
  if (upright) {
    const x = fitted.left - away;
    const [low, high] = [fitted.y(from), fitted.y(to)];
    return (
      <g className="pointer-events-none">
        <path d={`M${x - 4} ${low}h8m-4 0V${high}m-4 0h8`} fill="none" stroke="var(--soft)" />
        <text
          transform={`translate(${x - 5} ${(low + high) / 2}) rotate(-90)`}
          textAnchor="middle"
          fontSize="12"
          fill="var(--soft)"
          className="font-mono"
        >
          {text}
        </text>
      </g>
    );
  }
  const y = fitted.bottom + away;
  const [left, right] = [fitted.x(from), fitted.x(to)];
  return (
    <g className="pointer-events-none">
      <path d={`M${left} ${y - 4}v8m0 -4H${right}m0 -4v8`} fill="none" stroke="var(--soft)" />
      <text
        x={(left + right) / 2}
        y={y + 14}
        textAnchor="middle"
        fontSize="12"
        fill="var(--soft)"
        className="font-mono"
      >
        {text}
      </text>
    </g>
  );
}
