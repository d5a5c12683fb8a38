import type { ReactNode } from 'react';
import type { RawTraceKind } from '../../schema/types';

const wood = {
  fill: 'var(--rule)',
  stroke: 'var(--oak)',
  strokeWidth: 1.6,
  strokeLinejoin: 'round',
} as const;
const air = { fill: 'var(--card)', stroke: 'var(--oak)', strokeWidth: 1.2 } as const;
const ink = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 1.5, strokeLinecap: 'round' } as const;
const lead = { ...ink, stroke: 'var(--river)', strokeWidth: 1.4 } as const;

/** A driver that lies or hangs with its cone to the left. */
const driver = (x: number, y: number) => (
  <g transform={`translate(${x} ${y})`}>
    <path {...ink} d="M0 -15v30M0 -13 10 -5v10L0 13" />
    <path fill="var(--cone)" stroke="var(--ink)" strokeWidth="1.5" d="M10 -9h7v18h-7z" />
  </g>
);

/** The jig: a resistor between amplifier and load. */
const jig = (x: number, y: number) => (
  <g transform={`translate(${x} ${y})`}>
    <path fill="var(--card)" stroke="var(--ink)" strokeWidth="1.5" d="M0 0h30v18H0z" />
    <path {...ink} d="M4 9h4l1.5 -4 3 8 3 -8 3 8 1.5 -4h4" />
  </g>
);

const microphone = (x: number, y: number) => (
  <g transform={`translate(${x} ${y})`}>
    <circle cx="0" cy="0" r="3.4" fill="var(--river)" stroke="var(--ink)" strokeWidth="1" />
    <path {...ink} strokeWidth="2.4" d="M-4 0h-20" />
  </g>
);

/** A box seen from the side, its front to the left: driver above, port below. */
const box = (shut = false) => (
  <>
    <path {...wood} d="M60 8h58v84H60z" />
    <path {...air} d="M65 13h48v74H65z" />
    {driver(61, 36)}
    <path {...wood} fill="var(--card)" d="M60 70h30v12H60z" />
    {shut && <path fill="var(--ink)" d="M53 66h7v20h-7z" />}
  </>
);

const leads = (to: string) => <path {...lead} d={to} />;

const PICTURES: Record<RawTraceKind, ReactNode> = {
  loopback: (
    <>
      <path fill="var(--card)" stroke="var(--ink)" strokeWidth="1.5" d="M10 36h34v26H10zM78 30h34v38H78z" />
      <text x="27" y="52" textAnchor="middle" fontSize="8.5" fill="var(--ink)">
        card
      </text>
      <text x="95" y="52" textAnchor="middle" fontSize="8.5" fill="var(--ink)">
        amp
      </text>
      {leads('M44 42h34M112 48h8v34H24V62')}
    </>
  ),
  impedance_free: (
    <>
      {driver(78, 46)}
      {jig(14, 62)}
      {leads('M44 68h46v-12M44 76h52V54')}
      <path {...ink} strokeDasharray="2 3" d="M68 20v52M104 20v52" />
    </>
  ),
  impedance_mass: (
    <>
      {driver(78, 46)}
      <circle cx="82" cy="46" r="4.5" fill="var(--oak)" stroke="var(--ink)" strokeWidth="1" />
      {jig(14, 62)}
      {leads('M44 68h46v-12M44 76h52V54')}
    </>
  ),
  impedance_blocked: (
    <>
      {box(true)}
      {jig(10, 28)}
      {leads('M25 46v50h100V50h-8')}
    </>
  ),
  impedance_box: (
    <>
      {box()}
      {jig(10, 28)}
      {leads('M25 46v50h100V50h-8')}
    </>
  ),
  nearfield_cone: (
    <>
      {box()}
      {microphone(55, 36)}
    </>
  ),
  nearfield_port: (
    <>
      {box()}
      {microphone(60, 76)}
    </>
  ),
  nearfield_radiator: (
    <>
      <path {...wood} d="M60 8h58v84H60z" />
      <path {...air} d="M65 13h48v74H65z" />
      {driver(61, 32)}
      <path {...ink} d="M61 58v26M61 60l8 6v10l-8 6" />
      {microphone(55, 71)}
    </>
  ),
  seat: (
    <>
      <path {...wood} d="M96 44h26v44H96z" />
      <path {...ink} d="M96 58l6 4v8l-6 4" />
      <circle cx="28" cy="40" r="8" {...ink} />
      <path {...ink} d="M16 88V66q0 -12 12 -12t12 12v22" />
      {microphone(46, 40)}
      <path {...ink} strokeDasharray="2 4" d="M54 40Q74 42 92 62" />
    </>
  ),
};

/** How a measurement is set up, from the side. */
export function SetupPicture({ of }: { of: RawTraceKind }) {
  return (
    <svg viewBox="0 0 132 100" className="h-24 w-32 shrink-0" aria-hidden="true">
      {PICTURES[of]}
    </svg>
  );
}
