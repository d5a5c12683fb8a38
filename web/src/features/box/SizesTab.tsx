import { useState } from 'react';
import {
  bodyOf,
  FACES,
  MATERIALS,
  panelAt,
  RATIOS,
  SHAPES,
  shapeRows,
  withBody,
  withLayers,
  without,
  withShape,
} from '../../model/body';
import { siAt, valueAt, withValue } from '../../model/design';
import { asRead, inWords, measure, unitOf } from '../../model/preferences';
import { fieldAt, shown } from '../../model/units';
import type { BodyReport, ChamberReport, RawBody, RawBrief, RawItem } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Icon } from '../../ui/Icon';
import { QuantityInput } from '../../ui/QuantityInput';
import { Select } from '../../ui/Select';
import { TextInput } from '../../ui/TextInput';
import { FoldedWorkings } from '../workbench/Workings';
import { BodyField, type Editing } from './BodyField';

interface Props extends Editing {
  /** Absent where the box cannot be built; what is written of it can be changed all the same. */
  report: BodyReport | undefined;
  brief: RawBrief | null;
}

const SIZES = [
  ['Width', 'width'],
  ['Height', 'height'],
  ['Depth', 'depth'],
] as const;

/** Shape, sizes and boards, and what is left of the room. */
export function SizesTab(props: Props) {
  const { design, report, edit } = props;
  const body = bodyOf(design);
  const measured = body.measured ?? 'outside';
  // One size alone has no proportions to keep.
  const free = (report?.solved ?? []).filter(Boolean).length > 1;
  return (
    <div className="flex flex-col gap-3">
      <div className="grid gap-x-5 gap-y-1 sm:grid-cols-2">
        <div className="flex flex-col gap-1">
          <Select
            label="Shape"
            className="flex-none"
            value={body.shape ?? 'box'}
            options={SHAPES}
            onChange={(shape) => edit(withShape(design, shape, props.brief?.top_depth), 'shape')}
          />
          {SIZES.map(([name, key], at) => (
            <BodyField
              key={key}
              {...props}
              name={name}
              path={`body.${key}`}
              follows={report?.sizes[at]}
              led={report?.solved[at] ?? false}
            />
          ))}
          {shapeRows(body.shape).map(({ name, key, optional }) => (
            <BodyField key={key} {...props} name={name} path={`body.${key}`} optional={optional} />
          ))}
        </div>
        <div className="flex flex-col gap-1">
          <div>
            <Choice
              label="What the sizes are of"
              value={measured}
              options={[
                ['outside', 'Outside'],
                ['inside', 'Inside'],
              ]}
              onChange={(next) => edit(withBody(design, { measured: next }), 'sizes')}
            />
          </div>
          <BodyField {...props} name="Boards" path="body.thickness" follows={0.018} />
          <div className="grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-2">
            <span>Of</span>
            <Select
              label="Material of the boards"
              value={body.material ?? 'mdf'}
              options={MATERIALS}
              onChange={(material) => edit(withBody(design, { material }), 'material')}
            />
          </div>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={Number(panelAt(design, 'front').panel?.layers ?? 1) > 1}
              onChange={(event) => edit(withLayers(design, 'front', event.target.checked ? 2 : 1), 'front')}
            />
            Double front
          </label>
          <BodyField {...props} name="Corner strips" path="body.strips" follows={0} />
          {report && report.chambers.length > 1 && (
            <BodyField
              {...props}
              name="Partition"
              path="body.partition"
              follows={siAt(design, 'body.thickness') ?? 0.018}
            />
          )}
        </div>
      </div>
      {free && (
        <div className="flex flex-wrap items-center gap-2">
          <span className="text-soft">Open sizes follow from the volume, as</span>
          <span className="w-52">
            <Select
              label="Proportions of the sizes that are open"
              value={body.ratio ?? 'cube_root'}
              options={RATIOS}
              onChange={(ratio) => edit(withBody(design, { ratio }), 'proportions')}
            />
          </span>
        </div>
      )}
      {report?.chambers.map((chamber, at) => (
        <Ledger key={chamber.name} chamber={chamber} at={at} {...props} />
      ))}
      {report && <Follows {...props} report={report} />}
      {report?.tuning.symbol && report.tuning.frequency != null && (
        <p>
          Tuned so: {report.tuning.symbol}{' '}
          <b className="font-mono">{report.tuning.frequency.toFixed(1)} Hz</b>, ports cut for this box.
        </p>
      )}
      {report && (
        <FoldedWorkings ids={['net_volume', 'air_volume', 'tuning', 'port_length']} design={design} />
      )}
    </div>
  );
}

const litres = (volume: number, digits = 2) => inWords(`${(volume * 1e3).toFixed(digits)} l`);

