// Small pictures for what is asked on the way to a first box.

import type { ReactNode } from 'react';

const line = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 1.6, strokeLinejoin: 'round' } as const;
const oak = { fill: 'var(--rule)', stroke: 'var(--oak)', strokeWidth: 1.6, strokeLinejoin: 'round' } as const;

function Picture({ children }: { children: ReactNode }) {
  return (
    <svg viewBox="0 0 64 40" className="h-10 w-16 shrink-0" aria-hidden="true">
      {children}
    </svg>
  );
}

const TEMPLATES: Record<string, ReactNode> = {
  // A screen, a settee, a box.
  home_both: (
    <>
      <path {...line} d="M6 5h26v15H6zM19 20v4M13 24h12M38 22v13h22V22M38 29h22" />
      <path {...oak} d="M6 27h12v9H6z" />
    </>
  ),
  home_film: (
    <>
      <path {...line} d="M10 4h44v21H10zM27 12l9 5-9 5z" />
      <path {...oak} d="M24 28h16v9H24z" />
    </>
  ),
  home_music: (
    <>
      <path {...line} d="M8 8h13v28H8zM43 8h13v28H43zM14.5 15a3 3 0 1 0 .1 0M49.500 15a3 3 0 1 0 .1 0" />
      <path {...oak} d="M26 22h12v14H26z" />
    </>
  ),
  car: (
    <>
      <path {...line} d="M4 28v-8l10-3 8-9h20l10 9 8 3v8zM22 8v9M14 17h40" />
      <path {...line} d="M17 28a4.500 4.500 0 1 0 .1 0M47 28a4.500 4.500 0 1 0 .1 0" />
      <path {...oak} d="M45 18h10v8H45z" />
    </>
  ),
  car_seat: (
    <>
      <path {...line} d="M16 4c8 0 8 4 8 17h22c6 0 6 8 0 8H18c-4 0-4-2-4-6z" />
      <path {...oak} d="M18 31h28v6H18z" />
    </>
  ),
  bass_guitar: (
    <>
      <path
        {...line}
        d="M60 5 36 22M57 3l5 5M36 22c-4-5-10-3-12 1-8-2-14 4-10 10 5 6 14 3 14-4 6 0 9-3 8-7z"
      />
      <path {...oak} d="M42 24h16v13H42z" />
    </>
  ),
  organ: (
    <>
      <path {...line} d="M8 36V14l3-4 3 4v22M17 36V9l3-4 3 4v27M26 36V4l3-3 3 3v32M35 36V9l3-4 3 4v27" />
      <path {...oak} d="M46 14h14v22H46z" />
    </>
  ),
  outdoor: (
    <>
      <path
        {...line}
        d="M2 36h60M14 36v-9M14 27c-9 0-9-9-3-10 0-8 10-8 10-1 7 1 6 11-7 11zM50 10a5 5 0 1 0 .1 0"
      />
      <path {...oak} d="M30 20h15v16H30z" />
    </>
  ),
  two_way: (
    <>
      <path {...oak} d="M22 4h20v33H22z" />
      <path {...line} d="M32 9a3 3 0 1 0 .1 0M32 19a7 7 0 1 0 .1 0" />
    </>
  ),
};

export function TemplatePicture({ id }: { id: string }) {
  return <Picture>{TEMPLATES[id] ?? TEMPLATES.home_both}</Picture>;
}

/** A note on the rule of frequencies from 16 to 130 Hz. */
export function NotePicture({ hertz }: { hertz: number }) {
  const x = (frequency: number) => 4 + (56 * Math.log2(frequency / 16)) / Math.log2(130 / 16);
  return (
    <Picture>
      <path d="M4 14h56v12H4z" fill="var(--rule)" stroke="var(--rule-line)" />
      {[16, 20, 30, 40, 50, 60, 80, 100, 120].map((tick) => (
        <path key={tick} d={`M${x(tick)} 14v5`} stroke="var(--rule-line)" />
      ))}
      <path d={`M${x(hertz)} 26v-20M${x(hertz) - 4} 6h8`} stroke="var(--oak)" strokeWidth="2.2" fill="none" />
      <path d={`M${x(hertz)} 26H60`} stroke="var(--oak)" strokeWidth="4" />
    </Picture>
  );
}

/** How loud, as bars of 85 to 120 dB. */
export function LoudPicture({ decibels }: { decibels: number }) {
  return (
    <Picture>
      {[85, 90, 95, 100, 105, 110, 115, 120].map((step, at) => (
        <path
          key={step}
          d={`M${5 + at * 7} 36v-${6 + at * 3.8}h5v${6 + at * 3.8}z`}
          fill={step <= decibels ? 'var(--oak)' : 'var(--grid)'}
        />
      ))}
    </Picture>
  );
}

/** A box beside a hand 19 cm long. */
export function SizePicture({ sides }: { sides: readonly [number, number, number] }) {
  const scale = 36 / 0.95;
  const [width, height, depth] = sides.map((side) => side * scale) as [number, number, number];
  const aside = depth * 0.35;
  const bottom = 38;
  const left = 18;
  return (
    <Picture>
      <path
        {...line}
        d={`M8 ${bottom}v-${0.1 * scale}c-3-2-3-4-1-6M8 ${bottom - 0.1 * scale}v-${0.09 * scale}M10.500 ${bottom - 0.1 * scale}v-${0.085 * scale}M6 ${bottom}h6`}
      />
      <path {...oak} d={`M${left} ${bottom}v-${height}h${width}v${height}z`} />
      <path
        {...oak}
        d={`M${left} ${bottom - height}l${aside} -${aside * 0.6}h${width}v${height}l-${aside} ${aside * 0.6}M${left + width} ${bottom - height}l${aside} -${aside * 0.6}`}
      />
    </Picture>
  );
}
