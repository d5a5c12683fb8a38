import { useState } from 'react';
import { askTerminal } from '../../api/queries/plan';
import { inches, inWords } from '../../model/preferences';
import type { HolePlan } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { Scroll } from '../../ui/Scroll';
import { Table } from '../../ui/Table';
import { lengthOf } from './lengths';
import type { SheetProps } from './sheet';

/** Every hole with its template and what is drilled around it. */
export function HolesSheet({ plan, question, variant, workbench, onShow }: SheetProps) {
  const [answer, setAnswer] = useState<string | null>(null);
  const [failure, setFailure] = useState<unknown>(null);
  const place = () =>
    askTerminal(question).then((found) => {
      setAnswer(
        found?.words ?? 'No board has room for it: choose another terminal, or make room on the back.',
      );
      if (found) workbench.edit(variant.id, found.design, 'terminal');
    }, setFailure);
  const cut = plan.holes.filter(({ kind }) => kind !== 'bolt' && kind !== 'dowel');
  const drilled = grouped(plan.holes.filter(({ kind }) => kind === 'bolt' || kind === 'dowel'));
  const boardOf = (number: number) => `no. ${number}`;
  return (
    <Scroll label="Holes" className="min-h-0 flex-1 overflow-y-auto pr-1 pb-2">
      <div className="flex flex-wrap items-center gap-2 pb-1">
        <p className="min-w-60 flex-1 text-soft">
          Cut the first of each in scrap and try the real driver in it. In inches each is rounded up, to the
          next 32nd.
        </p>
        <Button onClick={() => onShow('workshop')}>Cutter and bush…</Button>
      </div>
      {plan.terminal_lacks_hole && (
        <p className="flex flex-wrap items-center gap-2 pb-1">
          No hole is drawn for the terminal yet.
          <Button onClick={() => void place()}>Put it in</Button>
        </p>
      )}
      <Message error={failure} />
      <p role="status" className={answer ? 'pb-1' : 'sr-only'}>
        {answer && inWords(answer)}
      </p>
      <Table
        caption="Holes and recesses; their middle from the left and from below, as seen from outside"
        rows={cut}
        keyOf={({ panel, index }) => `${panel} ${index}`}
        rowOf={({ faults }) => ({ className: faults.length ? 'text-short' : '' })}
        columns={[
          {
            name: 'Board',
            cell: ({ panel, pair }) =>
              `${boardOf(panel)}${pair == null ? '' : `, with ${boardOf(pair)} on one pin`}`,
          },
          {
            name: 'For',
            names: true,
            cell: ({ what, faults }) => inWords(faults.length ? `${what}: ${faults.join('; ')}` : what),
          },
          { name: 'Size', kind: 'figure', cell: (hole) => sizeOf(hole.size, hole.round) },
          { name: 'Inches', kind: 'figure', cell: ({ inch32 }) => `${inches(inch32 / 32)} in` },
          {
            name: 'Deep',
            kind: 'figure',
            cell: ({ depth }) => (depth == null ? 'through' : lengthOf(depth)),
          },
          { name: 'Left', kind: 'figure', cell: ({ at }) => lengthOf(at[0] ?? 0) },
          { name: 'Below', kind: 'figure', cell: ({ at }) => lengthOf(at[1] ?? 0) },
          {
            name: 'Template',
            kind: 'figure',
            cell: ({ template, round }) => (template ? sizeOf(template, round) : ''),
          },
        ]}
      />
      {drilled.length > 0 && (
        <Table
          className="mt-3 text-[0.929rem]"
          caption="Drilled"
          rows={drilled}
          keyOf={({ panel, what }) => `${panel} ${what}`}
          rowOf={({ faults }) => ({ className: faults.length ? 'text-short' : '' })}
          columns={[
            { name: 'Board', cell: ({ panel }) => boardOf(panel) },
            { name: 'For', names: true, cell: ({ what, count }) => `${count} × ${what}` },
            { name: 'Drill', kind: 'figure', cell: ({ drill }) => lengthOf(drill) },
            { name: 'As', className: 'pl-3', headingClass: 'pl-3', cell: ({ words }) => inWords(words) },
          ]}
        />
      )}
      <p className="mt-2 text-[0.929rem] text-soft">
        A template’s opening is larger than the hole by the guide bush less the cutter. Places of bolts stand
        in the drawing of the board; lay the real frame on before you drill, and turn it so that no screw
        stands over a joint.
      </p>
    </Scroll>
  );
}

const sizeOf = ([w = 0, h = 0]: number[], round: boolean) =>
  round ? `⌀ ${lengthOf(w)}` : `${lengthOf(w)} × ${lengthOf(h)}`;

interface Drilled {
  panel: number;
  what: string;
  count: number;
  drill: number;
  words: string;
  faults: string[];
}

/** Bolts and dowels of a board that are drilled alike. */
function grouped(holes: HolePlan[]): Drilled[] {
  const found = new Map<string, Drilled>();
  for (const { panel, what, size, depth, drill, faults } of holes) {
    const [diameter, words] = drill ?? [size[0] ?? 0, depth == null ? 'through' : `${lengthOf(depth)} deep`];
    const key = `${panel} ${what} ${diameter}`;
    const known = found.get(key);
    if (known) {
      known.count += 1;
      known.faults = [...new Set([...known.faults, ...faults])];
    } else {
      found.set(key, { panel, what, count: 1, drill: Number(diameter), words: String(words), faults });
    }
  }
  return [...found.values()];
}
