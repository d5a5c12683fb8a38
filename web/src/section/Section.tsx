import type { ReactNode } from 'react';
import type { RawDesign, Report } from '../api/types';
import { shown, significant } from '../model/units';
import { useSize } from '../ui/size';
import { type Drawing, layOut, type PortDrawing } from './geometry';

export type Part = 'box' | 'driver' | 'port';

interface Props {
  design: RawDesign;
  report: Report;
  onPart: (part: Part) => void;
}

const MARGIN = { left: 44, right: 18, top: 10, bottom: 34 };

/** Side section of the cabinet, to scale; each part leads to its numbers. */
export function Section({ design, report, onPart }: Props) {
  const [holder, size] = useSize<HTMLDivElement>();
  const drawing = layOut(design, report);
  return (
    <div ref={holder} className="h-full min-h-40 overflow-hidden">
      {drawing && size.width > 0 && <Sheet {...size} drawing={drawing} design={design} onPart={onPart} />}
    </div>
  );
}

interface SheetProps {
  width: number;
  height: number;
  drawing: Drawing;
  design: RawDesign;
  onPart: (part: Part) => void;
}

function Sheet({ width, height, drawing, design, onPart }: SheetProps) {
  const { box, driver, port } = drawing;
  const [outerDepth, outerHeight] = [box.depth + 2 * box.wall, box.height + 2 * box.wall];
  const scale = Math.min(
    (width - MARGIN.left - MARGIN.right) / outerDepth,
    (height - MARGIN.top - MARGIN.bottom) / outerHeight,
  );
  const left = MARGIN.left + (width - MARGIN.left - MARGIN.right - outerDepth * scale) / 2;
  const x = (metres: number) => left + (box.wall + metres) * scale;
  const y = (metres: number) => MARGIN.top + (box.wall + box.height - metres) * scale;
  const wall = box.wall * scale;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing that holds buttons
    <svg width={width} height={height} role="group" aria-label="Cabinet, side section">
      <Grain />
      <PartButton label="Box: edit the volume" onPress={() => onPart('box')}>
        <path
          d={`M${x(-box.wall)} ${y(box.height + box.wall)}H${x(box.depth + box.wall)}V${y(-box.wall)}H${x(-box.wall)}ZM${x(0)} ${y(box.height)}V${y(0)}H${x(box.depth)}V${y(box.height)}Z`}
          fill="url(#grain)"
          fillRule="evenodd"
          stroke="var(--rule-line)"
        />
        <rect
          x={x(0)}
          y={y(box.height)}
          width={box.depth * scale}
          height={box.height * scale}
          fill="var(--card)"
        />
      </PartButton>
      {port && (
        <PartButton label="Port: edit its size" onPress={() => onPart('port')}>
          <PortSection port={port} box={box} x={x} y={y} scale={scale} />
        </PartButton>
      )}
      <PartButton label="Driver: choose another" onPress={() => onPart('driver')}>
        <DriverSection drawing={drawing} x={x} y={y} scale={scale} />
      </PartButton>
      <Dimension
        from={[x(-box.wall), y(-box.wall) + 14]}
        to={[x(box.depth + box.wall), y(-box.wall) + 14]}
        text={`${millimetres(outerDepth)} mm, at usual proportions`}
      />
      <Dimension
        from={[x(-box.wall) - 14, y(box.height + box.wall)]}
        to={[x(-box.wall) - 14, y(-box.wall)]}
        text={`${millimetres(outerHeight)} mm`}
        upright
      />
      <text
        x={x(0) + Math.min(10, wall)}
        y={y(box.height) + 18}
        fontSize="13"
        fill="var(--soft)"
        className="pointer-events-none"
      >
        {shown(design.enclosure.volume ?? '')}
      </text>
      <title>{`Side section with a driver of ${millimetres(driver.diameter)} mm effective diameter`}</title>
    </svg>
  );
}

function millimetres(metres: number): string {
  return String(Math.round(metres * 1000));
}

function Grain() {
  return (
    <defs>
      <pattern id="grain" width="36" height="7" patternUnits="userSpaceOnUse">
        <rect width="36" height="7" fill="var(--rule)" />
        <path
          d="M0 2.5q9 -2 18 0t18 0M0 5.8q9 1.6 18 0t18 0"
          fill="none"
          stroke="var(--grain)"
          strokeWidth="0.7"
        />
      </pattern>
    </defs>
  );
}

interface ButtonProps {
  label: string;
  onPress: () => void;
  children: ReactNode;
}

