import { useState } from 'react';
import { askCutList, useCutPanels } from '../../api/queries/cut';
import type { CutPanel, RawOverlap } from '../../api/types';
import { bodyOf } from '../../model/body';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { save } from '../../ui/download';
import { Message } from '../../ui/Message';
import { Scroll } from '../../ui/Scroll';
import { Table } from '../../ui/Table';
import { FOLLOWED, useThrottled } from '../../ui/throttle';
import type { StageProps } from '../shell/stages';
import { lengthOf } from './lengths';
import { PanelDrawing } from './PanelDrawing';

const OVERLAPS: readonly (readonly [RawOverlap, string])[] = [
  ['front_and_back', 'Front and back'],
  ['sides', 'Sides'],
  ['top_and_bottom', 'Top and bottom'],
  ['mitred', 'None: mitred'],
];

const degrees = (angle: number) => `${Math.abs(angle).toFixed(1)}°`;

/** The boards of the box as they are cut. */
export function BuildStage({ variant, workbench, brief }: StageProps) {
  const { design, id } = variant;
  const followed = useThrottled(design, FOLLOWED);
  const answer = useCutPanels(followed);
  const [chosen, choose] = useState(1);
  const report = answer.data;
  const panels = report?.panels ?? [];
  const panel = panels.find(({ number }) => number === chosen) ?? panels[0];
  return (
    <section aria-label="Build" className="flex min-h-0 flex-1 flex-col gap-1.5 px-4 pt-2 pb-1">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="text-[1.071rem]">Panels</h2>
        <span className="text-soft">These reach over the edges of the others:</span>
        <Choice
          label="Boards that reach over the others"
          value={bodyOf(design).overlap ?? 'front_and_back'}
          options={OVERLAPS}
          onChange={(overlap) =>
            workbench.edit(id, { ...design, body: { ...bodyOf(design), overlap } }, 'joints')
          }
        />
        <Button
          className="ml-auto"
          disabled={!panels.length}
          onClick={() =>
            void askCutList(design, brief).then((table) =>
              save(`${design.name}, cut list.csv`, new Blob([table], { type: 'text/csv' })),
            )
          }
        >
          Cut list (CSV)
        </Button>
      </div>
      <Message error={answer.error} />
      {report === null && <p>A baffle has no box: there is nothing to cut but its board.</p>}
      {report && (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
          <Scroll label="Panels" className="min-h-0 overflow-y-auto pr-1 pb-2">
            <Table
              sticky
              caption={`${panels.reduce((sum, { count }) => sum + count, 0)} boards${report.cabinets > 1 ? ` for ${report.cabinets} cabinets` : ''}, as they are before rounding and veneer. Measure your sheets first: thickness is as typed.`}
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
                      className={`font-medium underline ${number === panel?.number ? 'text-ink' : 'text-oak'}`}
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
            <h3 className="mt-3 font-semibold">To buy, without waste</h3>
            <ul>
              {report.stock.map(({ material_name, thickness, area }) => (
                <li key={`${material_name} ${thickness}`}>
                  {material_name}, {lengthOf(thickness)}: {area.toFixed(2)} m²
                </li>
              ))}
            </ul>
            {report.notes.map((note) => (
              <p key={note} className="mt-2">
                {note}
              </p>
            ))}
            <p className="mt-2 text-[0.929rem] text-soft">
              Guards and push sticks at the saw, small parts held by clamps or tabs; a respirator against the
              dust of MDF and hardwood.
            </p>
          </Scroll>
          {panel && <PanelDrawing panel={panel} />}
        </div>
      )}
    </section>
  );
}

/** How the saw is tilted for a board. */
function bevelsOf({ edges }: CutPanel): string {
  const tilted = edges.filter(({ bevel }) => Math.abs(bevel) > 0.05);
  if (!tilted.length) return 'square';
  const angles = [...new Set(tilted.map(({ bevel }) => degrees(bevel)))];
  return angles.length > 2 ? `${angles.length} angles` : angles.join(', ');
}
