import { useEffect, useRef } from 'react';
import type { Motion } from '../schema/types';
import type { Frame } from './frame';
import { type Moving, magnification, movingParts, placeAt } from './movers';
import type { Scene } from './scene';

interface Props {
  scene: Scene;
  motion: Motion;
  frame: Frame;
  playing: boolean;
  /** Degrees of the cycle; where it stands while it does not play. */
  moment: number;
  onMoment: (moment: number) => void;
}

/** One cycle on screen, ms. */
const CYCLE = 2600;

/** Cone, radiators and the air in the openings at one frequency, slowly. */
export function MotionLayer({ scene, motion, frame, playing, moment, onMoment }: Props) {
  const layer = useRef<SVGGElement>(null);
  const moving = movingParts(scene, motion);
  const scale = magnification(moving);
  const latest = useRef({ moving, scale, moment, onMoment });
  latest.current = { moving, scale, moment, onMoment };

  useEffect(() => {
    if (!playing) return undefined;
    let request = 0;
    const begun = performance.now() - (latest.current.moment / 360) * CYCLE;
    const step = (now: number) => {
      const at = (((now - begun) / CYCLE) * 360) % 360;
      const { moving: all, scale: times } = latest.current;
      place(layer.current, all, times, at);
      latest.current.moment = at;
      request = requestAnimationFrame(step);
    };
    request = requestAnimationFrame(step);
    return () => {
      cancelAnimationFrame(request);
      latest.current.onMoment(Math.round(latest.current.moment));
    };
  }, [playing]);

  useEffect(() => {
    if (!playing) place(layer.current, moving, scale, moment);
  });

  return (
    <g ref={layer} className="pointer-events-none">
      {moving.map((one, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: parts keep their order
        <g key={at}>
          <Shape moving={one} frame={frame} />
        </g>
      ))}
    </g>
  );
}

function place(layer: SVGGElement | null, moving: Moving[], scale: number, moment: number): void {
  moving.forEach(({ mover, outward: [x, y] }, at) => {
    const by = placeAt(mover, moment, scale);
    layer?.children[at]?.setAttribute(
      'transform',
      `translate(${(x * by).toFixed(2)} ${(y * by).toFixed(2)})`,
    );
  });
}

function Shape({ moving: { part, mover, outward }, frame }: { moving: Moving; frame: Frame }) {
  const air = { fill: 'var(--river)', fillOpacity: 0.55, stroke: 'var(--river)' };
  switch (part.kind) {
    case 'driver':
    case 'radiator': {
      const half = (part.diameter / 2) * frame.scale;
      const deep = part.kind === 'driver' ? half * 0.55 : half * 0.12;
      const turn = (Math.atan2(outward[1], outward[0]) * 180) / Math.PI;
      // A driver that is turned round has its cone the other way.
      const flip = part.kind === 'driver' && part.facing === 'left' && outward[0] > 0 ? -1 : 1;
      return (
        <path
          d={`M0 ${-half}L${-flip * deep} ${-half * 0.28}V${half * 0.28}L0 ${half}`}
          transform={`translate(${frame.x(part.x)} ${frame.y(part.y)}) rotate(${turn})`}
          fill="none"
          stroke="var(--oak)"
          strokeWidth="3.5"
          strokeLinejoin="round"
        >
          <title>{mover.label}</title>
        </path>
      );
    }
    case 'port': {
      const { x, y, width, height } = part.at;
      const length = Math.min(width * 0.4, 0.06);
      const at = part.open === 'left' ? x + width * 0.12 : x + width * 0.88 - length;
      return (
        <rect
          x={frame.x(at)}
          y={frame.y(y + height) + 1}
          width={length * frame.scale}
          height={Math.max(2, height * frame.scale - 2)}
          {...air}
        />
      );
    }
    case 'mouth':
      return (
        <rect
          x={frame.x(part.at.x)}
          y={frame.y(part.at.y + part.at.height)}
          width={Math.max(6, part.at.width * frame.scale)}
          height={Math.max(6, part.at.height * frame.scale)}
          {...air}
        />
      );
    case 'way': {
      const [x = 0, half = 0] = part.edge.at(-1) ?? [];
      const length = Math.max(0.02, 14 / frame.scale);
      return (
        <rect
          x={frame.x(x - length)}
          y={frame.y(half) + 1}
          width={length * frame.scale}
          height={Math.max(2, 2 * half * frame.scale - 2)}
          {...air}
        />
      );
    }
    default:
      return null;
  }
}
