// Figures of a report in words.

import { FLARED, STRAIGHT } from '../../lanes/lane';
import { noteAt } from '../../model/notes';
import { hertz, significant } from '../../model/units';
import type { Check, Report } from '../../schema/types';

export type Verdict = 'met' | 'careful' | 'short' | 'plain';

export interface Chip {
  id: string;
  name: string;
  figure: string;
  verdict: Verdict;
  words: string;
  meaning: string;
}

/** The strip above the lanes: what there is, whatever the kind of cabinet. */
export function chips(report: Report): Chip[] {
  const { figures } = report;
  return [
    lowest(report),
    ...(figures.fb ? [tuning(report)] : []),
    ...(figures.qtc && figures.reference === 'piston' && !figures.fb ? closed(report) : []),
    ...(figures.ports.length ? [port(report)] : []),
    ...(figures.passage && !figures.ports.length ? [way(report)] : []),
    ...(figures.radiator_travel ? [radiator(report)] : []),
    ...(figures.air_speed ? [air(report)] : []),
    cone(report),
    load(report),
    level(report),
  ];
}

/** Figures that a check says already. */
const SAID: Record<string, string> = {
  lowest: 'f3',
  loudness: 'level',
  air: 'air',
  cone: 'cone',
  load: 'load',
};
/** As many as can be read side by side. */
const MOST = 8;

/** The checks of the brief, then the figures that they do not say. */
export function strip(report: Report, checks: readonly Check[]): Chip[] {
  const said = new Set(checks.map(({ id }) => SAID[id]));
  const others = chips(report).filter(({ id }) => !said.has(id));
  return [...checks.map(asChip), ...others].slice(0, Math.max(MOST, checks.length));
}

function asChip({ id, name, reached, verdict, words, why }: Check): Chip {
  const seen = verdict === 'unknown' ? 'careful' : verdict;
  return { id: `brief-${id}`, name, figure: reached, verdict: seen, words, meaning: why };
}

function lowest({ figures }: Report): Chip {
  if (figures.reference === 'passband') {
    return {
      id: 'f3',
      name: 'Passband, −3 dB',
      figure: figures.f3 ? `${significant(figures.f3, 3)} to ${hertz(figures.f3_upper)}` : '–',
      verdict: 'plain',
      words: `${figures.f3 ? `from ${noteAt(figures.f3)}, ` : ''}ripple ${figures.ripple.toFixed(1)} dB`,
      meaning:
        'Where the level lies within 3 dB of the mean power of the band. The reference is that mean, not what the driver would do in a plain box.',
    };
  }
  return {
    id: 'f3',
    name: 'F3, lowest note',
    figure: figures.f3 ? `${hertz(figures.f3)} ${noteAt(figures.f3)}` : '–',
    verdict: 'plain',
    words: figures.f10 ? `−10 dB at ${hertz(figures.f10)}` : 'above what is shown',
    meaning:
      'Where the level has fallen by 3 dB from its passband level. A note is still well heard down to −6 dB or more, helped by the room.',
  };
}

function tuning({ figures }: Report): Chip {
  const still = figures.excursion_minimum;
  const words = figures.fb_rear
    ? `rear chamber ${hertz(figures.fb_rear)}`
    : figures.notch
      ? `notch at ${hertz(figures.notch)}`
      : figures.passage && !figures.ports.length
        ? still
          ? `cone rests at ${hertz(still.frequency)}`
          : 'too much fill for the cone to rest'
        : figures.fb_impedance
          ? `impedance dips at ${hertz(figures.fb_impedance)}`
          : 'no dip in the impedance';
  return {
    id: 'fb',
    name: figures.fb_rear ? 'Fb, front tuning' : 'Fb, tuning',
    figure: hertz(figures.fb),
    verdict: 'plain',
    words,
    meaning: `Where the air in the port, line or radiator does the work and the cone nearly stands still. A measurement finds it as the dip between the two peaks of the impedance.${figures.fb_helmholtz ? ` Helmholtz's formula gives ${hertz(figures.fb_helmholtz)}.` : ''}`,
  };
}

function port({ figures }: Report): Chip {
  const [first] = figures.ports;
  return {
    id: 'port',
    name: 'Port length',
    figure: first ? `${significant(first.length * 1000, 3)} mm` : '–',
    verdict: 'plain',
    words: first ? `pipe resonance at ${hertz(first.pipe_resonance)}` : '',
    meaning:
      'Length of each port between its ends, end corrections taken off. The pipe itself resonates where half a wave fits into it.',
  };
}

function way({ figures }: Report): Chip {
  const { length = 0, volume = 0, cutoff = null } = figures.passage ?? {};
  return {
    id: 'way',
    name: 'Path, unrolled',
    figure: `${significant(length, 3)} m`,
    verdict: 'plain',
    words: `${cutoff ? `cut-off ${hertz(cutoff)}, ` : ''}holds ${significant(volume * 1000, 3)} l`,
    meaning:
      'Length of the line or horn along its middle, and the air in it. A widening path lets little through below its cut-off, m c/(4 pi) of an exponential horn with the same ends.',
  };
}

