import type { ReactNode } from 'react';
import type { RawBrief } from '../schema/types';

const line = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 1.6, strokeLinejoin: 'round' } as const;
const oak = { fill: 'var(--rule)', stroke: 'var(--oak)', strokeWidth: 1.6, strokeLinejoin: 'round' } as const;

/** A box in its surroundings, seen from above. */
const SPACES: Record<NonNullable<RawBrief['space']>, ReactNode> = {
  full: <path {...oak} d="M26 13h12v12H26z" />,
  half: (
    <>
      <path {...line} d="M4 34h56" />
      <path {...oak} d="M26 21h12v12H26z" />
    </>
  ),
  quarter: (
    <>
      <path {...line} d="M4 34h56V3" />
      <path {...oak} d="M26 21h12v12H26z" />
      <path {...line} d="M42 27h16" strokeDasharray="2 2" />
    </>
  ),
  eighth: (
    <>
      <path {...line} d="M4 34h56V3M60 34 44 18" />
      <path {...oak} d="M46 21h12v12H46z" />
    </>
  ),
};

export function SpacePicture({ space }: { space: NonNullable<RawBrief['space']> }) {
  return (
    <svg viewBox="0 0 64 40" className="h-10 w-16 shrink-0" aria-hidden="true">
      {SPACES[space]}
    </svg>
  );
}
