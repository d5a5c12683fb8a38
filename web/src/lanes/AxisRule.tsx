import { significant } from '../model/units';
import { fraction, LANDMARKS, noteAt, ticks } from './axis';
import { GUTTER } from './Plot';

interface Props {
  from: number;
  to: number;
  width: number;
  cursor: number;
}

const TAG = 96;

/** The frequency axis as a rule, with the notes that builders aim at below it. */
export function AxisRule({ from, to, width, cursor }: Props) {
  const inner = width - GUTTER;
  const x = (frequency: number) => GUTTER + inner * fraction(frequency, from, to);
  const tag = Math.min(width - TAG, Math.max(GUTTER, x(cursor) - TAG / 2));
  return (
    <svg width={width} height="56" aria-hidden="true" className="block font-mono text-[12px]">
      <text x="0" y="17" className="font-sans" fontWeight="600" fontSize="13" fill="var(--ink)">
        Hz
      </text>
      <rect x={GUTTER} y="1" width={inner} height="26" fill="var(--rule)" stroke="var(--rule-line)" />
      {ticks(from, to).map(({ frequency, named }) => (
        <g key={frequency}>
          <path d={`M${x(frequency)} 1v${named ? 10 : 5}`} stroke="var(--rule-line)" />
          {named && (
            <text
              x={Math.min(GUTTER + inner - 12, Math.max(GUTTER + 10, x(frequency)))}
              y="22"
              textAnchor="middle"
              fontSize="12"
              fill="var(--ink)"
            >
              {significant(frequency, 3)}
            </text>
          )}
        </g>
      ))}
      {LANDMARKS.map(({ frequency, label, meaning }) => (
        <g key={label}>
          <title>{`${label}, ${meaning}: ${significant(frequency, 3)} Hz`}</title>
          <path d={`M${x(frequency)} 28v6`} stroke="var(--plum)" />
          <text x={x(frequency)} y="46" textAnchor="middle" fontSize="12" fill="var(--plum)">
            {label}
          </text>
        </g>
      ))}
      <g transform={`translate(${tag} 3)`}>
        <rect width={TAG} height="22" rx="3" fill="var(--ink)" />
        <text x={TAG / 2} y="15.5" textAnchor="middle" fontSize="13" fontWeight="600" fill="var(--paper)">
          {`${cursor.toFixed(1)} Hz ${noteAt(cursor)}`}
        </text>
      </g>
    </svg>
  );
}
