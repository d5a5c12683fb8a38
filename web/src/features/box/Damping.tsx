import type { DampingReport, RawDesign } from '../../api/types';
import { withBranch } from '../../model/design';
import { inWords } from '../../model/preferences';
import tables from '../../model/quantities.json' with { type: 'json' };
import { Button } from '../../ui/Button';
import { Table } from '../../ui/Table';

interface Props {
  damping: DampingReport;
  design: RawDesign;
  edit: (design: RawDesign, label: string) => void;
}

const NAMES: Record<string, string> = {
  none: 'Empty',
  lined: 'Walls lined',
  half: 'Half full',
  full: 'Full, loose',
  packed: 'Packed',
};

const grams = (mass: number) => inWords(`${(mass * 1e3).toFixed(0)} g`);

/** What fill does to the tuning: by the rule of thumb, and by what the layers are. */
export function Damping({ damping: { quick, physical }, design, edit }: Props) {
  const now = design.enclosure.fill ?? 'none';
  return (
    <section aria-label="Fill and tuning" className="flex flex-col gap-1">
      <h3>What fill does to the tuning</h3>
      <p className="text-[0.929rem] text-soft">
        Two methods. The quick one knows only how full the box is; the simulation uses it. The other reckons
        with density and flow resistivity of each layer below.
      </p>
      <Table
        rows={quick}
        keyOf={({ id }) => id}
        columns={[
          { name: 'Fill', names: true, cell: ({ id }) => NAMES[id] ?? id },
          { name: 'Wool', kind: 'figure', cell: ({ mass }) => grams(mass) },
          { name: 'Apparent volume', kind: 'figure', cell: ({ gain }) => `× ${gain.toFixed(2)}` },
          { name: 'QA', kind: 'figure', cell: ({ qa }) => qa.toFixed(0) },
          { name: 'Tuned to', kind: 'figure', cell: ({ tuning }) => `${tuning.toFixed(1)} Hz` },
          {
            name: 'Take it',
            kind: 'action',
            cell: ({ id }) =>
              id === now ? (
                <span className="text-soft">now</span>
              ) : (
                <Button
                  look="quiet"
                  aria-label={`Fill: ${NAMES[id] ?? id}`}
                  onClick={() =>
                    edit(withBranch(design, 'enclosure.fill', id === 'none' ? null : id), 'fill')
                  }
                >
                  Take
                </Button>
              ),
          },
        ]}
      >
        {physical && (
          <tr className="border-line border-b font-semibold">
            <th scope="row" className="text-left font-[inherit]">
              The layers, {(physical.share * 100).toFixed(0)} % of the box
            </th>
            <td className="text-right font-mono">{grams(physical.mass)}</td>
            <td className="text-right font-mono">× {physical.gain.toFixed(2)}</td>
            <td className="text-right font-mono">{physical.qa > 999 ? '> 999' : physical.qa.toFixed(0)}</td>
            <td className="text-right font-mono">{physical.tuning.toFixed(1)} Hz</td>
            <td />
          </tr>
        )}
      </Table>
    </section>
  );
}

/** A table of what can be bought; values are typical. */
export const FILLS = tables.fills;
