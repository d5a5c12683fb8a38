import { useDeferredValue, useState } from 'react';
import { useKit } from '../../api/queries/box';
import { fieldAt, shown, usualUnit, writeTyped } from '../../model/units';
import type { RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { Table } from '../../ui/Table';

interface Props {
  design: RawDesign;
  onUse: (design: RawDesign) => void;
  onTry: (design: RawDesign) => void;
  onClose: () => void;
}

const EXAMPLE =
  'Front and back 400 x 600 x 18 mm\nSides (2) 314 x 600 x 18\nTop and bottom 364 x 314 x 18\nBrace 364 x 80 x 18';

/** A figure in the unit that its field is kept in. */
function inUnit(field: string, si: number): string {
  return shown(writeTyped(si, usualUnit(fieldAt(field))));
}

const length = (metres: number) => inUnit('body.width', metres);

/** The design in the box of a kit: its volume is then what the boards leave. */
function boxed(design: RawDesign, body: RawDesign['body']): RawDesign {
  const { volume: _, ...enclosure } = design.enclosure;
  const material = design.body?.material;
  return { ...design, enclosure, body: { ...body, ...(material && { material }) } };
}

/** The boards of a pre-cut kit, typed in as they are labelled, and the box that they make. */
export function KitDialog({ design, onUse, onTry, onClose }: Props) {
  const [text, setText] = useState('');
  const asked = useDeferredValue(text);
  const { data, error, isPlaceholderData } = useKit(asked);
  const settled = asked === text && !isPlaceholderData;
  const chambers = design.enclosure.front || design.enclosure.passage;
  return (
    <Dialog
      title="Box from a kit"
      about="Type the sizes of the boards as they are labelled, a line each: what it is, how many, and three sizes, in mm, cm or inches."
      open
      onClose={onClose}
    >
      <textarea
        className="field h-28 w-full resize-y font-mono text-[0.929rem]"
        aria-label="Boards of the kit"
        placeholder={EXAMPLE}
        maxLength={5000}
        value={text}
        spellCheck={false}
        onChange={(event) => setText(event.target.value)}
      />
      <Message error={error} />
      {data && text.trim() && (
        <>
          {data.boards.length > 0 && (
            <Table
              className="mt-2 text-[1rem]"
              rows={data.boards}
              keyOf={(_, at) => at}
              columns={[
                { name: 'Board', names: true, className: 'py-0.5', cell: ({ label }) => label },
                { name: 'Taken for', cell: ({ role }) => ROLES[role] ?? role },
                { name: 'Pieces', kind: 'figure', cell: ({ count }) => count },
                {
                  name: 'Sizes',
                  kind: 'figure',
                  cell: ({ sides, thickness }) => [...sides, thickness].map(length).join(' × '),
                },
              ]}
            />
          )}
          {data.left.length > 0 && (
            <p className="mt-2 text-soft">
              Not understood: {data.left.map((line) => `"${line}"`).join(', ')}.
            </p>
          )}
          <p className={`mt-2 ${data.outside ? '' : 'text-short'}`} role={data.outside ? undefined : 'alert'}>
            {data.words}
            {data.outside && data.room != null && (
              <>
                {' '}
                <strong>
                  {data.outside.map(length).join(' × ')} outside (width, height, depth),{' '}
                  {inUnit('enclosure.volume', data.room)} between the boards.
                </strong>
              </>
            )}
          </p>
          {data.body && chambers && (
            <p className="mt-2 text-short" role="alert">
              A kit is a box with one chamber; this design has more. Choose a sealed or ported cabinet first.
            </p>
          )}
          {data.body && !chambers && (
            <div className="mt-4 flex justify-end gap-2">
              <Button disabled={!settled} onClick={() => onUse(boxed(design, data.body))}>
                Use for this design
              </Button>
              <Button
                look="strong"
                disabled={!settled}
                onClick={() =>
                  onTry({ ...boxed(design, data.body), name: `${design.name ?? 'Box'}, kit`.slice(0, 120) })
                }
              >
                As a variant
              </Button>
            </div>
          )}
        </>
      )}
    </Dialog>
  );
}

const ROLES: Record<string, string> = {
  front: 'front or back',
  side: 'side',
  top: 'top or bottom',
  inside: 'a board inside',
};
