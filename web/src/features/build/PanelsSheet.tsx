import { useState } from 'react';
import { askCutList, useCutPanels } from '../../api/queries/cut';
import { askFlat } from '../../api/queries/plan';
import { bodyOf } from '../../model/body';
import { inWords } from '../../model/preferences';
import type { CutPanel, RawFace, RawJoinery, RawOverlap } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { save } from '../../ui/download';
import { Message } from '../../ui/Message';
import { Scroll } from '../../ui/Scroll';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';
import { JOINERIES } from './joints';
import { lengthOf, readsInches } from './lengths';
import { PanelDrawing } from './PanelDrawing';
import type { SheetProps } from './sheet';

const OVERLAPS: readonly (readonly [RawOverlap, string])[] = [
  ['front_and_back', 'Front and back'],
  ['sides', 'Sides'],
  ['top_and_bottom', 'Top and bottom'],
  ['mitred', 'None: mitred'],
];

const degrees = (angle: number) => `${Math.abs(angle).toFixed(1)}°`;

/** The boards of the box as they are cut, and how they are joined. */
export function PanelsSheet({ variant, workbench, brief, question, plan }: SheetProps) {
  const { design, id } = variant;
  const answer = useCutPanels(question.question.design);
  const [chosen, choose] = useState(1);
  const [failure, setFailure] = useState<unknown>(null);
  const report = answer.data;
  const panels = report?.panels ?? [];
  const panel = panels.find(({ number }) => number === chosen) ?? panels[0];
  const body = bodyOf(design);
  const edit = (change: object) =>
    workbench.edit(id, { ...design, body: { ...bodyOf(design), ...change } }, 'joints');
  const joinEdge = (between: [RawFace, RawFace], joinery: RawJoinery) => {
    const others = (body.joints ?? []).filter(
      ({ between: pair }) => !between.every((face) => pair.includes(face)),
    );
    const usual = joinery === (body.joinery ?? 'butt');
    const { joints: _, ...rest } = body;
    const joints = usual ? others : [...others, { between, joinery }];
    workbench.edit(id, { ...design, body: { ...rest, ...(joints.length && { joints }) } }, 'joints');
  };
  const draw = (format: 'svg' | 'dxf') =>
    panel &&
    askFlat(question.question, { panel: panel.number }, format).then(
      (text) => save(`${design.name}, board ${panel.number}.${format}`, new Blob([text])),
      setFailure,
    );
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-soft">These reach over the edges of the others:</span>
        <Choice
          label="Boards that reach over the others"
          value={body.overlap ?? 'front_and_back'}
          options={OVERLAPS}
          onChange={(overlap) => edit({ overlap })}
        />
        <div className="flex items-center gap-1.5">
          Joints
          <Select
            label="Joints of the outside"
            value={body.joinery ?? 'butt'}
            options={JOINERIES}
            onChange={(joinery) => edit({ joinery })}
          />
        </div>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={body.housed ?? false}
            onChange={(event) => edit({ housed: event.target.checked })}
          />
          Braces in dadoes
        </label>
        <Button
          className="ml-auto"
          disabled={!panels.length}
          onClick={() =>
            void askCutList(design, brief).then(
              (table) => save(`${design.name}, cut list.csv`, new Blob([table], { type: 'text/csv' })),
              setFailure,
            )
          }
        >
          Cut list (CSV)
        </Button>
      </div>
      <Message error={answer.error ?? failure} />
      {report && (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
          <Scroll label="Panels" className="min-h-0 overflow-y-auto pr-1 pb-2">
            <Table
              sticky
              caption={`${panels.reduce((sum, { count }) => sum + count, 0)} boards${report.cabinets > 1 ? ` for ${report.cabinets} cabinets` : ''}, as they are before rounding and veneer.`}
              rows={panels}
              keyOf={({ number }) => number}
              rowOf={({ number }) => ({ className: number === panel?.number ? 'bg-rule' : '' })}
              columns={[
                { name: 'No.', kind: 'figure', cell: ({ number }) => number },
                {
                  name: 'Panel',
                  names: true,
                  className: 'pl-3',
                  headingClass: 'pl-3',
                  cell: ({ number, name }) => (
                    <button
                      type="button"
                      aria-pressed={number === panel?.number}
                      className={`text-left font-medium underline ${number === panel?.number ? 'text-ink' : 'text-oak'}`}
                      onClick={() => choose(number)}
                    >
                      {name}
                    </button>
                  ),
                },
                { name: 'Pieces', kind: 'figure', cell: ({ count }) => count },
                { name: 'Width', kind: 'figure', cell: ({ size }) => lengthOf(size[0] ?? 0) },
                { name: 'Height', kind: 'figure', cell: ({ size }) => lengthOf(size[1] ?? 0) },
                { name: 'Thick', kind: 'figure', cell: ({ thickness }) => lengthOf(thickness) },
                { name: 'Saw', className: 'pl-3', headingClass: 'pl-3', cell: (row) => bevelsOf(row) },
              ]}
            />
            {plan.veneers.length > 0 && (
              <Table
                className="mt-3 text-[0.929rem]"
                caption={inWords('Veneer, 25 mm over on every side: trimmed once it is glued')}
                rows={plan.veneers}
                keyOf={({ panel }) => panel}
                columns={[
                  { name: 'No.', kind: 'figure', cell: ({ panel }) => panel },
                  {
                    name: 'For',
                    names: true,
                    className: 'pl-3',
                    headingClass: 'pl-3',
                    cell: ({ name }) => name,
                  },
                  { name: 'Pieces', kind: 'figure', cell: ({ count }) => count },
                  { name: 'Width', kind: 'figure', cell: ({ size }) => lengthOf(size[0] ?? 0) },
                  { name: 'Height', kind: 'figure', cell: ({ size }) => lengthOf(size[1] ?? 0) },
                ]}
              />
            )}
            <Rounded plan={plan} />
            {report.notes.map((note) => (
              <p key={note} className="mt-2">
                {inWords(note)}
              </p>
            ))}
            <p className="mt-2 text-[0.929rem] text-soft">
              Guards and push sticks at the saw, small parts held by clamps or tabs; a respirator against the
              dust of MDF and hardwood.
            </p>
          </Scroll>
          {panel && (
            <PanelDrawing
              panel={panel}
              onJoin={joinEdge}
              tools={
                <>
                  <Button onClick={() => void draw('svg')}>SVG</Button>
                  <Button onClick={() => void draw('dxf')}>DXF</Button>
                </>
              }
            />
          )}
        </div>
      )}
    </>
  );
}

