import type { ReactNode } from 'react';
import { inWords } from '../model/preferences';
import type { BodyReport, Motion, RawDesign, Report } from '../schema/types';
import { usePreferences } from '../ui/observed';
import { useSize } from '../ui/size';
import { type Frame, frameFor } from './frame';
import { Handles } from './Handles';
import { handlesOf } from './handles';
import { layOut } from './layout';
import { MotionLayer } from './MotionLayer';
import { Patterns } from './Patterns';
import { type Dimension, type Part, type Rect, type Scene, type Target, WALL } from './scene';

/** What moves, and how it is shown. */
export interface Slowly {
  motion: Motion;
  playing: boolean;
  moment: number;
  onMoment: (moment: number) => void;
}

interface Props {
  design: RawDesign;
  report: Report;
  body?: BodyReport | null | undefined;
  slowly: Slowly | null;
  onTarget: (target: Target, part: Element) => void;
  onPull: (design: RawDesign) => void;
  onCommit: (label: string) => void;
}

/** Section of the cabinet, to scale; each part leads to its numbers. */
export function Section(props: Props) {
  const [holder, size] = useSize<HTMLDivElement>();
  usePreferences();
  const scene = layOut(props);
  return (
    <div ref={holder} className="h-full min-h-28 overflow-hidden">
      {scene && size.width > 0 && <Sheet {...size} scene={scene} {...props} />}
    </div>
  );
}

interface SheetProps extends Props {
  width: number;
  height: number;
  scene: Scene;
}

function Sheet(props: SheetProps) {
  const { width, height, scene, slowly, onTarget, onPull, onCommit } = props;
  const frame = frameFor(scene, width, height);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing that holds buttons
    <svg width={width} height={height} role="group" aria-label={scene.title}>
      <Patterns />
      {scene.parts.map((part, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: parts have no other name, and keep their order
        <PartButton key={at} target={part.target} again={isAgain(scene.parts, at)} onTarget={onTarget}>
          <PartDrawing part={part} frame={frame} />
        </PartButton>
      ))}
      {scene.dimensions.map((dimension) => (
        <DimensionLine key={dimension.text} dimension={dimension} frame={frame} scene={scene} />
      ))}
      {slowly ? (
        <MotionLayer scene={scene} frame={frame} {...slowly} />
      ) : (
        <Handles handles={handlesOf(props, scene)} frame={frame} onPull={onPull} onCommit={onCommit} />
      )}
    </svg>
  );
}

/** Whether an equal part before leads to the same: one of them is enough on the way through by keys. */
function isAgain(parts: Part[], at: number): boolean {
  const label = parts[at]?.target?.label;
  return label !== undefined && parts.findIndex(({ target }) => target?.label === label) < at;
}

interface ButtonProps {
  target: Target | undefined;
  again: boolean;
  onTarget: (target: Target, part: Element) => void;
  children: ReactNode;
}

function PartButton({ target, again, onTarget, children }: ButtonProps) {
  if (!target) return <g className="pointer-events-none">{children}</g>;
  return (
    // biome-ignore lint/a11y/useSemanticElements: there is no button element inside a drawing
    <g
      role="button"
      tabIndex={again ? -1 : 0}
      aria-label={target.label}
      className="cursor-pointer outline-offset-2 hover:opacity-80"
      onClick={(event) => onTarget(target, event.currentTarget)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onTarget(target, event.currentTarget);
      }}
    >
      {children}
    </g>
  );
}

function closed(points: [number, number][], frame: Frame): string {
  return `M${points.map(([x, y]) => `${frame.x(x)} ${frame.y(y)}`).join('L')}Z`;
}

function outline({ x, y, width, height }: Rect, frame: Frame): string {
  return `M${frame.x(x)} ${frame.y(y + height)}H${frame.x(x + width)}V${frame.y(y)}H${frame.x(x)}Z`;
}

