import type { ReactElement } from 'react';
import type { RawDriverArray } from '../../schema/types';

interface Props {
  coils: NonNullable<RawDriverArray['coils']> | null;
  series: number;
  parallel: number;
  /** In words, for those who do not see it. */
  label: string;
}

const WIDE = 92;
const HIGH = 64;
const RAIL = 26;
const LEFT = 74;

/** Which terminal goes where: groups side by side between the two rails of the amplifier, the drivers of a group one below the other. */
export function WiringPicture({ coils, series, parallel, label }: Props) {
  const width = LEFT + parallel * WIDE + 12;
  const bottom = RAIL + series * (HIGH + 14) + 8;
  const last = LEFT + (parallel - 0.5) * WIDE;
  const groups: ReactElement[] = [];
  for (let group = 0; group < parallel; group += 1) {
    const x = LEFT + (group + 0.5) * WIDE;
    for (let place = 0; place < series; place += 1) {
      const y = RAIL + 14 + place * (HIGH + 14);
      groups.push(
        <g key={`${group} ${place}`}>
          <Wire d={`M${x} ${place === 0 ? RAIL : y - 14}V${y}`} />
          <OneDriver x={x} y={y} coils={coils} number={group * series + place + 1} />
          <Wire d={`M${x} ${y + HIGH}V${place === series - 1 ? bottom : y + HIGH}`} />
        </g>,
      );
    }
  }
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`-12 0 ${width + 12} ${bottom + 16}`}
      className="max-h-72 w-full max-w-[560px]"
      fontSize="11.5"
    >
      <rect
        x="2"
        y={RAIL - 14}
        width="54"
        height={bottom - RAIL + 28}
        rx="3"
        className="fill-rule stroke-rule-line"
      />
      <text x="29" y={(RAIL + bottom) / 2 + 4} textAnchor="middle" fontSize="9.5" className="fill-ink">
        Amplifier
      </text>
      <Pole x={56} y={RAIL} sign="+" />
      <Pole x={56} y={bottom} sign="−" />
      <Wire d={`M56 ${RAIL}H${last}`} />
      <Wire d={`M56 ${bottom}H${last}`} />
      {groups}
    </svg>
  );
}

function Wire({ d }: { d: string }) {
  return <path d={d} fill="none" strokeWidth="1.6" className="stroke-ink" />;
}

function Pole({ x, y, sign }: { x: number; y: number; sign: '+' | '−' }) {
  return (
    <g>
      <circle cx={x} cy={y} r="6.5" className={sign === '+' ? 'fill-short' : 'fill-ink'} />
      <text x={x} y={y + 4} textAnchor="middle" fontWeight="700" className="fill-paper">
        {sign}
      </text>
    </g>
  );
}

interface OneProps {
  x: number;
  y: number;
  coils: Props['coils'];
  number: number;
}

/** A driver with the terminals of its coils; + above, − below. */
function OneDriver({ x, y, coils, number }: OneProps) {
  const sides = coils === null ? [0] : [-15, 15];
  const stacked = coils === 'series';
  return (
    <g>
      <rect x={x - 36} y={y} width="72" height={HIGH} rx="4" className="fill-card stroke-line" />
      <text x={x - 33} y={y + 12} fontSize="10.5" className="fill-soft">
        {number}
      </text>
      {coils === null && <Wire d={`M${x} ${y}V${y + 16}M${x} ${y + 48}V${y + HIGH}`} />}
      {coils === 'parallel' && (
        <Wire
          d={`M${x} ${y}V${y + 6}M${x - 15} ${y + 16}V${y + 6}H${x + 15}V${y + 16}M${x - 15} ${y + 48}V${y + 58}H${x + 15}V${y + 48}M${x} ${y + 58}V${y + HIGH}`}
        />
      )}
      {stacked && (
        <Wire
          d={`M${x} ${y}V${y + 6}H${x - 15}V${y + 16}M${x - 15} ${y + 48}V${y + 55}H${x}V${y + 9}H${x + 15}V${y + 16}M${x + 15} ${y + 48}V${y + 60}H${x}V${y + HIGH}`}
        />
      )}
      {coils !== null && !stacked && coils !== 'parallel' && (
        <Wire d={`M${x} ${y}V${y + 6}H${x - 15}V${y + 16}M${x - 15} ${y + 48}V${y + 58}H${x}V${y + HIGH}`} />
      )}
      {coils === 'one_shorted' && (
        <Wire d={`M${x + 15} ${y + 16}V${y + 10}H${x + 30}V${y + 54}H${x + 15}V${y + 48}`} />
      )}
      {coils === 'one_loaded' && (
        <>
          <Wire
            d={`M${x + 15} ${y + 16}V${y + 10}H${x + 30}V${y + 22}M${x + 30} ${y + 42}V${y + 54}H${x + 15}V${y + 48}`}
          />
          <rect x={x + 26} y={y + 22} width="8" height="20" className="fill-paper stroke-ink" />
        </>
      )}
      {sides.map((side, index) => (
        <Coil key={side} x={x + side} y={y + 16} idle={index === 1 && (coils ?? '').startsWith('one')} />
      ))}
    </g>
  );
}

function Coil({ x, y, idle }: { x: number; y: number; idle: boolean }) {
  return (
    <g>
      <path
        d={`M${x} ${y}c9 0 9 8 0 8c9 0 9 8 0 8c9 0 9 8 0 8c9 0 9 8 0 8`}
        fill="none"
        strokeWidth="1.6"
        strokeDasharray={idle ? '3 2' : undefined}
        className="stroke-oak"
      />
      <circle cx={x} cy={y} r="2.6" className="fill-short" />
      <circle cx={x} cy={y + 32} r="2.6" className="fill-ink" />
      <text x={x - 10} y={y + 5} fontSize="10.5" className="fill-short">
        +
      </text>
      <text x={x - 10} y={y + 36} fontSize="10.5" className="fill-ink">
        −
      </text>
    </g>
  );
}
