import { useEffect, useRef, useState } from 'react';
import { askFlat, searchLayouts } from '../../api/queries/plan';
import { editWorkshop, workshopOn } from '../../model/workshop';
import type { SheetGroupReport, SheetReport } from '../../schema/types';
import { Button } from '../../ui/Button';
import { save } from '../../ui/download';
import { Message } from '../../ui/Message';
import { Scroll } from '../../ui/Scroll';
import { useSize } from '../../ui/size';
import { Table } from '../../ui/Table';
import { lengthOf } from './lengths';
import { money, type SheetProps } from './sheet';

/** Boards as they lie on their sheets, and in which order one cuts them. */
export function LayoutSheet({ plan, question, workbench, variant, onShow }: SheetProps) {
  const all = plan.sheets.flatMap((group) => group.sheets.map((sheet) => ({ group, sheet })));
  const [chosen, choose] = useState(0);
  const [failure, setFailure] = useState<unknown>(null);
  const [share, setShare] = useState<number | null>(null);
  const search = useRef<AbortController | null>(null);
  useEffect(() => () => search.current?.abort(), []);
  const shown = all[chosen] ?? all[0];
  const at = shown ? all.indexOf(shown) : 0;
  const draw = (format: 'svg' | 'dxf') =>
    askFlat(question.question, { sheet: at }, format).then(
      (text) => save(`${variant.design.name}, sheet ${at + 1}.${format}`, new Blob([text])),
      setFailure,
    );
  const look = async () => {
    const control = new AbortController();
    search.current = control;
    setFailure(null);
    setShare(0);
    try {
      const found = await searchLayouts(question.question, control.signal, setShare);
      const before = workshopOn(workbench.snapshot())?.layouts ?? [];
      const others = before.filter(({ boards }) => !found.some((one) => one.boards === boards));
      editWorkshop(workbench, { layouts: [...others, ...found].slice(-16) }, 'layout');
    } catch (error) {
      if (!control.signal.aborted) setFailure(error);
    } finally {
      setShare(null);
    }
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <ul className="flex min-w-60 flex-1 flex-wrap gap-x-4 text-[0.929rem]">
          {plan.sheets.map((group) => (
            <li key={`${group.material_name} ${group.thickness}`}>{groupWords(group)}</li>
          ))}
        </ul>
        <Button onClick={() => onShow('workshop')}>Sheets and saw…</Button>
        {share === null ? (
          <Button onClick={() => void look()}>Search longer</Button>
        ) : (
          <>
            <progress aria-label="Search" value={share} className="w-24" />
            <Button onClick={() => search.current?.abort()}>Stop</Button>
          </>
        )}
        <Button onClick={() => void draw('svg')} disabled={!shown}>
          SVG
        </Button>
        <Button onClick={() => void draw('dxf')} disabled={!shown}>
          DXF
        </Button>
      </div>
      <Message error={failure} />
      {shown && (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
          <div className="flex min-h-0 flex-col gap-1 max-lg:h-96">
            {all.length > 1 && (
              <fieldset className="flex flex-wrap gap-1" aria-label="Sheets">
                {all.map(({ group, sheet }, index) => (
                  <Button
                    // biome-ignore lint/suspicious/noArrayIndexKey: sheets are told apart by their place
                    key={index}
                    aria-pressed={index === at}
                    look={index === at ? 'strong' : 'plain'}
                    onClick={() => choose(index)}
                  >
                    {index + 1}: {lengthOf(group.thickness)}
                    {sheet.at_hand ? ', offcut' : ''}
                  </Button>
                ))}
              </fieldset>
            )}
            <SheetPicture sheet={shown.sheet} />
          </div>
          <CutSteps sheet={shown.sheet} group={shown.group} />
        </div>
      )}
    </>
  );
}

function groupWords({ material_name, thickness, sheets, cost, waste, searched }: SheetGroupReport): string {
  const count = sheets.filter(({ at_hand }) => !at_hand).length;
  const bought = `${count} ${count === 1 ? 'sheet' : 'sheets'}`;
  return `${material_name} ${lengthOf(thickness)}: ${bought}, ${money(cost)}, ${(waste * 100).toFixed(0)} % left over${searched ? ', searched' : ''}`;
}

const EDGE = 22;

