import { memo, useEffect, useRef } from 'react';
import type { Window } from '../../actions/action';
import { archiveVariant } from '../../actions/archive';
import { duplicateVariant } from '../../actions/duplicate';
import { useConditions } from '../../api/conditions';
import { familyEntry, hasTwoChambers } from '../../model/families';
import { markAt } from '../../model/mark';
import { inWords, measure, unitOf } from '../../model/preferences';
import { fieldAt, hertz, significant } from '../../model/units';
import type { Bench, OnBench, Workbench } from '../../model/workbench';
import type { RawDesign, Report } from '../../schema/types';
import { BoxPicture } from '../../section/BoxPicture';
import { Silhouette } from '../../section/Silhouette';
import { Icon } from '../../ui/Icon';
import { LineSample, MarkGlyph } from '../../ui/MarkGlyph';
import { Item, Menu } from '../../ui/Menu';
import { Message } from '../../ui/Message';
import { usePreferences } from '../../ui/observed';
import { FOLLOWED, useThrottled } from '../../ui/throttle';

interface Props {
  workbench: Workbench;
  bench: Bench;
  reports: ReadonlyMap<string, Report>;
  failure: unknown;
  onAdd: (design: RawDesign) => void;
  onNew: () => void;
  /** Searches the library; absent without a brief. */
  onFind: (() => void) | null;
  /** Makes a variant from a design file. */
  onImport: () => void;
  /** Opens something over the workbench. */
  onOpen: (window: Window) => void;
}

/** The build's variants, side by side. */
export const Shelf = memo(function Shelf(props: Props) {
  const { workbench, bench, failure, onAdd, onNew, onFind, onImport, onOpen } = props;
  const reports = useThrottled(props.reports, FOLLOWED);
  usePreferences();
  const present = bench.variants.filter((variant) => !variant.archived);
  const active = present.find((variant) => variant.id === bench.activeId);
  return (
    <section aria-label="Variants" className="shrink-0 border-line border-t bg-shelf px-4 py-2">
      {failure !== null && (
        <div className="pb-2">
          <Message error={failure} />
        </div>
      )}
      <ul className="flex gap-2.5 overflow-x-auto p-0.5 max-lg:flex-wrap">
        {present.map((variant) => (
          <Card
            key={variant.id}
            variant={variant}
            report={reports.get(variant.id)}
            active={variant.id === bench.activeId}
            overlaid={bench.shown.has(variant.id)}
            workbench={workbench}
            onAdd={onAdd}
            onOpen={onOpen}
          />
        ))}
        <li className="flex">
          <Menu
            trigger={
              <button
                type="button"
                className="flex w-28 items-center justify-center gap-1 rounded-[3px] border border-oak border-dashed px-2 font-medium hover:bg-card"
              >
                <Icon name="plus" /> Variant
              </button>
            }
          >
            {active && (
              <Item onSelect={() => duplicateVariant({ workbench, addVariant: onAdd }, active.id)}>
                <Icon name="copy" /> Copy of the active one
              </Item>
            )}
            <Item onSelect={onNew}>
              <Icon name="plus" /> With another driver
            </Item>
            {onFind && (
              <Item onSelect={onFind}>
                <Icon name="eye" /> Found for the brief
              </Item>
            )}
            <Item onSelect={onImport}>
              <Icon name="into" /> From a design file
            </Item>
            <Item onSelect={() => onOpen('archived')}>
              <Icon name="box" /> An archived one …
            </Item>
            {present.length > 1 && (
              <Item onSelect={() => onOpen('compare')}>
                <Icon name="rule" /> Compare them …
              </Item>
            )}
          </Menu>
        </li>
      </ul>
    </section>
  );
});

/** A closed menu has given the focus back by then, ms. */
const AFTER_MENU = 50;

interface CardProps {
  variant: OnBench;
  report: Report | undefined;
  active: boolean;
  overlaid: boolean;
  workbench: Workbench;
  onAdd: (design: RawDesign) => void;
  onOpen: (window: Window) => void;
}

