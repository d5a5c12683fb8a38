import { logarithmic } from '../model/scale';
import { significant } from '../model/units';
import type { RibbonPiece } from '../schema/types';
import { GUTTER } from './line';
import { layRibbon, limitName } from './ribbon_pieces';

interface Props {
  pieces: RibbonPiece[];
  /** Where the drive that is set asks for more than the limit allows, Hz. */
  over: [number, number][];
  from: number;
  to: number;
  width: number;
  /** Width of the column of names, px. */
  names: number;
}

/** What runs out first along the frequency axis, for the active variant. */
export function Ribbon({ pieces, over, from, to, width, names }: Props) {
  const x = logarithmic([from, to], [GUTTER, width]);
  const said = pieces.map((piece) => `${limitName(piece)} up to ${significant(piece.to, 3)} Hz`);
  const excess = over.map(([low, high]) => `${significant(low, 3)} to ${significant(high, 3)} Hz`);
  const driven = excess.length ? `; over it at this drive: ${excess.join(', ')}` : '';
  return (
    <div className="flex items-center">
      {names > 0 && (
        <span aria-hidden="true" className="font-semibold leading-tight" style={{ width: names }}>
          What limits it
        </span>
      )}
      <svg
        width={width}
        height="24"
        role="img"
        aria-label={`What limits it: ${said.join(', ')}${driven}`}
        className="block"
      >
        {layRibbon(pieces, [from, to], [GUTTER, width]).map(({ piece, left, right, fill, words }) => (
          <g key={piece.from}>
            <title>{`${limitName(piece)}: ${significant(piece.from, 3)} to ${significant(piece.to, 3)} Hz`}</title>
            <rect
              x={left}
              y="2"
              width={Math.max(0.5, right - left)}
              height="19"
              fill={`var(${fill})`}
              stroke="var(--paper)"
            />
            {words && (
              <text x={(left + right) / 2} y="16" textAnchor="middle" fontSize="12" fill="var(--ink)">
                {words}
              </text>
            )}
          </g>
        ))}
        {over
          .filter(([low, high]) => high > from && low < to)
          .map(([low, high]) => {
            const [left, right] = [x(Math.max(from, low)), x(Math.min(to, high))];
            return (
              <g key={low}>
                <title>{`Over it at the drive that is set: ${significant(low, 3)} to ${significant(high, 3)} Hz`}</title>
                <rect x={left} y="20" width={Math.max(2, right - left)} height="4" fill="var(--short)" />
              </g>
            );
          })}
      </svg>
    </div>
  );
}