/** A sheet to scale, its length to the right, with its boards by number. */
function SheetPicture({ sheet }: { sheet: SheetReport }) {
  const [box, size] = useSize<HTMLDivElement>();
  const [width = 1, long = 1] = sheet.size;
  const scale = Math.min((size.width - 2 * EDGE) / long, (size.height - 2 * EDGE) / width);
  const rect = ([x = 0, y = 0]: number[], [w = 0, h = 0]: number[]) => ({
    x: EDGE + y * scale,
    y: EDGE + x * scale,
    width: Math.max(0, h * scale),
    height: Math.max(0, w * scale),
  });
  return (
    <div ref={box} className="min-h-0 flex-1 overflow-hidden">
      {scale > 0 && (
        <svg
          width={size.width}
          height={size.height}
          role="img"
          aria-label={`Sheet of ${lengthOf(long)} by ${lengthOf(width)} with ${sheet.boards.length} boards`}
        >
          <rect {...rect([0, 0], sheet.size)} fill="var(--shelf)" stroke="var(--ink)" strokeWidth="1.5" />
          {sheet.boards.map(({ number, name, at, size: sides, mirrored }) => {
            const board = rect(at, sides);
            const [across, along] = sides;
            return (
              <g key={`${number} ${at}`}>
                <rect {...board} fill="var(--rule)" stroke="var(--ink)" />
                <text
                  x={board.x + board.width / 2}
                  y={board.y + board.height / 2 + 4}
                  textAnchor="middle"
                  fontSize="12"
                  fontWeight="600"
                  className="fill-ink"
                >
                  {board.width > 110
                    ? `${number} ${name}${mirrored ? ', mirrored' : ''}`
                    : `${number}${mirrored ? ' m' : ''}`}
                </text>
                {board.width > 90 && board.height > 44 && (
                  <text
                    x={board.x + board.width / 2}
                    y={board.y + board.height / 2 + 19}
                    textAnchor="middle"
                    fontSize="10.5"
                    className="fill-ink font-mono"
                  >
                    {lengthOf(along ?? 0)} × {lengthOf(across ?? 0)}
                  </text>
                )}
              </g>
            );
          })}
          <text
            x={EDGE + (long * scale) / 2}
            y={EDGE - 7}
            textAnchor="middle"
            fontSize="11"
            className="fill-ink font-mono"
          >
            {lengthOf(long)}, along the grain
          </text>
          <text
            x={EDGE - 7}
            y={EDGE + (width * scale) / 2}
            textAnchor="middle"
            fontSize="11"
            className="fill-ink font-mono"
            transform={`rotate(-90 ${EDGE - 7} ${EDGE + (width * scale) / 2})`}
          >
            {lengthOf(width)}
          </text>
        </svg>
      )}
    </div>
  );
}

function CutSteps({ sheet, group }: { sheet: SheetReport; group: SheetGroupReport }) {
  const moves = sheet.cuts.filter((cut) => cut.moves).length;
  const offcuts = [...sheet.offcuts]
    .map(([, size]) => size ?? [0, 0])
    .sort((a, b) => (b[0] ?? 0) * (b[1] ?? 0) - (a[0] ?? 0) * (a[1] ?? 0));
  const [largest] = offcuts;
  return (
    <Scroll label="Cuts" className="min-h-0 overflow-y-auto pr-1 pb-2">
      <Table
        sticky
        caption={`${sheet.cuts.length} cuts, the fence moves ${moves} times. Each runs from one side of the piece to the other.`}
        rows={sheet.cuts}
        keyOf={(_, at) => at}
        rowOf={({ moves }) => ({ className: moves ? 'border-rule-line border-t' : '' })}
        columns={[
          { name: 'No.', kind: 'figure', cell: (_, at) => at + 1 },
          {
            name: 'Fence',
            names: true,
            className: 'pl-4 font-mono',
            headingClass: 'pl-4',
            cell: ({ fence, moves }) => (
              <span className={moves ? 'font-semibold' : 'text-soft'}>{lengthOf(fence)}</span>
            ),
          },
          {
            name: 'Cut',
            className: 'pl-3',
            headingClass: 'pl-3',
            cell: ({ upright }) => (upright ? 'rip, along' : 'cross-cut'),
          },
          {
            name: 'Piece',
            kind: 'figure',
            cell: ({ piece: [, size] }) => `${lengthOf(size?.[1] ?? 0)} × ${lengthOf(size?.[0] ?? 0)}`,
          },
          {
            name: 'Ready',
            className: 'pl-3',
            headingClass: 'pl-3',
            cell: ({ ready }) => ready.map((number) => `no. ${number}`).join(', '),
          },
        ]}
      />
      <p className="mt-2 text-[0.929rem] text-soft">
        Fence settings are to the board’s side of the blade; the kerf is counted. A fresh blade, and check the
        diagonals of the first board.
        {largest && ` The largest piece left is ${lengthOf(largest[1] ?? 0)} × ${lengthOf(largest[0] ?? 0)}.`}
        {group.too_large.length > 0 &&
          ` No sheet holds ${group.too_large.length === 1 ? 'board' : 'boards'} ${group.too_large.join(', ')}.`}
      </p>
    </Scroll>
  );
}
