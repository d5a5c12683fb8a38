import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { useCabinet } from '../../api/queries/box';
import { inWords } from '../../model/preferences';
import { linear, logarithmic, rungs } from '../../model/scale';
import { fieldAt, readTyped, significant, usualUnit, writeTyped } from '../../model/units';
import { areaAt, inWood, pointsOf, stretchesOf, withBend, withPoint, withPointAdded } from '../../model/way';
import type { OnBench, Workbench } from '../../model/workbench';
import type { RawDesign, Report, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Icon } from '../../ui/Icon';
import { QuantityInput } from '../../ui/QuantityInput';
import { useSize } from '../../ui/size';
import { FOLLOWED, useThrottled } from '../../ui/throttle';

interface Props {
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
}

const HEIGHT = 150;
const LEFT = 46;
const RIGHT = 16;
const RULE = 20;
const TOP = 10;
const STEPS = 24;
/** One press of an arrow key: along (m), and as a share of the area. */
const STEP = { along: 0.01, area: 0.02 };
const PAUSE = 700;

const LENGTH = fieldAt('enclosure.passage.segments.length');
const AREA = fieldAt('enclosure.passage.segments.end');

/** The way of a line or horn as a curve of its area over its length: points and bends are pulled, or typed. */
export function WayCurve({ variant, workbench, report }: Props) {
  const { design, id } = variant;
  const body = useCabinet(useThrottled(design, FOLLOWED)).data;
  const between = body?.fold ? (body.inside[0] ?? null) : null;
  const [box, size] = useSize<HTMLDivElement>();
  const [chosen, choose] = useState(1);
  const points = pointsOf(design);
  const stretches = stretchesOf(design);
  const last = points.at(-1);
  const areas = points.map(({ area }) => area).filter((area) => area > 0);
  const span = useRef<{ long: number; low: number; high: number } | null>(null);
  if (!last || !areas.length) return null;
  const fresh = {
    long: last.at * 1.06,
    low: Math.min(...areas) / 1.6,
    high: Math.max(...areas) * 1.6,
  };
  // The scale stands still while a point is pulled.
  const view = span.current ?? fresh;
  const width = Math.max(200, size.width);
  const bottom = HEIGHT - RULE;
  const x = linear([0, view.long], [LEFT, width - RIGHT]);
  const y = logarithmic([view.low, view.high], [bottom, TOP]);
  const placeAt = linear([LEFT, width - RIGHT], [0, view.long]);
  const areaOf = (py: number) => view.low * (view.high / view.low) ** ((bottom - py) / (bottom - TOP));
  const preview = (next: RawDesign) => workbench.preview(id, next);
  const commit = () => workbench.commit('path');
  const pull = {
    onBegin: () => {
      span.current = fresh;
    },
    onEnd: () => {
      span.current = null;
      commit();
    },
  };
  const picked = points[Math.min(chosen, points.length - 1)] ?? last;
  const d = stretches
    .flatMap((stretch) =>
      Array.from({ length: STEPS + 1 }, (_, k) => {
        const part = k / STEPS;
        const area = Math.max(view.low, areaAt(stretch, part));
        return `${x(stretch.from + (stretch.to - stretch.from) * part).toFixed(1)} ${y(area).toFixed(1)}`;
      }),
    )
    .join('L');
  const ticks = rungs([0, view.long]);
  const driver = report?.figures.passage ? drivers(design) : [];
  return (
    <div className="flex flex-col gap-1.5">
      <div ref={box}>
        {size.width > 0 && (
          // biome-ignore lint/a11y/useSemanticElements: a drawing holds no fieldset
          <svg
            width={width}
            height={HEIGHT}
            className="block touch-none font-mono text-[0.821rem]"
            role="group"
            aria-label="Area along the path"
          >
            <rect
              x={LEFT}
              y={TOP}
              width={width - LEFT - RIGHT}
              height={bottom - TOP}
              fill="var(--card)"
              stroke="var(--line)"
            />
            {squares(view.low, view.high).map((area) => (
              <g key={area}>
                <path d={`M${LEFT} ${y(area)}H${width - RIGHT}`} stroke="var(--grid)" />
                <text x={LEFT - 5} y={y(area) + 4} textAnchor="end" fill="var(--soft)">
                  {significant(area * 1e4, 2)}
                </text>
              </g>
            ))}
            <rect
              x={LEFT}
              y={bottom}
              width={width - LEFT - RIGHT}
              height={RULE - 2}
              fill="var(--rule)"
              stroke="var(--rule-line)"
            />
            {ticks.map((at) => (
              <g key={at}>
                <path d={`M${x(at)} ${bottom}v6`} stroke="var(--rule-line)" />
                <text x={x(at)} y={HEIGHT - 5} textAnchor="middle" fill="var(--ink)">
                  {significant(at, 2)}
                </text>
              </g>
            ))}
            <text x={2} y={HEIGHT - 5} fill="var(--soft)">
              cm²
            </text>
            <text x={width - 12} y={HEIGHT - 5} fill="var(--soft)">
              m
            </text>
            {driver.map(({ at, name }) => (
              <g key={name}>
                <path d={`M${x(at)} ${TOP}V${bottom}`} stroke="var(--soft)" strokeDasharray="3 3" />
                <text x={x(at) + 3} y={TOP + 11} fill="var(--soft)">
                  {name}
                </text>
              </g>
            ))}
            <path d={`M${d}L${x(last.at)} ${bottom}L${x(0)} ${bottom}Z`} fill="var(--oak)" opacity="0.12" />
            <path d={`M${d}`} fill="none" stroke="var(--oak)" strokeWidth="2.2" />
            {stretches.map((stretch, at) => {
              const middle = areaAt(stretch, 0.5);
              return (
                <Grip
                  // biome-ignore lint/suspicious/noArrayIndexKey: segments have no other name
                  key={`bend ${at}`}
                  label={`Bend of segment ${at + 1}`}
                  value={squareCentimetres(middle)}
                  said={stretch.flare}
                  small
                  x={x((stretch.from + stretch.to) / 2)}
                  y={y(Math.max(view.low, middle))}
                  onPull={(_, py) => preview(withBend(design, at, areaOf(py)))}
                  onStep={(_, up) => preview(withBend(design, at, middle * (1 + 0.12 * up)))}
                  {...pull}
                />
              );
            })}
            {points.map((point) => (
              <Grip
                key={point.index}
                label={`Point ${point.index + 1} of the path`}
                value={squareCentimetres(point.area)}
                said={inWords(`${significant(point.at, 3)} m, ${significant(point.area * 1e4, 3)} cm²`)}
                chosen={point === picked}
                x={x(point.at)}
                y={y(Math.max(view.low, point.area))}
                onChoose={() => choose(point.index)}
                onPull={(px, py) => preview(withPoint(design, point.index, placeAt(px), areaOf(py)))}
                onStep={(along, up, times) =>
                  preview(
                    withPoint(
                      design,
                      point.index,
                      point.at + along * times * STEP.along,
                      point.area * (1 + up * times * STEP.area),
                    ),
                  )
                }
                {...pull}
              />
            ))}
          </svg>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 text-[0.929rem]">
        <span className="text-soft">Point {picked.index + 1}</span>
        {picked.index > 0 && (
          <Value
            name="at"
            si={picked.at}
            path="length"
            onSet={(at) => {
              preview(withPoint(design, picked.index, at, picked.area));
              commit();
            }}
          />
        )}
        <Value
          name="area"
          si={picked.area}
          path="end"
          onSet={(area) => {
            preview(withPoint(design, picked.index, picked.at, area));
            commit();
          }}
        />
        <Button
          disabled={points.length > 8}
          onClick={() => {
            preview(withPointAdded(design));
            commit();
          }}
        >
          <Icon name="plus" /> Point
        </Button>
      </div>
      {between !== null && (
        <p className="text-[0.929rem] text-soft">
          In wood, {inWords(`${Math.round(between * 1e3)} mm`)} wide:{' '}
          {inWood(stretches, between)
            .map(
              ({ length, heights }) =>
                `${inWords(`${Math.round(length * 1e3)} mm`)} from ${inWords(`${Math.round(heights[0] * 1e3)} mm`)} to ${inWords(`${Math.round(heights[1] * 1e3)} mm`)} high`,
            )
            .join('; ')}
          .
        </p>
      )}
    </div>
  );
}

const squareCentimetres = (area: number) => Number(significant(area * 1e4, 3));

/** Round areas of 1, 2 and 5 within a range, m². */
function squares(low: number, high: number): number[] {
  const found: number[] = [];
  for (let decade = 10 ** Math.floor(Math.log10(low)); decade < high; decade *= 10) {
    for (const lead of [1, 2, 5]) if (lead * decade > low && lead * decade < high) found.push(lead * decade);
  }
  return found;
}

/** Where drivers sit along it. */
function drivers({ enclosure: { passage } }: RawDesign): { at: number; name: string }[] {
  const place = (typed: Typed | null | undefined) => (typed ? readTyped(typed, 'length')?.si : undefined);
  const [at, front] = [place(passage?.driver_at), place(passage?.front_at)];
  return [...(at ? [{ at, name: 'driver' }] : []), ...(front ? [{ at: front, name: 'its front' }] : [])];
}

interface ValueProps {
  name: string;
  si: number;
  path: 'length' | 'end';
  onSet: (si: number) => void;
}

function Value({ name, si, path, onSet }: ValueProps) {
  const field = path === 'length' ? LENGTH : AREA;
  return (
    <span className="flex items-center gap-1.5">
      <span aria-hidden="true">{name}</span>
      <QuantityInput
        label={path === 'length' ? 'Place of the point' : 'Area at the point'}
        fields={[field]}
        typed={writeTyped(si, usualUnit(field), 4)}
        className="w-[6.5rem] font-mono text-[0.929rem]"
        onType={(_, typed) => {
          const read = typed === null ? undefined : readTyped(typed, field.dimension)?.si;
          if (read) onSet(read);
        }}
      />
    </span>
  );
}

interface GripProps {
  label: string;
  /** Its area, cm². */
  value: number;
  said: string;
  x: number;
  y: number;
  small?: boolean;
  chosen?: boolean;
  onChoose?: () => void;
  onBegin: () => void;
  onPull: (x: number, y: number) => void;
  onStep: (along: number, up: number, times: number) => void;
  onEnd: () => void;
}

/** A point of the curve that is pulled, or moved by the arrow keys. */
function Grip({
  label,
  value,
  said,
  x,
  y,
  small,
  chosen,
  onChoose,
  onBegin,
  onPull,
  onStep,
  onEnd,
}: GripProps) {
  const held = useRef(false);
  const pause = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const within = (event: PointerEvent<SVGGElement>) => {
    const frame = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    return [event.clientX - (frame?.left ?? 0), event.clientY - (frame?.top ?? 0)] as const;
  };
  const drop = () => {
    if (!held.current) return;
    held.current = false;
    onEnd();
  };
  function onKeyDown(event: KeyboardEvent) {
    const [along, up] = {
      ArrowRight: [1, 0],
      ArrowLeft: [-1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    }[event.key] ?? [0, 0];
    if (!along && !up) return;
    event.preventDefault();
    onStep(along ?? 0, up ?? 0, event.shiftKey ? 10 : 1);
    clearTimeout(pause.current);
    pause.current = setTimeout(onEnd, PAUSE);
  }
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={value}
      aria-valuetext={said}
      className="group cursor-move"
      transform={`translate(${x} ${y})`}
      onFocus={onChoose}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = true;
        onChoose?.();
        onBegin();
      }}
      onPointerMove={(event) => held.current && onPull(...within(event))}
      onPointerUp={drop}
      onPointerCancel={drop}
      onKeyDown={onKeyDown}
    >
      <title>{`${label}: ${said}. Drag, or press the arrow keys.`}</title>
      <circle r="13" fill="transparent" />
      {small ? (
        <path
          d="M0 -5L5 0L0 5L-5 0Z"
          fill="var(--card)"
          stroke="var(--oak)"
          strokeWidth="1.5"
          className="group-hover:fill-oak group-focus:fill-oak"
        />
      ) : (
        <circle
          r="6"
          fill={chosen ? 'var(--oak)' : 'var(--card)'}
          stroke="var(--oak)"
          strokeWidth="2"
          className="group-hover:fill-oak group-focus:fill-oak"
        />
      )}
    </g>
  );
}
