// What was measured of a build: documents of their own, and which of them say something of a variant.

import type { RawDesign, RawMeasurement, RawTraceKind, ReadMeasurement, Typed } from '../schema/types';
import { localMoment } from './moment';
import type { Bench, Workbench } from './workbench';

export interface KeptMeasurement {
  id: string;
  measurement: RawMeasurement;
}

/** What each kind is called. */
export const KINDS: Record<RawTraceKind, string> = {
  loopback: 'Electrical chain',
  impedance_free: 'Impedance in free air',
  impedance_mass: 'Impedance with a mass',
  impedance_blocked: 'Impedance, port shut',
  impedance_box: 'Impedance of the box',
  nearfield_cone: 'Near field of the cone',
  nearfield_port: 'Near field of the port',
  nearfield_radiator: 'Near field of the radiator',
  seat: 'At the seat',
};

export const isImpedance = (of: RawTraceKind): boolean => of.startsWith('impedance');

/** Of a box as it was then; a driver and the chain stay when a box is changed. */
export const isOfBox = (of: RawTraceKind): boolean =>
  !['loopback', 'impedance_free', 'impedance_mass'].includes(of);

/** Every measurement of a build, newest first. */
export const measurementsOn = ({ kept }: Pick<Bench, 'kept'>): KeptMeasurement[] =>
  kept
    .filter(({ kind, archived }) => kind === 'measurement' && !archived)
    .map(({ id, content }) => ({ id, measurement: content as RawMeasurement }))
    .sort((a, b) => b.measurement.at.localeCompare(a.measurement.at));

const numberOf = (driver: Typed | null | undefined): number => Number(driver ?? 1);

/** Which place of the plan a measurement takes. */
const place = ({ of, driver }: Pick<RawMeasurement, 'of' | 'driver'>): string =>
  ['impedance_free', 'impedance_mass', 'nearfield_cone'].includes(of) ? `${of} ${numberOf(driver)}` : of;

/** What a measurement is of: one of each is used, the newest; levels and angles stand beside each other. */
const slot = (one: RawMeasurement): string => [place(one), one.sweep_level ?? '', one.angle ?? ''].join(' ');

/** Whether it is of a box, and neither of the variant's nor of the one that it was made from. */
export const isOfAnother = ({ of, variant }: RawMeasurement, { name, measured }: RawDesign): boolean =>
  isOfBox(of) && variant !== name && (!variant || variant !== measured?.found?.of);

/** The measurements that say something of a variant: of its box those that were made of it or that it was made from, of drivers and the chain those of the build. */
export function usedFor(all: readonly KeptMeasurement[], design: RawDesign): KeptMeasurement[] {
  const seen = new Set<string>();
  return all.filter(({ measurement }) => {
    if (measurement.left_out || isOfAnother(measurement, design)) return false;
    const here = slot(measurement);
    if (seen.has(here)) return false;
    seen.add(here);
    return true;
  });
}

/** The one that a step of the plan asks for, where it was made. */
export const madeFor = (
  used: readonly KeptMeasurement[],
  step: { of: RawTraceKind; driver?: number | null },
): KeptMeasurement | undefined =>
  used.find(({ measurement }) => place(measurement) === place({ of: step.of, driver: step.driver ?? 1 }));

/** What is known of a measurement beside its points. */
export type About = Partial<
  Pick<
    RawMeasurement,
    | 'driver'
    | 'added_mass'
    | 'distance'
    | 'angle'
    | 'drive'
    | 'room_temperature'
    | 'file'
    | 'raw'
    | 'calibration'
    | 'sweep_level'
    | 'notes'
  >
>;

/** A trace that was read as a measurement of a variant. */
export function measurementOf(
  of: RawTraceKind,
  source: RawMeasurement['source'],
  design: RawDesign,
  read: ReadMeasurement,
  about: About,
  now: Date,
): RawMeasurement {
  const said = Object.entries(about).filter(
    ([, value]) => value !== null && value !== undefined && value !== '',
  );
  return {
    of,
    source,
    at: localMoment(now),
    variant: design.name,
    ...(Object.fromEntries(said) as About),
    phased: read.phased,
    points: read.points,
    ...(read.harmonics.length > 0 && { harmonics: read.harmonics }),
    ...(read.remarks.length > 0 && { remarks: read.remarks.slice(0, 20) }),
  };
}

export function keepMeasurement(
  workbench: Workbench,
  { id, measurement }: KeptMeasurement,
  label = 'measurement',
): void {
  workbench.keep({ kind: 'measurement', id, content: measurement, archived: false }, label);
}

export function archiveMeasurement(workbench: Workbench, { id, measurement }: KeptMeasurement): void {
  workbench.keep({ kind: 'measurement', id, content: measurement, archived: true }, 'archive');
}

/** A measurement as a text that any program reads. */
export function asText({ of, points, phased, at, variant }: RawMeasurement): string {
  const unit = isImpedance(of) ? 'Z (ohm)' : 'Level (dB)';
  const head = [
    `* ${KINDS[of]}, ${variant ?? ''}, ${at}`,
    `Frequency (Hz)\t${unit}${phased ? '\tPhase (deg)' : ''}`,
  ];
  const rows = points.map((point) => (phased ? point : point.slice(0, 2)).join('\t'));
  return `${[...head, ...rows].join('\n')}\n`;
}

/** A value with two standard errors, to the digit that they leave and no further than four of the value. */
export function plusMinus({ value, se }: { value: number; se: number }): string {
  const error = 2 * se;
  const most = Math.min(3, Math.max(0, 3 - Math.floor(Math.log10(Math.abs(value) || 1e-9))));
  const told = error > 0 ? Math.min(3, Math.max(0, -Math.floor(Math.log10(error)))) : 3;
  const digits = Math.min(told, most);
  if (error <= 0) return value.toFixed(digits);
  const step = 10 ** -digits;
  return `${value.toFixed(digits)} ± ${(Math.max(1, Math.ceil(error / step)) * step).toFixed(digits)}`;
}

/** Traces as columns of a text, of each its own frequencies beside its levels. */
export function asColumns(
  traces: readonly { name: string; points: readonly (readonly number[])[] }[],
): string {
  const longest = Math.max(0, ...traces.map(({ points }) => points.length));
  const head = traces.flatMap(({ name }) => ['Frequency (Hz)', name.replace(/\s+/g, ' ')]);
  const rows = Array.from({ length: longest }, (_, k) =>
    traces.flatMap(({ points }) => {
      const [frequency, level] = points[k] ?? [];
      return [frequency?.toFixed(3) ?? '', level?.toFixed(2) ?? ''];
    }),
  );
  return [head, ...rows].map((cells) => cells.join('\t')).join('\n');
}