/** What cutting to the divisions of the reader's rule does to volume and tuning. */
function Rounded({ plan }: Pick<SheetProps, 'plan'>) {
  const rows = plan.rounded.filter(({ inches }) => inches === readsInches());
  return rows.map(({ name, outside, volume, tuning }) => (
    <p key={name} className="mt-2">
      {`Cut to ${name}, ${outside.map((side) => lengthOf(side)).join(' × ')} outside: net volume ${changeOf(volume * 1e3, ' l', inWords)}${
        tuning == null ? '' : `, tuning ${changeOf(tuning, ' Hz')}`
      }.`}
    </p>
  ));
}

/** A small change in words. */
function changeOf(value: number, unit: string, read = (words: string) => words): string {
  const size = Math.abs(value).toFixed(Math.abs(value) < 1 ? 2 : 1);
  return Number(size) === 0 ? 'as drawn' : `${read(`${size}${unit}`)} ${value > 0 ? 'more' : 'less'}`;
}

/** How the saw is tilted for a board. */
function bevelsOf({ edges }: CutPanel): string {
  const tilted = edges.filter(({ bevel }) => Math.abs(bevel) > 0.05);
  if (!tilted.length) return 'square';
  const angles = [...new Set(tilted.map(({ bevel }) => degrees(bevel)))];
  return angles.length > 2 ? `${angles.length} angles` : angles.join(', ');
}