function PartDrawing({ part, frame }: { part: Part; frame: Frame }) {
  switch (part.kind) {
    case 'walls':
      return (
        <>
          <path
            d={part.outlines ? closed(part.outlines.outer, frame) : outline(part.outer, frame)}
            fill="url(#grain)"
            stroke="var(--rule-line)"
          />
          <path
            d={
              part.outlines
                ? part.outlines.inner.map((inner) => closed(inner, frame)).join('')
                : part.inner.map((inner) => outline(inner, frame)).join('')
            }
            fill="var(--card)"
            stroke="var(--rule-line)"
          />
        </>
      );
    case 'board':
      return <path d={outline(part.at, frame)} fill="url(#grain)" stroke="var(--rule-line)" />;
    case 'air':
      return <path d={outline(part.at, frame)} fill="var(--card)" stroke="var(--rule-line)" />;
    case 'slab':
      return <path d={closed(part.points, frame)} fill="url(#grain)" stroke="var(--rule-line)" />;
    case 'mouth':
      return <path d={outline(part.at, frame)} fill="var(--card)" />;
    case 'vent':
      return <Vent at={part.at} frame={frame} />;
    case 'disc':
      return <Disc disc={part} frame={frame} />;
    case 'driver':
      return <DriverDrawing driver={part} frame={frame} />;
    case 'radiator':
      return <RadiatorDrawing radiator={part} frame={frame} />;
    case 'port':
      return <PortDrawing port={part} frame={frame} />;
    case 'way':
      return <WayDrawing way={part} frame={frame} />;
    case 'flow':
      return <Flow points={part.points} frame={frame} />;
    case 'text':
      return (
        <text x={frame.x(part.x)} y={frame.y(part.y) + 16} fontSize="13" fill="var(--soft)">
          {inWords(part.text)}
        </text>
      );
  }
}

type Of<Kind extends Part['kind']> = Extract<Part, { kind: Kind }>;

function Vent({ at, frame }: { at: Rect; frame: Frame }) {
  return (
    <>
      <path d={outline(at, frame)} fill="var(--paper)" />
      <path d={outline(at, frame)} fill="url(#wool)" stroke="var(--ink)" />
    </>
  );
}

function Disc({ disc, frame }: { disc: Of<'disc'>; frame: Frame }) {
  return [disc.frame, disc.diameter].map((across) => (
    <circle
      key={across}
      cx={frame.x(disc.x)}
      cy={frame.y(disc.y)}
      r={(across / 2) * frame.scale}
      fill="transparent"
      stroke="var(--soft)"
      strokeDasharray="6 4"
    />
  ));
}

const TURN = { right: 0, up: -90, left: 180, down: 90 };

/** Faces right with its front at the origin, then turned. */
function DriverDrawing({ driver, frame }: { driver: Of<'driver'>; frame: Frame }) {
  const { scale } = frame;
  const cone = (driver.diameter / 2) * scale;
  const edge = (driver.frame / 2) * scale;
  const back = -driver.depth * scale;
  const [neck, magnet] = [cone * 0.28, cone * 0.55];
  const magnetDepth = driver.depth * scale * 0.36;
  const wall = Math.min(WALL * scale, -back * 0.4);
  return (
    <g
      transform={`translate(${frame.x(driver.x)} ${frame.y(driver.y)}) rotate(${TURN[driver.facing]})`}
      stroke="var(--ink)"
      strokeWidth="1.4"
      strokeLinejoin="round"
    >
      <rect x={-wall} y={-cone} width={wall} height={2 * cone} fill="var(--paper)" stroke="none" />
      <path d={`M0 ${-edge}h3v${2 * edge}h-3Z`} fill="var(--cone)" />
      <path d={`M0 ${-cone}L${back + magnetDepth} ${-neck}V${neck}L0 ${cone}Z`} fill="var(--rule)" />
      <path
        d={`M-1 ${-cone}q6 ${cone * 0.08} 0 ${cone * 0.16}M-1 ${cone}q6 ${-cone * 0.08} 0 ${-cone * 0.16}`}
        fill="none"
      />
      <rect x={back} y={-magnet} width={magnetDepth} height={2 * magnet} fill="var(--cone)" />
      <path
        d={`M${back + magnetDepth} ${-neck}h${magnetDepth * 0.4}a${neck} ${neck} 0 0 1 0 ${2 * neck}h${-magnetDepth * 0.4}`}
        fill="var(--cone)"
      />
    </g>
  );
}

