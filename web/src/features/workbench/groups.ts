// Which values a cabinet has, in groups that open together.

import { portsAt } from '../../model/design';
import { hasTwoChambers, hasWay } from '../../model/families';
import type { RawDesign, Report } from '../../schema/types';

export interface Row {
  name: string;
  /** Places the value may stand at; the first unless another is in use. */
  paths: [string, ...string[]];
  /** What it comes to where it is not given. */
  follows?: (report: Report) => number | null | undefined;
  /** Whether it follows although a value is written. */
  led?: (report: Report) => boolean;
  /** Whether it says nothing in the conditions that are shown. */
  hidden?: (report: Report) => boolean;
  /** May be left out. */
  optional?: boolean;
  /** For who wants to turn what is usual; folded until then. */
  advanced?: boolean;
}

/** What can be chosen beside a group's values. */
export type Kind =
  | { of: 'port'; chamber: string; at: number }
  | { of: 'inner_end'; chamber: string; at: number }
  | { of: 'segment'; at: number }
  | { of: 'chamber'; chamber: string }
  | { of: 'stub' }
  /** The way as a curve of its area. */
  | { of: 'curve' }
  | { of: 'drivers' }
  | { of: 'place' };

export interface Group {
  id: string;
  name: string;
  /** Values with a rule to drag. */
  ruled: Row[];
  /** Values that are only typed or nudged. */
  plain: Row[];
  kinds: Kind[];
}

const DRIVE: Row = {
  name: 'Drive',
  paths: ['signal.drive.voltage', 'signal.drive.power'],
  follows: (report) => report.volts,
  hidden: (report) => report.drive === 'bench',
  optional: true,
};

function chamberRows(chamber: string, name = 'Volume Vb'): Row[] {
  return [
    {
      name,
      paths: [`${chamber}.volume`],
      follows: (report) => report.as_built.volumes[chamber === 'enclosure' ? 0 : 1],
      led: (report) => report.as_built.follows.includes('volume'),
    },
  ];
}

function losses(design: RawDesign, chamber: string): Row[] {
  const here = chamber === 'enclosure' ? design.enclosure : design.enclosure.front;
  const fill = ({ as_built }: Report) => as_built.fills[chamber === 'enclosure' ? 0 : 1];
  return [
    ...(here?.fill_density ? [{ name: 'Fill', paths: [`${chamber}.fill_density`] as [string] }] : []),
    { name: 'Leakage (QL)', paths: [`${chamber}.ql`], optional: true, advanced: true },
    {
      name: 'Absorption (QA)',
      paths: [`${chamber}.qa`],
      follows: (report) => fill(report)?.qa,
      optional: true,
      advanced: true,
    },
    ...(here?.fill || here?.fill_density
      ? [
          {
            name: 'Gain',
            paths: [`${chamber}.gain`] as [string],
            follows: (report: Report) => fill(report)?.gain,
            optional: true,
          },
        ]
      : []),
  ];
}

const tuningOf = (chamber: string) => (report: Report) =>
  chamber === 'enclosure' ? (report.figures.fb_rear ?? report.figures.fb) : report.figures.fb;

function portsOf(chamber: string, report: Report) {
  const rear = report.figures.rear_ports;
  return chamber === 'enclosure' && rear.length ? rear : report.figures.ports;
}

function portRows(design: RawDesign, chamber: string, at: number): Row[] {
  const place = `${chamber}.ports[${at}]`;
  const port = portsAt(design, chamber)[at];
  const across = port?.inner_end === 'three_walls';
  const width = (report: Report) => (across ? portsOf(chamber, report)[at]?.width : null);
  const shapes: Record<string, Row[]> = {
    round: [{ name: 'Diameter', paths: [`${place}.diameter`] }],
    slot: [
      { name: 'Slot width', paths: [`${place}.width`], follows: width, optional: across },
      { name: 'Slot height', paths: [`${place}.height`] },
    ],
    corner: [{ name: 'Side', paths: [`${place}.side`] }],
  };
  const sizes = shapes[port?.shape ?? 'round'] ?? [];
  const follows = (report: Report) => portsOf(chamber, report)[at]?.length;
  return [...sizes, { name: 'Port length', paths: [`${place}.length`], follows }];
}

