import type { PlaceReport } from '../../schema/types';
import { Table } from '../../ui/Table';
import type { PanelProps } from './panel';

type Mode = NonNullable<PlaceReport['room']>['modes'][number];

const percent = (share: number) => `${Math.round(share * 100)} %`;
/** Less than this is as good as nothing. */
const LITTLE = 0.15;
const KINDS = { pressure: '', axial: 'two walls', tangential: 'four walls', oblique: 'six walls' };

/** The standing waves of a room, with how much of each a cabinet drives and a seat hears. */
export function ModesPanel({ report }: PanelProps) {
  const room = report?.room;
  if (!room) return null;
  const strength = (name: string, of: (row: Mode) => number | undefined) => ({
    name,
    kind: 'figure' as const,
    cell: (row: Mode) => percent(of(row) ?? 0),
    className: (row: Mode) => ((of(row) ?? 0) < LITTLE ? 'text-soft' : 'font-semibold'),
  });
  return (
    <Table
      caption="Up to 150 Hz, at most 30. A cabinet that stands where a wave has no pressure does not drive it, and a seat there does not hear it."
      rows={room.modes}
      keyOf={({ order }) => order.join('-')}
      columns={[
        { name: 'Hz', names: true, cell: ({ frequency }) => frequency.toFixed(1), className: 'font-mono' },
        { name: 'Half waves', cell: ({ order }) => order.join(' · '), className: 'font-mono' },
        { name: 'Between', cell: ({ kind }) => KINDS[kind] },
        { name: 'Decays in', kind: 'figure', cell: ({ decay }) => `${decay.toFixed(1)} s` },
        ...report.cabinets.map((_, at) => strength(`Cab. ${at + 1}`, (row) => row.cabinets[at])),
        ...report.seats.map(({ name }, at) => strength(name, (row) => row.seats[at])),
      ]}
    />
  );
}