function RadiatorDrawing({ radiator, frame }: { radiator: Of<'radiator'>; frame: Frame }) {
  const half = (radiator.diameter / 2) * frame.scale;
  const wall = WALL * frame.scale;
  return (
    <g
      transform={`translate(${frame.x(radiator.x)} ${frame.y(radiator.y)}) rotate(${TURN[radiator.facing]})`}
      stroke="var(--ink)"
      strokeWidth="1.4"
    >
      <rect x={-wall} y={-half} width={wall} height={2 * half} fill="var(--paper)" stroke="none" />
      <path d={`M0 ${-half * 1.1}h3v${half * 2.2}h-3Z`} fill="var(--cone)" />
      <path
        d={`M-1 ${-half}q6 ${half * 0.08} 0 ${half * 0.16}L${-wall * 1.2} ${-half * 0.3}V${half * 0.3}L-1 ${half * 0.84}q6 ${half * 0.08} 0 ${half * 0.16}`}
        fill="var(--rule)"
      />
      <rect x={-wall * 1.9} y={-half * 0.2} width={wall * 0.7} height={half * 0.4} fill="var(--cone)" />
    </g>
  );
}

function PortDrawing({ port, frame }: { port: Of<'port'>; frame: Frame }) {
  const { x, y, width, height } = port.at;
  const wall = Math.max(2, 0.004 * frame.scale);
  // Where there is little room the text starts at the mouth and says only the length.
  const narrow = width * frame.scale < 110;
  const anchor = { right: ['end', x + width], left: ['start', x], both: ['middle', x + width / 2] }[
    narrow ? port.open : 'both'
  ] as ['end' | 'start' | 'middle', number];
  const sides = [y, y + height].map((at) => `M${frame.x(x)} ${frame.y(at)}H${frame.x(x + width)}`);
  return (
    <g>
      {/* A thin port is hard to hit: its words belong to it, and what lies between. */}
      <rect
        x={frame.x(x)}
        y={frame.y(y + height) - wall - 17}
        width={width * frame.scale}
        height={height * frame.scale + wall + 17}
        fill="transparent"
      />
      <path d={outline(port.at, frame)} fill="var(--paper)" />
      <path d={sides.join('')} stroke="var(--rule-line)" strokeWidth={wall} />
      <text
        x={frame.x(anchor[1])}
        y={frame.y(y + height) - wall - 4}
        textAnchor={anchor[0]}
        fontSize="12"
        fill="var(--river)"
        className="font-mono"
      >
        {inWords(narrow ? (port.text.split(',')[0] ?? '') : port.text)}
      </text>
    </g>
  );
}

function WayDrawing({ way, frame }: { way: Of<'way'>; frame: Frame }) {
  const along = (sign: number, more: number) =>
    way.edge.map(([x, y]) => `${frame.x(x)} ${frame.y(sign * (y + more))}`);
  const closed = (more: number) => `M${along(1, more).join('L')}L${along(-1, more).reverse().join('L')}Z`;
  return (
    <g>
      <path d={closed(WALL)} fill="url(#grain)" stroke="var(--rule-line)" />
      <path d={closed(0)} fill="var(--card)" />
      {way.fill && <path d={closed(0)} fill="url(#wool)" />}
      <path d={`M${along(1, 0).join('L')}M${along(-1, 0).join('L')}`} fill="none" stroke="var(--rule-line)" />
    </g>
  );
}

function Flow({ points, frame }: { points: [number, number][]; frame: Frame }) {
  const path = points.map(([x, y]) => `${frame.x(x)} ${frame.y(y)}`).join('L');
  return <path d={`M${path}`} fill="none" stroke="var(--river)" strokeWidth="1.5" strokeDasharray="5 4" />;
}

interface LineProps {
  dimension: Dimension;
  frame: Frame;
  scene: Scene;
}

function DimensionLine({ dimension: { from, to, text, upright }, frame, scene: { extent } }: LineProps) {
  const bottom = frame.y(extent.y) + 14;
  const left = frame.x(extent.x) - 14;
  const [a, b] = upright ? [frame.y(to), frame.y(from)] : [frame.x(from), frame.x(to)];
  const middle = (a + b) / 2;
  const line = upright ? `M${left - 4} ${a}h8m-4 0V${b}m-4 0h8` : `M${a} ${bottom - 4}v8m0 -4H${b}m0 -4v8`;
  return (
    <g className="pointer-events-none">
      <path d={line} fill="none" stroke="var(--soft)" />
      <text
        x={upright ? left : middle}
        y={upright ? middle : bottom + 15}
        textAnchor="middle"
        fontSize="12"
        fill="var(--soft)"
        className="font-mono"
        transform={upright ? `rotate(-90 ${left} ${middle}) translate(0 -6)` : undefined}
      >
        {inWords(text)}
      </text>
    </g>
  );
}