/** How many equal ports there are, and how high a slot is in its middle. */
function portDetails(design: RawDesign, chamber: string, at: number): Row[] {
  const place = `${chamber}.ports[${at}]`;
  const ports: Row = { name: 'Ports', paths: [`${place}.count`], follows: () => 1 };
  const slot = portsAt(design, chamber)[at]?.shape === 'slot';
  return slot
    ? [ports, { name: 'Height in the middle', paths: [`${place}.waist`], optional: true }]
    : [ports];
}

const portKinds = (chamber: string, at: number): Kind[] => [
  { of: 'port', chamber, at },
  { of: 'inner_end', chamber, at },
];

/** A chamber with its ports: with one port all in one group, with several a group each. */
function ported(design: RawDesign, chamber: string, id: string, name: string): Group[] {
  const ports = portsAt(design, chamber);
  const tuning: Row = { name: 'Tuning Fb', paths: [`${chamber}.tuning`], follows: tuningOf(chamber) };
  const rows = [...chamberRows(chamber), tuning];
  const kinds: Kind[] = [{ of: 'chamber', chamber }];
  if (ports.length < 2) {
    const ruled = [...rows, ...portRows(design, chamber, 0)];
    return [
      {
        id,
        name,
        ruled,
        plain: [...portDetails(design, chamber, 0), ...losses(design, chamber)],
        kinds: [...portKinds(chamber, 0), ...kinds],
      },
    ];
  }
  const each = ports.map(
    (_, at): Group => ({
      id: `${id}-port-${at}`,
      name: `Port ${at + 1}`,
      ruled: portRows(design, chamber, at),
      plain: [
        ...portDetails(design, chamber, at),
        { name: 'Extra path', paths: [`${chamber}.ports[${at}].path`], optional: true },
      ],
      kinds: portKinds(chamber, at),
    }),
  );
  return [{ id, name, ruled: rows, plain: losses(design, chamber), kinds }, ...each];
}

function closed(design: RawDesign, chamber: string, id: string, name: string, more: Row[] = []): Group {
  const kinds: Kind[] = [{ of: 'chamber', chamber }];
  return { id, name, ruled: [...chamberRows(chamber), ...more], plain: losses(design, chamber), kinds };
}

function radiator(): Group {
  const at = (name: string) => `enclosure.radiator.${name}`;
  return {
    id: 'radiator',
    name: 'Radiators',
    ruled: [
      { name: 'Added mass', paths: [at('added_mass')], follows: () => null },
      { name: 'Bare mass', paths: [at('mass')] },
      { name: 'Area Sp', paths: [at('area')] },
      { name: 'Cmp', paths: [at('compliance')] },
    ],
    plain: [
      { name: 'Radiators', paths: [at('count')], follows: () => 1 },
      { name: 'Xmax', paths: [at('xmax')], optional: true },
      { name: 'Rmp', paths: [at('resistance')], optional: true, advanced: true },
    ],
    kinds: [],
  };
}

function segments(design: RawDesign): Group[] {
  const all = design.enclosure.passage?.segments ?? [];
  return all.map((segment, at): Group => {
    const place = (name: string) => `enclosure.passage.segments[${at}].${name}`;
    const before = at > 0 && !segment.start;
    const first: Row = { name: 'Start area', paths: [place('start')], optional: at > 0 };
    return {
      id: `segment-${at}`,
      name: all.length === 1 ? passageName(design) : `Segment ${at + 1}`,
      ruled: [
        { name: 'Length', paths: [place('length')] },
        ...(before ? [] : [first]),
        { name: 'End area', paths: [place('end')] },
      ],
      plain: [
        { name: 'Fill', paths: [place('fill_density')], optional: true },
        ...(segment.fill_density
          ? [
              { name: 'Fill across', paths: [place('fill_share')] as [string], optional: true },
              {
                name: 'Resistivity',
                paths: [place('fill_resistivity')] as [string],
                optional: true,
                advanced: true,
              },
            ]
          : []),
        { name: 'Width', paths: [place('width')], optional: true },
        ...(segment.flare === 'hyperbolic'
          ? [{ name: 'T', paths: [place('t')] as [string], optional: true }]
          : []),
      ],
      kinds: [{ of: 'segment', at }],
    };
  });
}