function radiator({ figures }: Report): Chip {
  const travel = figures.radiator_travel;
  return {
    id: 'radiator',
    name: 'Radiator travel',
    figure: travel ? `${significant(travel.value * 1e3, 2)} mm` : '–',
    verdict: 'plain',
    words: travel ? `at ${hertz(travel.frequency)}` : '',
    meaning:
      'Largest one-way travel of a radiator from F3 up. It must move at least twice the air of the driver (common practice); its own limit shows in the ribbon.',
  };
}

function air({ figures }: Report): Chip {
  const speed = figures.air_speed;
  const judged: [Verdict, string] = !speed
    ? ['plain', '']
    : speed.value <= STRAIGHT
      ? ['met', 'quiet with straight edges']
      : speed.value <= FLARED
        ? ['careful', `over ${STRAIGHT}: flare both ends`]
        : ['short', `over ${FLARED}: make it wider`];
  return {
    id: 'air',
    name: figures.fastest_opening?.startsWith('Port')
      ? 'Air speed'
      : `Air in the ${(figures.fastest_opening ?? 'port').toLowerCase()}`,
    figure: speed ? `${significant(speed.value, 3)} m/s` : '–',
    verdict: judged[0],
    words: judged[1],
    meaning: `Fastest air in the port, peak, at ${hertz(speed?.frequency)}. Common practice: a port with straight edges is heard above ${STRAIGHT} m/s, one with flared ends above ${FLARED} m/s.`,
  };
}

function closed({ figures }: Report): Chip[] {
  const qtc = figures.qtc ?? 0;
  const kind =
    qtc < 0.6 ? 'tight, falls early' : qtc <= 0.75 ? 'flat' : qtc <= 1.05 ? 'a little full' : 'boomy';
  return [
    {
      id: 'fc',
      name: 'Fc, resonance',
      figure: hertz(figures.fc),
      verdict: 'plain',
      words: 'driver in this box',
      meaning: 'Resonance of the driver on the spring of its suspension and of the air in the box.',
    },
    {
      id: 'qtc',
      name: 'Qtc',
      figure: significant(qtc, 3),
      verdict: 'plain',
      words: kind,
      meaning:
        'How the box behaves at its resonance: 0.5 does not overshoot, 0.577 has the flattest delay, 0.707 the flattest level, above 1 the bass stands out.',
    },
  ];
}

function cone({ figures, driver, traces }: Report): Chip {
  const travel = figures.excursion_in_band;
  const within = driver.xmax && travel ? travel.value <= driver.xmax : null;
  const free = figures.within_xmax_above;
  const lowest = traces[0]?.frequency[0] ?? 0;
  const words =
    within === null
      ? 'Xmax not given'
      : within
        ? free && free > lowest
          ? `within Xmax above ${hertz(free)}`
          : 'within Xmax everywhere'
        : `over Xmax by ${significant((travel?.value ?? 0) * 1e3 - (driver.xmax ?? 0) * 1e3, 2)} mm`;
  return {
    id: 'cone',
    name: 'Cone travel',
    figure: travel
      ? `${significant(travel.value * 1e3, 2)}${driver.xmax ? ` of ${significant(driver.xmax * 1e3, 3)}` : ''} mm`
      : '–',
    verdict: within === null ? 'plain' : within ? 'met' : 'short',
    words,
    meaning: `Largest one-way travel from F3 up${travel ? `, at ${hertz(travel.frequency)}` : ''}, at the drive that is set. Below the tuning of a port nothing holds the cone: filter what is lower.`,
  };
}

function load({ figures, volts }: Report): Chip {
  return {
    id: 'load',
    name: 'Minimum impedance',
    figure: `${significant(figures.impedance_minimum.value, 2)} Ω`,
    verdict: 'plain',
    words: `at ${hertz(figures.impedance_minimum.frequency)} · ${significant(volts, 3)} V drive`,
    meaning: 'Lowest impedance in the range shown. The amplifier must be made for it.',
  };
}

const SPACES: Record<string, string> = {
  full: ', free all round',
  half: '',
  quarter: ', against a wall',
  eighth: ', in a corner',
};

function level({ figures, space }: Report): Chip {
  const horn = figures.efficiency.value > 0.1;
  return {
    id: 'level',
    name: `SPL at 1 m${SPACES[space] ?? ''}`,
    figure: `${figures.reference_level.toFixed(1)} dB`,
    verdict: 'plain',
    words: horn
      ? `efficiency up to ${Math.round(figures.efficiency.value * 100)} %`
      : `group delay up to ${significant(figures.group_delay.value * 1e3, 2)} ms`,
    meaning:
      'Passband level at the drive that is set, in half space unless another space is set, without a room. Each wall that halves the space adds 6 dB. The delay is the largest from −10 dB up.',
  };
}