const Card = memo(function Card({ variant, report, active, overlaid, workbench, onAdd, onOpen }: CardProps) {
  const { id, design, place } = variant;
  usePreferences();
  const { basis = 'in_use' } = useConditions().conditions;
  const heard = Object.entries(workbench.snapshot().listening).filter(([, chosen]) => chosen !== null);
  const asked = new URLSearchParams([['basis', basis], ...(heard as [string, string][])]);
  const mark = markAt(place);
  const name = design.name ?? '';
  const card = useRef<HTMLLIElement>(null);
  const openOf = (window: Window) => {
    workbench.activate(id);
    onOpen(window);
  };
  useEffect(() => {
    const list = card.current?.parentElement;
    if (!active || !card.current || !list) return;
    // Only the shelf moves: on a phone the page must stay where it is.
    const [left, right] = [card.current.offsetLeft, card.current.offsetLeft + card.current.offsetWidth];
    const seen = list.offsetLeft + list.scrollLeft;
    if (left < seen) list.scrollLeft = left - list.offsetLeft;
    else if (right > seen + list.clientWidth) list.scrollLeft = right - list.offsetLeft - list.clientWidth;
  }, [active]);
  return (
    <li
      ref={card}
      className={`flex w-[272px] shrink-0 rounded-[3px] border bg-card ${active ? 'border-oak ring-1 ring-oak' : 'border-line'}`}
    >
      <button
        type="button"
        aria-label={`Work on ${name}`}
        aria-current={active ? 'true' : undefined}
        className="flex min-w-0 flex-1 items-center gap-2 py-1.5 pl-2 text-left"
        onClick={() => workbench.activate(id)}
      >
        <BoxPicture
          design={design}
          width={46}
          height={46}
          otherwise={
            <Silhouette
              family={design.enclosure.family}
              slot={design.enclosure.ports?.[0]?.shape === 'slot'}
            />
          }
        />
        <span className="min-w-0 flex-1">
          <span className="flex items-center gap-1.5">
            <MarkGlyph mark={mark} />
            <span className="truncate font-semibold" title={name}>
              {name}
            </span>
            <LineSample mark={mark} width={26} />
          </span>
          <span className="block truncate text-[0.929rem] text-soft">
            {report ? inWords(sizeWords(design, report)) : '…'}
          </span>
          <span className="block truncate text-[0.929rem] text-soft">
            {report
              ? `F3 ${hertz(report.figures.f3)} · ${report.figures.reference_level.toFixed(0)} dB`
              : ' '}
          </span>
        </span>
      </button>
      <span className="flex flex-col justify-between py-1 pr-1">
        <Menu
          trigger={
            <button type="button" aria-label={`More for ${name}`} className="rounded-[3px] p-1 hover:bg-rule">
              <Icon name="more" />
            </button>
          }
        >
          <Item onSelect={() => duplicateVariant({ workbench, addVariant: onAdd }, id)}>
            <Icon name="copy" /> Duplicate
          </Item>
          <Item
            onSelect={() => {
              workbench.activate(id);
              // The name stands in the panel of the active variant; the menu gives the focus back first.
              setTimeout(
                () => document.querySelector<HTMLElement>('[aria-label="Name of the variant"]')?.focus(),
                AFTER_MENU,
              );
            }}
          >
            <Icon name="book" /> Rename
          </Item>
          <Item onSelect={() => workbench.move(id, -1)}>
            <Icon name="undo" /> Move left
          </Item>
          <Item onSelect={() => workbench.move(id, 1)}>
            <Icon name="redo" /> Move right
          </Item>
          <Item onSelect={() => openOf('workings')}>
            <Icon name="rule" /> How its figures are worked out …
          </Item>
          <Item onSelect={() => openOf('history')}>
            <Icon name="down" /> History …
          </Item>
          <Item onSelect={() => download(`/api/v1/variants/${id}/design.json`)}>
            <Icon name="out" /> Design file (JSON)
          </Item>
          <Item onSelect={() => download(`/api/v1/variants/${id}/response.csv?${asked}`)}>
            <Icon name="out" /> Response table (CSV)
          </Item>
          <Item onSelect={() => archiveVariant(workbench, id)}>
            <Icon name="box" /> Archive
          </Item>
        </Menu>
        <button
          type="button"
          aria-pressed={overlaid}
          aria-label={`Show ${name} in the lanes`}
          title={overlaid ? 'Shown in the lanes' : 'Hidden from the lanes'}
          disabled={active}
          className="rounded-[3px] p-1 hover:bg-rule disabled:opacity-60"
          onClick={() => workbench.overlay(id, !overlaid)}
        >
          <Icon name={overlaid ? 'eye' : 'hidden'} />
        </button>
      </span>
    </li>
  );
});

const VOLUME = fieldAt('enclosure.volume');

/** Size and tuning of whatever kind of cabinet it is. */
function sizeWords({ enclosure }: RawDesign, { figures, as_built }: Report): string {
  // A slot with its flare is a box with a mouth, not a way with a chamber.
  const way = enclosure.family === 'slot_flare' ? null : figures.passage;
  const size = way
    ? `${significant(way.length, 3)} m`
    : enclosure.family.endsWith('baffle')
      ? familyEntry(enclosure.family).name
      : as_built.volumes
          .slice(0, hasTwoChambers(enclosure.family) ? 2 : 1)
          .filter((volume) => volume != null)
          .map((volume) => measure(volume, unitOf(VOLUME, enclosure.volume ?? null), 3))
          .join(' + ');
  const tuning = figures.fb
    ? `Fb ${hertz(figures.fb)}`
    : figures.qtc
      ? `Qtc ${figures.qtc.toFixed(2)}`
      : way?.cutoff
        ? `cut-off ${hertz(way.cutoff)}`
        : '';
  return [size, tuning].filter(Boolean).join(' · ');
}

function download(address: string): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = '';
  link.click();
}
