import type { ReactNode } from 'react';
import { inWords } from '../../model/preferences';
import type { CutPanel, RawFace, RawJoinery } from '../../schema/types';
import { Scroll } from '../../ui/Scroll';
import { Select } from '../../ui/Select';
import { useSize } from '../../ui/size';
import { Table } from '../../ui/Table';
import { faceOf, JOINERIES } from './joints';
import { lengthOf } from './lengths';

/** Around the drawing for its sizes, px. */
const MARGIN = 46;

interface Props {
  panel: CutPanel;
  tools?: ReactNode;
  /** Joins one of its edges otherwise. */
  onJoin?: (between: [RawFace, RawFace], joinery: RawJoinery) => void;
}

/** One board to scale as seen from outside, with what is cut out of it and how its edges are cut. */
export function PanelDrawing({ panel, tools, onJoin }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const [width = 1, height = 1] = panel.size;
  const scale = Math.min((size.width - 2 * MARGIN) / width, (size.height - 2 * MARGIN) / height);
  const [left, top] = [(size.width - width * scale) / 2, (size.height - height * scale) / 2];
  const x = (metres: number) => left + metres * scale;
  const y = (metres: number) => top + (height - metres) * scale;
  const listed = panel.edges.filter(({ meets, bevel }) => meets || Math.abs(bevel) > 0.05);
  const points = (outline: number[][]) => outline.map(([u = 0, v = 0]) => `${x(u)},${y(v)}`).join(' ');
  return (
    <section aria-label={`Panel ${panel.number}: ${panel.name}`} className="flex min-h-0 flex-col gap-1">
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="flex-1 font-semibold">
          {panel.number} {panel.name}, {lengthOf(panel.thickness)} {panel.material_name},{' '}
          {inWords(`${panel.mass.toFixed(2)} kg`)}
          {panel.grain != null && `, grain ${panel.grain === 1 ? 'up' : 'across'}`}
        </h3>
        {tools}
      </div>
      <div ref={box} className="min-h-40 flex-1 overflow-hidden max-lg:h-72">
        {scale > 0 && (
          <svg
            width={size.width}
            height={size.height}
            role="img"
            aria-label={`${panel.name} as seen from outside, ${lengthOf(width)} by ${lengthOf(height)}`}
          >
            <polygon points={points(panel.outer)} fill="var(--rule)" stroke="var(--ink)" strokeWidth="1.5" />
            <polygon points={points(panel.inner)} fill="none" stroke="var(--ink)" strokeDasharray="4 3" />
            {panel.stands.map(({ what, outline }) => {
              const [middle = 0, up = 0] = middleOf(outline);
              return (
                <g key={`${what} ${outline[0]}`}>
                  <polygon points={points(outline)} fill="none" stroke="var(--soft)" strokeDasharray="3 3" />
                  <text x={x(middle)} y={y(up) + 4} textAnchor="middle" fontSize="10.5" className="fill-soft">
                    {what}
                  </text>
                </g>
              );
            })}
            {panel.grooves.map(({ what, outline, side }) => (
              <polygon
                key={`${what} ${side}`}
                points={points(outline)}
                fill="var(--shelf)"
                stroke="var(--ink)"
                strokeDasharray={side === 'inner' ? '2 2' : undefined}
              />
            ))}
            {panel.window && (
              <polygon points={points(panel.window)} fill="var(--paper)" stroke="var(--ink)" />
            )}
            {[...panel.holes]
              .sort((a, b) => (b.size[0] ?? 0) - (a.size[0] ?? 0))
              .map(({ what, at, size: [w = 0, h = 0], round, depth }) => {
                const [u = 0, v = 0] = at;
                const fill = depth == null ? 'var(--paper)' : 'var(--shelf)';
                return round ? (
                  <circle
                    key={`${what} ${at}`}
                    cx={x(u)}
                    cy={y(v)}
                    r={(w / 2) * scale}
                    fill={fill}
                    stroke="var(--ink)"
                  />
                ) : (
                  <rect
                    key={`${what} ${at}`}
                    x={x(u - w / 2)}
                    y={y(v + h / 2)}
                    width={w * scale}
                    height={h * scale}
                    fill={fill}
                    stroke="var(--ink)"
                  />
                );
              })}
            <text x={x(width / 2)} y={y(0) + 22} textAnchor="middle" className="fill-ink font-mono">
              {lengthOf(width)}
            </text>
            <text
              x={x(0) - 14}
              y={y(height / 2)}
              textAnchor="middle"
              className="fill-ink font-mono"
              transform={`rotate(-90 ${x(0) - 14} ${y(height / 2)})`}
            >
              {lengthOf(height)}
            </text>
          </svg>
        )}
      </div>
      <Scroll label="Edges and holes" className="max-h-[45%] overflow-y-auto pr-1 pb-2">
        {panel.holes.length > 0 && (
          <Table
            caption="Holes, their middle from the left and from below as seen from outside"
            rows={panel.holes}
            keyOf={({ what, at }) => `${what} ${at}`}
            columns={[
              { name: 'For', names: true, cell: ({ what }) => what },
              {
                name: 'Size',
                kind: 'figure',
                cell: ({ size: [w = 0, h = 0], round }) =>
                  round ? `⌀ ${lengthOf(w)}` : `${lengthOf(w)} × ${lengthOf(h)}`,
              },
              {
                name: 'Deep',
                kind: 'figure',
                cell: ({ depth }) => (depth == null ? 'through' : lengthOf(depth)),
              },
              { name: 'From the left', kind: 'figure', cell: ({ at }) => lengthOf(at[0] ?? 0) },
              { name: 'From below', kind: 'figure', cell: ({ at }) => lengthOf(at[1] ?? 0) },
            ]}
          />
        )}
        {panel.grooves.length > 0 && (
          <Table
            caption="Milled strips"
            rows={panel.grooves}
            keyOf={({ what, side }) => `${what} ${side}`}
            columns={[
              { name: 'For', names: true, cell: ({ what }) => what },
              { name: 'From', cell: ({ side }) => (side === 'inner' ? 'inside' : 'outside') },
              { name: 'Wide', kind: 'figure', cell: ({ outline }) => lengthOf(narrowOf(outline)) },
              { name: 'Deep', kind: 'figure', cell: ({ depth }) => lengthOf(depth) },
            ]}
          />
        )}
        {listed.length > 0 && (
          <Table
            caption="Edges"
            rows={listed}
            keyOf={(_, at) => at}
            columns={[
              { name: 'Meets', names: true, cell: ({ meets }) => meets ?? 'free end' },
              { name: 'Joint', cell: ({ joint }) => JOINTS[joint] ?? joint },
              {
                name: 'Held by',
                cell: ({ meets, joinery, dowels }) => {
                  const pair = [faceOf(panel.name), faceOf(meets ?? '')] as const;
                  const [own, other] = pair;
                  if (!onJoin || !own || !other) return joinery;
                  return (
                    <span className="flex items-center gap-1.5">
                      <Select
                        label={`Joint with the ${meets}`}
                        value={joinery as RawJoinery}
                        options={JOINERIES}
                        onChange={(next) => onJoin([own, other], next)}
                      />
                      {dowels.length > 0 && `${dowels.length} at ${dowels.map(lengthOf).join(', ')}`}
                    </span>
                  );
                },
              },
              {
                name: 'Saw',
                kind: 'figure',
                cell: ({ bevel }) => (Math.abs(bevel) > 0.05 ? `${Math.abs(bevel).toFixed(1)}°` : 'square'),
              },
              {
                name: 'Longer side',
                className: 'pl-3',
                headingClass: 'pl-3',
                cell: ({ bevel }) => (Math.abs(bevel) > 0.05 ? (bevel > 0 ? 'outside' : 'inside') : ''),
              },
            ]}
          />
        )}
      </Scroll>
    </section>
  );
}

const JOINTS: Record<string, string> = {
  over: 'reaches over it',
  under: 'ends at its inner side',
  mitre: 'mitred with it',
  round: 'meets the round edge',
};

/** Middle of an outline, m. */
function middleOf(outline: number[][]): number[] {
  const sides = [0, 1].map((k) => outline.map((point) => point[k] ?? 0));
  return sides.map((all) => (Math.min(...all) + Math.max(...all)) / 2);
}

/** The narrower side of a strip, m. */
function narrowOf(outline: number[][]): number {
  const sides = outline.map(([x = 0, y = 0], at) => {
    const [u = 0, v = 0] = outline[(at + 1) % outline.length] ?? [];
    return Math.hypot(u - x, v - y);
  });
  return Math.min(...sides);
}