function PartButton({ label, onPress, children }: ButtonProps) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: there is no button element inside a drawing
    <g
      role="button"
      tabIndex={0}
      aria-label={label}
      className="cursor-pointer outline-offset-2 hover:opacity-80"
      onClick={onPress}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onPress();
      }}
    >
      {children}
    </g>
  );
}

interface PlaceProps {
  x: (metres: number) => number;
  y: (metres: number) => number;
  scale: number;
}

function DriverSection({ drawing: { box, driver }, x, y, scale }: PlaceProps & { drawing: Drawing }) {
  const face = x(box.depth + box.wall);
  const middle = y(driver.middle);
  const cone = (driver.diameter / 2) * scale;
  const frame = (driver.frame / 2) * scale;
  const back = face - driver.depth * scale;
  const neck = cone * 0.28;
  const magnet = cone * 0.55;
  const magnetDepth = driver.depth * scale * 0.36;
  return (
    <g stroke="var(--ink)" strokeWidth="1.4" strokeLinejoin="round">
      <rect
        x={x(box.depth)}
        y={middle - cone}
        width={box.wall * scale}
        height={2 * cone}
        fill="var(--paper)"
        stroke="none"
      />
      <path d={`M${face} ${middle - frame}h3v${2 * frame}h-3Z`} fill="var(--cone)" />
      <path
        d={`M${face} ${middle - cone}L${back + magnetDepth} ${middle - neck}V${middle + neck}L${face} ${middle + cone}Z`}
        fill="var(--rule)"
      />
      <path
        d={`M${face - 1} ${middle - cone}q6 ${cone * 0.08} 0 ${cone * 0.16}M${face - 1} ${middle + cone}q6 ${-cone * 0.08} 0 ${-cone * 0.16}`}
        fill="none"
      />
      <rect x={back} y={middle - magnet} width={magnetDepth} height={2 * magnet} fill="var(--cone)" />
      <path
        d={`M${back + magnetDepth} ${middle - neck}h${magnetDepth * 0.4}a${neck} ${neck} 0 0 1 0 ${2 * neck}h${-magnetDepth * 0.4}`}
        fill="var(--cone)"
      />
    </g>
  );
}

function PortSection({ port, box, x, y, scale }: PlaceProps & { port: PortDrawing; box: Drawing['box'] }) {
  const straight = port.length - port.folded;
  const inner = box.depth + box.wall - straight;
  const [top, bottom] = [port.middle + port.height / 2, port.middle - port.height / 2];
  const wall = Math.max(2, 0.004 * scale);
  const up = Math.min(port.folded, box.height - top);
  const air = `M${x(box.depth + box.wall)} ${y(port.middle)}H${x(inner) - (up ? (port.height / 2) * scale : 0)}${up ? `V${y(top + up)}` : ''}`;
  return (
    <g>
      <rect
        x={x(inner)}
        y={y(top)}
        width={straight * scale}
        height={port.height * scale}
        fill="var(--paper)"
      />
      <path
        d={`M${x(box.depth + box.wall)} ${y(top)}H${x(inner)}`}
        stroke="var(--rule-line)"
        strokeWidth={wall}
      />
      {bottom > 0.002 && (
        <path
          d={`M${x(box.depth + box.wall)} ${y(bottom)}H${x(inner)}`}
          stroke="var(--rule-line)"
          strokeWidth={wall}
        />
      )}
      <path d={air} fill="none" stroke="var(--river)" strokeWidth="1.5" strokeDasharray="5 4" />
      <text
        x={x(inner + straight / 2)}
        y={y(top) - wall - 4}
        textAnchor="middle"
        fontSize="12"
        fill="var(--river)"
        className="font-mono"
      >
        {`${significant(port.length * 1000, 3)} mm`}
      </text>
    </g>
  );
}

interface DimensionProps {
  from: [number, number];
  to: [number, number];
  text: string;
  upright?: boolean;
}

function Dimension({ from, to, text, upright }: DimensionProps) {
  const [mx, my] = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
  const tick = upright ? 'h8m-4 0' : 'v8m0 -4';
  const start = upright ? [from[0] - 4, from[1]] : [from[0], from[1] - 4];
  const end = upright ? 'm-4 0h8' : 'm0 -4v8';
  return (
    <g>
      <path d={`M${start[0]} ${start[1]}${tick}L${to[0]} ${to[1]}${end}`} fill="none" stroke="var(--soft)" />
      <text
        x={mx}
        y={upright ? my : my + 15}
        textAnchor="middle"
        fontSize="12"
        fill="var(--soft)"
        className="font-mono"
        transform={upright ? `rotate(-90 ${mx} ${my}) translate(0 -6)` : undefined}
      >
        {text}
      </text>
    </g>
  );
}
