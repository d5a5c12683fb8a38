import { FILL_MATERIALS, type Fill, withBranch, withFill, withValue } from '../../model/design';
import { inWords } from '../../model/preferences';
import tables from '../../model/quantities.json' with { type: 'json' };
import { type Field, fieldAt, readTyped, usualUnit, writeTyped } from '../../model/units';
import type { DampingReport, RawDesign, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { QuantityInput } from '../../ui/QuantityInput';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';
import type { Editing } from './BodyField';

interface Props extends Editing {
  damping: DampingReport;
  /** Room that the fill is in, m3. */
  net: number;
}

const NAMES: Record<string, string> = {
  none: 'Empty',
  lined: 'Walls lined',
  half: 'Half full',
  full: 'Full, loose',
  packed: 'Packed',
  weighed: 'By weight',
};

const grams = (mass: number) => inWords(`${(mass * 1e3).toFixed(0)} g`);

/** What fill does to the tuning: by the rule of thumb, and by what the layers are. */
export function Damping({ damping: { quick, physical }, net, design, errors, edit }: Props) {
  const now = design.enclosure.fill_density ? 'weighed' : (design.enclosure.fill ?? 'none');
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
            name: 'Use it',
            kind: 'action',
            cell: ({ id }) =>
              id === now ? (
                <span className="text-soft">now</span>
              ) : (
                <Button
                  look="quiet"
                  aria-label={`Use fill: ${NAMES[id] ?? id}`}
                  onClick={() => edit(withFill(design, 'enclosure', id as Fill), 'fill')}
                >
                  Use
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
      <div className="flex flex-wrap items-center gap-2">
        <span>Weigh yours:</span>
        <QuantityInput
          label="Weight of the fill"
          fields={[
            DENSITY,
            { ...fieldAt('driver_array.added_mass'), min: net * DENSITY.min, max: net * DENSITY.max },
          ]}
          typed={written(design, net)}
          optional
          error={errors.find(({ field }) => field === DENSITY.path)?.message}
          className="w-28 font-mono text-[0.929rem]"
          onType={(field, typed) => edit(weighed(design, net, field, typed), 'fill')}
        />
        <Select
          label="What the fill is of"
          value={design.enclosure.fill_material ?? 'polyester'}
          options={FILL_MATERIALS}
          onChange={(of) =>
            edit(withBranch(withFill(design, 'enclosure', 'weighed'), 'enclosure.fill_material', of), 'fill')
          }
        />
        <span className="text-[0.929rem] text-soft">all of it in g, or g/l of the box</span>
      </div>
    </section>
  );
}

const DENSITY = fieldAt('enclosure.fill_density');

/** The weight of all of it, as it is put on the kitchen scales; what cannot be read stays as it is. */
function written(design: RawDesign, net: number): Typed | null {
  const typed = design.enclosure.fill_density ?? null;
  const density = typed === null ? null : readTyped(typed, DENSITY.dimension);
  return density ? `${Number((density.si * net * 1e3).toPrecision(3))} g` : typed;
}

/** Fill by weight: of all of it, or of a litre. */
function weighed(design: RawDesign, net: number, field: Field, typed: Typed | null): RawDesign {
  if (typed === null) return withFill(design, 'enclosure', 'none');
  const grams = field.path === DENSITY.path ? null : readTyped(typed, field.dimension);
  const density = grams ? writeTyped(grams.si / net, usualUnit(DENSITY)) : typed;
  return withValue(withFill(design, 'enclosure', 'weighed'), DENSITY.path, density);
}

/** A table of what can be bought; values are typical. */
export const FILLS = tables.fills;
