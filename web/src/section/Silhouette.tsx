import type { ReactNode } from 'react';
import type { Family } from '../model/families';

interface Props {
  family: Family;
  /** Whether a ported box has a slot. */
  slot?: boolean;
  small?: boolean;
}

const BOX = <rect x="1" y="1" width="44" height="40" fill="var(--rule)" stroke="var(--rule-line)" />;

function cone(x: number, y: number, r: number): ReactNode {
  return <circle cx={x} cy={y} r={r} fill="var(--card)" stroke="var(--ink)" />;
}

function hole(x: number, y: number, r: number): ReactNode {
  return <circle cx={x} cy={y} r={r} fill="var(--ink)" />;
}

/** A side view of a driver in a wall. */
function side(x: number, y: number, r: number): ReactNode {
  return (
    <path d={`M${x} ${y - r}L${x - 5} ${y - 2}v4L${x} ${y + r}Z`} fill="var(--card)" stroke="var(--ink)" />
  );
}

function way(path: string): ReactNode {
  return <path d={path} fill="var(--card)" stroke="var(--ink)" strokeLinejoin="round" />;
}

const PARTITION = <path d="M24 1v40" stroke="var(--ink)" />;

const PICTURES: Record<Family, ReactNode> = {
  sealed: [BOX, cone(23, 21, 11)],
  ported: [BOX, cone(23, 16, 11), hole(23, 34, 4.5)],
  passive_radiator: [
    BOX,
    cone(23, 13, 9),
    cone(12, 32, 6.5),
    cone(34, 32, 6.5),
    hole(12, 32, 1.6),
    hole(34, 32, 1.6),
  ],
  aperiodic: [
    BOX,
    cone(23, 17, 11),
    <path key="felt" d="M14 35h18M14 37.5h18" stroke="var(--ink)" strokeDasharray="2 2" />,
  ],
  bandpass4: [BOX, PARTITION, side(24, 20, 9), hole(36, 34, 4)],
  bandpass6_parallel: [BOX, PARTITION, side(24, 18, 9), hole(36, 34, 4), hole(11, 34, 4)],
  bandpass6_series: [
    BOX,
    PARTITION,
    side(24, 16, 9),
    hole(36, 34, 4),
    <path key="port" d="M18 33h12" stroke="var(--ink)" strokeWidth="4" />,
  ],
  line: [BOX, <path key="fold" d="M16 1v31M31 41V10" stroke="var(--ink)" />, side(45, 12, 7)],
  mass_loaded_line: [
    BOX,
    <path key="fold" d="M23 1v31" stroke="var(--ink)" />,
    side(45, 14, 8),
    hole(36, 35, 3.5),
  ],
  back_horn: [BOX, way('M6 6h10l4 30h22V22L26 28 22 6Z'), side(45, 11, 7)],
  front_horn: [way('M3 12h10v18H3Z'), way('M13 17q16-1 30-15v38q-14-14-30-15Z'), side(13, 21, 6)],
  tapped_horn: [BOX, way('M6 36l36-8V6L6 16Z'), side(24, 22, 6)],
  slot_flare: [BOX, cone(23, 15, 11), way('M8 37l4-6h22l4 6Z')],
  open_baffle: [
    <rect key="board" x="20" y="1" width="5" height="40" fill="var(--rule)" stroke="var(--rule-line)" />,
    side(25, 21, 11),
  ],
  infinite_baffle: [
    <path key="wall" d="M20 0v42M25 0v42" stroke="var(--rule-line)" strokeWidth="2" />,
    side(25, 21, 11),
  ],
};

/** A kind of cabinet, small. */
export function Silhouette({ family, slot, small }: Props) {
  const [width, height] = small ? [30, 27] : [46, 42];
  const picture =
    family === 'ported' && slot
      ? [BOX, cone(23, 16, 11), <rect key="slot" x="6" y="32.5" width="34" height="4.5" fill="var(--ink)" />]
      : PICTURES[family];
  return (
    <svg width={width} height={height} viewBox="0 0 46 42" aria-hidden="true" className="shrink-0">
      {Array.isArray(picture)
        ? picture.map((part, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a fixed picture
            <g key={at}>{part}</g>
          ))
        : picture}
    </svg>
  );
}