/** What the only segment of a design is called. */
function passageName({ enclosure: { family } }: RawDesign): string {
  return family.endsWith('horn') ? 'Horn' : 'Segment';
}

const DRIVER_AT: Row = { name: 'Driver at', paths: ['enclosure.passage.driver_at'], optional: true };
const MOUTH_PATH: Row = {
  name: 'Extra path of the mouth',
  paths: ['enclosure.passage.path'],
  optional: true,
};

const COUPLING: Row = { name: 'Coupling', paths: ['enclosure.passage.chamber'], optional: true };

/** A closed side pipe at the drivers. */
function stub(design: RawDesign): Row[] {
  if (!design.enclosure.passage?.stub) return [];
  const at = (name: string) => `enclosure.passage.stub.${name}`;
  return [
    { name: 'Pipe length', paths: [at('length')] },
    { name: 'Pipe area', paths: [at('start')] },
    { name: 'Pipe fill', paths: [at('fill_density')], optional: true },
  ];
}

/** The way as it is drawn: its points are pulled. */
const CURVE: Group = { id: 'curve', name: 'Shape', ruled: [], plain: [], kinds: [{ of: 'curve' }] };

function wayGroups(design: RawDesign): Group[] {
  const { family } = design.enclosure;
  const rear = (name: string): Group => ({ ...closed(design, 'enclosure', 'rear', name), id: 'rear' });
  const along = (rows: Row[], name = 'Line'): Group => ({
    id: 'line',
    name,
    ruled: rows,
    plain: [],
    kinds: [],
  });
  switch (family) {
    case 'front_horn': {
      const throat = { ...closed(design, 'enclosure.front', 'throat', 'Throat'), ruled: [] };
      const volume: Row = { name: 'Throat chamber', paths: ['enclosure.front.volume'], optional: true };
      return [rear('Rear chamber'), ...segments(design), { ...throat, plain: [volume, ...throat.plain] }];
    }
    case 'tapped_horn': {
      const taps: Row[] = [DRIVER_AT, { name: 'Front at', paths: ['enclosure.passage.front_at'] }];
      return [along(taps, 'Taps'), ...segments(design)];
    }
    case 'back_horn':
      return [rear('Chamber'), ...segments(design)];
    case 'slot_flare':
      return [rear('Box'), ...segments(design)];
    default: {
      const mouth = family === 'line' ? [MOUTH_PATH] : [];
      const line: Group = {
        ...along([DRIVER_AT]),
        plain: [COUPLING, ...mouth, ...stub(design)],
        kinds: [{ of: 'stub' }],
      };
      const end =
        family === 'mass_loaded_line'
          ? portsAt(design, 'enclosure').map(
              (_, at): Group => ({
                id: `rear-port-${at}`,
                name: portsAt(design, 'enclosure').length > 1 ? `Port ${at + 1}` : 'Port',
                ruled: portRows(design, 'enclosure', at),
                plain: portDetails(design, 'enclosure', at),
                kinds: portKinds('enclosure', at),
              }),
            )
          : [];
      return [line, ...segments(design), ...end];
    }
  }
}

