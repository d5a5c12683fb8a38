import { type ReactNode, useState } from 'react';
import { askPlanFile, readPrices } from '../../api/queries/plan';
import { inWords } from '../../model/preferences';
import { fieldAt } from '../../model/units';
import type { Workbench } from '../../model/workbench';
import { editStock, editWorkshop, workshopOn } from '../../model/workshop';
import type { BuildPlan, ItemReport, KitReport, RawStock, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { save } from '../../ui/download';
import { chooseFile } from '../../ui/file';
import { Message } from '../../ui/Message';
import { QuantityInput } from '../../ui/QuantityInput';
import { Scroll } from '../../ui/Scroll';
import { type Column, Table } from '../../ui/Table';
import { amountOf, money, type SheetProps } from './sheet';

const PRICE = fieldAt('workshop.items.price');
const STOCK = fieldAt('workshop.items.stock');

/** A kit of ready-cut boards beside cutting them oneself. */
function KitOrOwnWood({ kit, plan }: { kit: KitReport; plan: BuildPlan }) {
  const rows = [
    { name: 'Cut from sheets', boards: kit.own_boards, cost: plan.cost, hours: plan.hours },
    { name: 'From the kit', boards: kit.boards, cost: kit.cost, hours: kit.hours },
  ];
  return (
    <section aria-label="Kit or own wood" className="mt-3">
      <Table
        caption="Kit or own wood"
        rows={rows}
        keyOf={({ name }) => name}
        columns={[
          { name: 'Boards', names: true, cell: ({ name }) => name },
          { name: 'Cost of boards', kind: 'figure', cell: ({ boards }) => money(boards) },
          { name: 'Cost of all', kind: 'figure', cell: ({ cost }) => money(cost) },
          { name: 'Work', kind: 'figure', cell: ({ hours }) => `${hours.toFixed(0)} h` },
        ]}
      />
      <p className="text-[0.929rem] text-soft">
        The kit saves: {kit.saves.join(', ').toLowerCase()}.
        {kit.tools.length > 0 && ` Not needed then: ${kit.tools.join(', ')}.`} Measure its boards when they
        arrive; they are as thick as they are.
      </p>
    </section>
  );
}

/** What is bought, shop by shop, with what is in stock and what has been bought. */
export function PartsSheet({ plan, question, workbench, bench, variant }: SheetProps) {
  const own = workshopOn(bench)?.items ?? [];
  const [failure, setFailure] = useState<unknown>(null);
  const [open, setOpen] = useState(false);
  const name = variant.design.name ?? 'Design';
  const file = (what: 'parts' | 'prices') =>
    askPlanFile(question, what).then(
      (table) => save(`${name}, ${what}.csv`, new Blob([table], { type: 'text/csv' })),
      setFailure,
    );
  const importPrices = async () => {
    setFailure(null);
    const chosen = await chooseFile('.csv,text/csv');
    if (!chosen) return;
    try {
      const read = await readPrices(await chosen.text());
      const before = workshopOn(workbench.snapshot())?.items ?? [];
      const others = before.filter(({ item }) => !read.some((one) => one.item === item));
      editWorkshop(workbench, { items: [...others, ...read] }, 'price list');
    } catch (error) {
      setFailure(error);
    }
  };
  // One table, so that columns stand below each other; a row that is a shop is a heading.
  const rows: Line[] = plan.shops.flatMap((shop) => {
    const items = plan.items.filter(
      (item) => item.shop === shop.id && (!open || (item.packs > 0 && !item.bought)),
    );
    return items.length ? [{ shop }, ...items.map((item) => ({ item }))] : [];
  });
  return (
    <Scroll label="Parts" className="min-h-0 flex-1 overflow-y-auto pr-1 pb-2">
      <div className="flex flex-wrap items-center gap-2 pb-1">
        <p className="min-w-60 flex-1 text-soft">
          Amounts follow from the drawing; prices are usual ones until you type your own.
        </p>
        <label className="flex items-center gap-1.5">
          <input type="checkbox" checked={open} onChange={(event) => setOpen(event.target.checked)} />
          Only what is still to be bought
        </label>
        <Button onClick={() => void file('parts')}>Parts (CSV)</Button>
        <Button onClick={() => void file('prices')}>Prices (CSV)</Button>
        <Button onClick={() => void importPrices()}>Read prices…</Button>
      </div>
      <Message error={failure} />
      <Table
        captionHidden
        caption="Parts"
        rows={rows}
        keyOf={({ shop, item }) => shop?.id ?? item?.id ?? ''}
        rowOf={({ item }) => ({
          className: !item ? 'bg-shelf' : item.bought || item.packs === 0 ? 'text-soft' : '',
        })}
        columns={COLUMNS(workbench, own)}
      />
      <p className="flex justify-between border-ink border-t-2 pt-1 font-semibold">
        Together <span className="font-mono">{money(plan.cost)}</span>
      </p>
      {plan.kit && <KitOrOwnWood kit={plan.kit} plan={plan} />}
    </Scroll>
  );
}

interface Line {
  shop?: BuildPlan['shops'][number];
  item?: ItemReport;
}

/** What is typed of an item is shown at once, not when the plan has come back. */
const COLUMNS = (workbench: Workbench, own: readonly RawStock[]): Column<Line>[] => {
  const ownOf = ({ id }: ItemReport) => own.find(({ item }) => item === id);
  const of = (cell: (item: ItemReport) => ReactNode) => (line: Line) => line.item && cell(line.item);
  return [
    {
      name: 'Part',
      names: true,
      cell: ({ shop, item }) =>
        shop ? (
          <span className="font-semibold text-[1rem]">{shop.name}</span>
        ) : (
          <>
            <span className="font-medium">{inWords(item?.name ?? '')}</span>
            {item?.note && <span className="block text-[0.857rem] text-soft">{inWords(item.note)}</span>}
          </>
        ),
    },
    { name: 'Needed', kind: 'figure', cell: of(({ amount, unit }) => inWords(amountOf(amount, unit))) },
    {
      name: 'In stock',
      kind: 'figure',
      cell: of((item) => (
        <Cell
          item={item}
          which="stock"
          typed={ownOf(item)?.stock ?? null}
          onType={(stock) => editStock(workbench, item.id, { stock })}
        />
      )),
    },
    { name: 'To buy', kind: 'figure', cell: of(packsOf) },
    {
      name: 'Price',
      kind: 'figure',
      cell: of((item) => (
        <Cell
          item={item}
          which="price"
          typed={ownOf(item)?.price ?? null}
          onType={(price) => editStock(workbench, item.id, { price })}
        />
      )),
    },
    {
      name: 'Cost',
      kind: 'figure',
      cell: ({ shop, item }) => (shop ? <b>{money(shop.cost)}</b> : money(item?.cost)),
    },
    {
      name: 'Bought',
      kind: 'action',
      cell: of((item) => (
        <input
          type="checkbox"
          aria-label={`${item.name} bought`}
          checked={ownOf(item)?.bought ?? false}
          disabled={item.packs === 0}
          onChange={(event) => editStock(workbench, item.id, { bought: event.target.checked })}
        />
      )),
    },
  ];
};

/** How many packs are bought, and of how much. */
function packsOf({ packs, pack, unit }: ItemReport): string {
  if (packs === 0) return 'none';
  if (pack === 1) return inWords(amountOf(packs, unit));
  return `${packs} × ${inWords(amountOf(pack, unit))}`;
}

function Cell({
  item,
  which,
  typed,
  onType,
}: {
  item: ItemReport;
  which: 'stock' | 'price';
  typed: Typed | null;
  onType: (typed: Typed | null) => void;
}) {
  return (
    <QuantityInput
      label={`${which === 'stock' ? 'In stock' : 'Price of a pack'}: ${item.name}`}
      fields={[which === 'stock' ? STOCK : PRICE]}
      typed={typed}
      follows={which === 'price' ? (item.price?.toFixed(2) ?? 'not known') : '0'}
      optional
      className="w-20 text-right font-mono text-[0.929rem]"
      onType={(_, next) => onType(next)}
    />
  );
}
