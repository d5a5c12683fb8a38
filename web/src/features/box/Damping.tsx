import type { DampingReport, RawDesign } from '../../api/types';
import { withBranch } from '../../model/design';
import { inWords } from '../../model/preferences';
import tables from '../../model/quantities.json' with { type: 'json' };
import { Button } from '../../ui/Button';

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
      <p className="text-[13px] text-soft">
        Two methods. The quick one knows only how full the box is; the simulation uses it. The other reckons
        with density and flow resistivity of each layer below.
      </p>
      <table className="w-full text-[13px]">
        <thead>
          <tr className="border-line border-b text-left">
            <th scope="col">Fill</th>
            <th scope="col" className="text-right">
              Wool
            </th>
            <th scope="col" className="text-right">
              Apparent volume
            </th>
            <th scope="col" className="text-right">
              QA
            </th>
            <th scope="col" className="text-right">
              Tuned to
            </th>
            <th scope="col">
              <span className="sr-only">Take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {quick.map(({ id, mass, gain, qa, tuning }) => (
            <tr key={id} className="border-grid border-b">
              <th scope="row" className="text-left font-normal">
                {NAMES[id] ?? id}
              </th>
              <td className="text-right font-mono">{grams(mass)}</td>
              <td className="text-right font-mono">× {gain.toFixed(2)}</td>
              <td className="text-right font-mono">{qa.toFixed(0)}</td>
              <td className="text-right font-mono">{tuning.toFixed(1)} Hz</td>
              <td className="text-right">
                {id === now ? (
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
                )}
              </td>
            </tr>
          ))}
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
        </tbody>
      </table>
    </section>
  );
}

/** A table of what can be bought; values are typical. */
export const FILLS = tables.fills;
