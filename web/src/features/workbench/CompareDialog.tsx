import { useState } from 'react';
import type { Report } from '../../api/types';
import { conditionsOf } from '../../model/conditions';
import { differences, nameOf } from '../../model/differences';
import { markAt } from '../../model/mark';
import { inWords } from '../../model/preferences';
import { hertz, significant } from '../../model/units';
import type { Bench, OnBench } from '../../model/workbench';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { MarkGlyph } from '../../ui/MarkGlyph';
import { usePreferences } from '../../ui/observed';
import { Scroll } from '../../ui/Scroll';
import { Term } from '../../ui/Term';

interface Props {
  bench: Bench;
  reports: ReadonlyMap<string, Report>;
  onClose: () => void;
}

const OUTCOMES: [string, (report: Report) => string][] = [
  ['F3', ({ figures }) => hertz(figures.f3)],
  ['F10', ({ figures }) => hertz(figures.f10)],
  ['Fb or Fc', ({ figures }) => hertz(figures.fb ?? figures.fc)],
  ['Qtc', ({ figures }) => (figures.qtc ? significant(figures.qtc, 3) : '–')],
  ['SPL', ({ figures }) => `${figures.reference_level.toFixed(1)} dB`],
  ['Peak', ({ figures }) => `${(figures.level_peak.value - figures.reference_level).toFixed(1)} dB`],
  ['Cone travel from F3 up', ({ figures }) => millimetres(figures.excursion_in_band?.value)],
  [
    'Air speed',
    ({ figures }) => (figures.air_speed ? `${significant(figures.air_speed.value, 3)} m/s` : '–'),
  ],
  ['Port length', ({ figures }) => millimetres(figures.ports[0]?.length)],
  ['Pipe resonance', ({ figures }) => hertz(figures.ports[0]?.pipe_resonance)],
  ['Group delay', ({ figures }) => `${significant(figures.group_delay.value * 1e3, 3)} ms`],
  ['Lowest impedance', ({ figures }) => `${significant(figures.impedance_minimum.value, 3)} Ω`],
  ['Efficiency, highest', ({ figures }) => `${significant(figures.efficiency.value * 100, 2)} %`],
];

function millimetres(metres: number | null | undefined): string {
  return metres ? inWords(`${significant(metres * 1e3, 3)} mm`) : '–';
}

/** Variants beside each other: only what differs. */
export function CompareDialog({ bench, reports, onClose }: Props) {
  usePreferences();
  const present = bench.variants.filter((variant) => !variant.archived);
  const [which, setWhich] = useState<'shown' | 'all'>(bench.shown.size > 1 ? 'shown' : 'all');
  const variants = which === 'all' ? present : present.filter(({ id }) => bench.shown.has(id));
  const known = variants.flatMap(({ id, design }) => {
    const report = reports.get(id);
    return report ? [{ name: design.name ?? '', report }] : [];
  });
  const inputs = variants.length > 1 ? differences(variants.map(({ design }) => design)) : [];
  const outcomes = OUTCOMES.map(([name, read]) => {
    const values = variants.map(({ id }) => {
      const report = reports.get(id);
      return report ? read(report) : '…';
    });
    return { name, values };
  }).filter(({ values }) => new Set(values).size > 1);
  return (
    <Dialog
      title="Variants compared"
      about={`Only what differs is listed. ${conditionsOf(known)}.`}
      open
      wide
      onClose={onClose}
    >
      <div className="mb-3">
        <Choice
          label="Which variants"
          value={which}
          options={[
            ['shown', 'Those in the lanes'],
            ['all', `All ${present.length}`],
          ]}
          onChange={setWhich}
        />
      </div>
      {variants.length < 2 ? (
        <p>There is only one variant here. Duplicate it, or show another in the lanes.</p>
      ) : (
        <Scroll label="Differences" className="overflow-x-auto">
          <table className="w-full text-left">
            <thead>
              <tr className="border-line border-b align-bottom">
                <td />
                {variants.map((variant) => (
                  <Head key={variant.id} variant={variant} />
                ))}
              </tr>
            </thead>
            <Rows title="Results" rows={outcomes} variants={variants} />
            <Rows
              title="Inputs"
              rows={inputs
                .filter(({ place }) => place !== 'name')
                .map(({ place, values }) => ({ name: nameOf(place), key: place, values }))}
              variants={variants}
            />
          </table>
        </Scroll>
      )}
    </Dialog>
  );
}

function Head({ variant }: { variant: OnBench }) {
  return (
    <th scope="col" className="min-w-28 max-w-44 px-2 pb-1">
      <span className="flex items-center gap-1.5">
        <MarkGlyph mark={markAt(variant.place)} />
        <span className="truncate" title={variant.design.name ?? ''}>
          {variant.design.name}
        </span>
      </span>
    </th>
  );
}

interface RowsProps {
  title: string;
  rows: { name: string; key?: string; values: string[] }[];
  variants: OnBench[];
}

function Rows({ title, rows, variants }: RowsProps) {
  return (
    <tbody>
      <tr>
        <th scope="rowgroup" colSpan={variants.length + 1} className="pt-3 font-head">
          {title}
          {rows.length === 0 && <span className="font-normal text-soft"> – nothing differs</span>}
        </th>
      </tr>
      {rows.map(({ name, key, values }) => (
        <tr key={key ?? name} className="border-grid border-b">
          <th scope="row" className="py-1 pr-3 font-normal text-soft">
            <Term name={name} />
          </th>
          {variants.map((variant, at) => (
            <td
              key={variant.id}
              className="max-w-44 truncate px-2 font-mono text-[0.929rem]"
              title={values[at]}
            >
              {values[at]}
            </td>
          ))}
        </tr>
      ))}
    </tbody>
  );
}
