import { useState } from 'react';
import { conditionsOf } from '../../model/conditions';
import { differences, nameOf } from '../../model/differences';
import { markAt } from '../../model/mark';
import type { Bench, OnBench } from '../../model/workbench';
import type { Report } from '../../schema/types';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { MarkGlyph } from '../../ui/MarkGlyph';
import { usePreferences } from '../../ui/observed';
import { Scroll } from '../../ui/Scroll';
import { Term } from '../../ui/Term';
import { compared } from './compared';

interface Props {
  bench: Bench;
  reports: ReadonlyMap<string, Report>;
  onClose: () => void;
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
  const outcomes = compared(
    variants.map(({ id }) => reports.get(id)),
    variants.map(({ design }) => design.name ?? ''),
  );
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
                <th scope="col" className="min-w-44 px-2 pb-1">
                  Verdict
                </th>
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
  rows: { name: string; key?: string; values: string[]; best?: number | null; verdict?: string }[];
  variants: OnBench[];
}

function Rows({ title, rows, variants }: RowsProps) {
  return (
    <tbody>
      <tr>
        <th scope="rowgroup" colSpan={variants.length + 2} className="pt-3 font-head">
          {title}
          {rows.length === 0 && <span className="font-normal text-soft"> – nothing differs</span>}
        </th>
      </tr>
      {rows.map(({ name, key, values, best, verdict }) => (
        <tr key={key ?? name} className="border-grid border-b">
          <th scope="row" className="py-1 pr-3 font-normal text-soft">
            <Term name={name} />
          </th>
          {variants.map((variant, at) => (
            <td
              key={variant.id}
              className={`max-w-44 truncate px-2 font-mono text-[0.929rem] ${best === at ? 'font-bold text-met' : ''}`}
              title={values[at]}
            >
              {values[at]}
            </td>
          ))}
          <td className="px-2 text-[0.929rem] text-soft">{verdict}</td>
        </tr>
      ))}
    </tbody>
  );
}