function Ledger({ chamber, at, ...props }: Props & { chamber: ChamberReport; at: number }) {
  const { design, edit } = props;
  const body = bodyOf(design);
  const [naming, setNaming] = useState(false);
  const items = at === 0 ? (body.items ?? []) : [];
  return (
    <section aria-label={`Volume of the ${chamber.name.toLowerCase()}`}>
      <table className="w-full text-[0.964rem]">
        <tbody>
          <tr className="border-line border-b font-semibold">
            <th scope="row" className="text-left font-[inherit]">
              {chamber.name}: space between the boards
            </th>
            <td className="text-right font-mono">{litres(chamber.gross)}</td>
          </tr>
          {chamber.entries.map(({ what, volume, estimated }) => (
            <tr key={what} className="border-grid border-b">
              <th scope="row" className="text-left font-normal">
                − {what}
                {estimated && <span className="text-soft"> · estimated from its size</span>}
              </th>
              <td className="text-right font-mono">{litres(volume)}</td>
            </tr>
          ))}
          <tr className="border-line border-b font-semibold">
            <th scope="row" className="text-left font-[inherit]">
              = Net volume
            </th>
            <td className="text-right font-mono">{litres(chamber.net)}</td>
          </tr>
          {chamber.gain > 1 && (
            <tr className="border-grid border-b">
              <th scope="row" className="text-left font-normal">
                × {chamber.gain.toFixed(2)} by its fill: apparent volume
              </th>
              <td className="text-right font-mono">{litres(chamber.net * chamber.gain)}</td>
            </tr>
          )}
        </tbody>
      </table>
      {at === 0 && (
        <div className="mt-1.5 flex flex-col gap-1">
          {items.map((item, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a list without other names
            <div key={index} className="flex flex-col gap-1">
              <div className="flex items-center gap-1.5">
                <TextInput
                  label="What takes up volume"
                  value={item.name}
                  longest={40}
                  className="flex-1"
                  onChange={(name) => edit(withItem(design, index, { name }), 'what takes up volume')}
                />
                {!item.face && (
                  <QuantityInput
                    label={`Volume of ${item.name}`}
                    fields={[fieldAt('body.items.volume')]}
                    typed={valueAt(design, `body.items[${index}].volume`)}
                    className="w-28 font-mono text-[0.929rem]"
                    onType={(_, typed) =>
                      edit(withValue(design, `body.items[${index}].volume`, typed), 'volume')
                    }
                  />
                )}
                <Button
                  look="quiet"
                  aria-label={`Remove ${item.name}`}
                  onClick={() => edit(without(design, 'items', index), 'what takes up volume')}
                >
                  <Icon name="close" />
                </Button>
              </div>
              {item.face ? (
                <Placed {...props} index={index} />
              ) : (
                <div>
                  <Button look="quiet" onClick={() => edit(withPlace(design, index), 'what takes up volume')}>
                    Give {item.name} a size and a place
                  </Button>
                </div>
              )}
            </div>
          ))}
          {naming ? (
            <div className="flex flex-wrap gap-1.5">
              {ITEMS.map(([name, volume]) => (
                <Button
                  key={name}
                  onClick={() => {
                    edit(withBody(design, { items: [...items, { name, volume }] }), 'what takes up volume');
                    setNaming(false);
                  }}
                >
                  {name}
                </Button>
              ))}
            </div>
          ) : (
            <div>
              <Button onClick={() => setNaming(true)}>
                <Icon name="plus" /> Something else inside
              </Button>
            </div>
          )}
        </div>
      )}
    </section>
  );
}

const ITEMS = [
  ['Amplifier', '2 l'],
  ['Amplifier chamber', '6 l'],
  ['Terminal cup', '0.15 l'],
  ['Midrange tube', '3 l'],
  ['Something else', '0.5 l'],
] as const;

function withItem(design: Props['design'], at: number, change: Partial<RawItem>) {
  const items = (bodyOf(design).items ?? []).map((item, index) =>
    index === at ? { ...item, ...change } : item,
  );
  return withBody(design, { items } as Partial<RawBody>);
}

/** Something that stands against a board, as a chamber of its own does. */
function withPlace(design: Props['design'], at: number) {
  const items = (bodyOf(design).items ?? []).map((item, index) =>
    index === at
      ? { name: item.name, face: 'back' as const, width: '200 mm', height: '150 mm', depth: '100 mm' }
      : item,
  );
  return withBody(design, { items });
}

const PLACED = [
  ['Along the board', 'width'],
  ['Up the board', 'height'],
  ['Into the box', 'depth'],
  ['Middle, from the left', 'across'],
  ['Middle, from below', 'up'],
] as const;

function Placed({ design, errors, edit, index }: Editing & { index: number }) {
  const item = bodyOf(design).items?.[index];
  return (
    <div className="flex flex-col gap-1 border-line border-l-2 pl-2">
      <div className="grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-2">
        <span>Stands against the</span>
        <Select
          label={`Board that ${item?.name} stands against`}
          value={(item?.face ?? 'back') as (typeof FACES)[number][0]}
          options={FACES}
          onChange={(face) => edit(withItem(design, index, { face }), 'place')}
        />
      </div>
      {PLACED.map(([name, key]) => (
        <BodyField
          key={key}
          {...{ design, errors, edit }}
          name={name}
          path={`body.items[${index}].${key}`}
          optional={key === 'across' || key === 'up'}
        />
      ))}
    </div>
  );
}

/** What follows although a value is written for it, and the way back to that value. */
function Follows({ design, report, edit }: Editing & { report: BodyReport }) {
  const [volume] = report.chambers;
  const sizes = SIZES.map(([name, key], at) => ({
    name,
    path: `body.${key}`,
    found: report.solved[at] ? report.sizes[at] : undefined,
  }));
  const all = [
    { name: 'Volume', path: 'enclosure.volume', found: report.volume_follows ? volume?.net : undefined },
    ...sizes,
  ];
  return all.map(({ name, path, found }) => {
    const written = valueAt(design, path);
    if (found == null || written === null) return null;
    return (
      <p
        key={path}
        className="flex flex-wrap items-center gap-2 rounded-[3px] border border-line bg-card p-2.5"
      >
        <span>
          {name === 'Volume' ? 'Every size is stated, so the volume' : `The ${name.toLowerCase()}`} follows
          from the rest: <b className="font-mono">{measure(found, unitOf(fieldAt(path), written))}</b>.
        </span>
        <Button onClick={() => edit(withValue(design, path, written), name.toLowerCase())}>
          Back to {shown(asRead(written, fieldAt(path)))}
        </Button>
      </p>
    );
  });
}