function cabinetGroups(design: RawDesign): Group[] {
  const { family } = design.enclosure;
  if (hasWay(family)) return [CURVE, ...wayGroups(design)];
  if (hasTwoChambers(family)) {
    const rear =
      family === 'bandpass4'
        ? [closed(design, 'enclosure', 'rear', 'Rear')]
        : ported(design, 'enclosure', 'rear', 'Rear');
    return [...rear, ...ported(design, 'enclosure.front', 'front', 'Front')];
  }
  switch (family) {
    case 'ported':
      return ported(design, 'enclosure', 'rear', 'Cabinet');
    case 'passive_radiator':
      return [closed(design, 'enclosure', 'rear', 'Box'), radiator()];
    case 'aperiodic':
      return [
        closed(design, 'enclosure', 'rear', 'Box', [{ name: 'Vent', paths: ['enclosure.vent_resistance'] }]),
      ];
    case 'open_baffle':
      return [
        {
          id: 'baffle',
          name: 'Baffle',
          ruled: [{ name: 'Baffle path', paths: ['enclosure.baffle_path'] }],
          plain: [],
          kinds: [],
        },
      ];
    case 'infinite_baffle':
      return [{ id: 'baffle', name: 'Wall', ruled: [], plain: [], kinds: [] }];
    default:
      return [closed(design, 'enclosure', 'rear', 'Cabinet')];
  }
}

function driversGroup({ driver_array }: RawDesign): Group {
  const pair = driver_array?.isobaric;
  const real = pair && !pair.ideal;
  const braked = driver_array?.coils === 'one_loaded';
  return {
    ...DRIVERS,
    plain: [
      ...DRIVERS.plain,
      ...(real
        ? [
            {
              name: 'Trapped air',
              paths: ['driver_array.isobaric.volume'],
              follows: trapped,
              optional: true,
            } as Row,
          ]
        : []),
      ...(braked
        ? [{ name: 'Resistor', paths: ['driver_array.idle_coil_resistance'], optional: true } as Row]
        : []),
    ],
  };
}

const trapped = (report: Report) => report.used.trapped;

const DRIVERS: Group = {
  id: 'drivers',
  name: 'Drivers',
  ruled: [],
  plain: [
    { name: 'In series', paths: ['driver_array.series'], follows: () => 1 },
    { name: 'In parallel', paths: ['driver_array.parallel'], follows: () => 1 },
    { name: 'Added mass', paths: ['driver_array.added_mass'], optional: true },
    { name: 'Break-in', paths: ['driver_array.break_in'], optional: true },
    { name: 'Series resistance', paths: ['driver_array.series_resistance'], optional: true },
    { name: 'Cable length', paths: ['driver_array.cable_length'], optional: true },
    { name: 'Cable core', paths: ['driver_array.cable_area'], follows: () => 2.5e-6, optional: true },
    { name: 'Coil temperature', paths: ['driver_array.coil_temperature'], optional: true, advanced: true },
  ],
  kinds: [{ of: 'drivers' }],
};

const SIGNAL: Group = {
  id: 'signal',
  name: 'Signal and space',
  ruled: [],
  plain: [
    { name: 'Amplifier', paths: ['signal.amplifier.power', 'signal.amplifier.voltage'], optional: true },
    { name: 'Current', paths: ['signal.amplifier.current'], optional: true },
    { name: 'Air temp.', paths: ['air.temperature'], follows: () => 20, optional: true, advanced: true },
  ],
  kinds: [{ of: 'place' }],
};

/** Every group of a design; the drive stands in the first. */
export function groupsOf(design: RawDesign): Group[] {
  const [first, ...others] = cabinetGroups(design);
  const led = first ? [{ ...first, ruled: [...first.ruled, DRIVE] }] : [];
  const lone = portsAt(design, 'enclosure').length === 1 && design.enclosure.family === 'ported';
  const place: Row = { name: 'Extra path of the port', paths: ['enclosure.ports[0].path'], optional: true };
  const signal = lone ? { ...SIGNAL, plain: [...SIGNAL.plain, place] } : SIGNAL;
  return [...led, ...others, driversGroup(design), signal];
}
