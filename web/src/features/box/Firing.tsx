import { useState } from 'react';
import { useFirings } from '../../api/queries/box';
import { inWords } from '../../model/preferences';
import type { RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { Table } from '../../ui/Table';

interface Props {
  design: RawDesign;
  onTry: (design: RawDesign) => void;
}

const mm = (metres: number) => Math.round(metres * 1e3);

/** What firing forward, up and down leaves of the same place, side by side. */
export function Firing({ design, onTry }: Props) {
  const [asked, setAsked] = useState<RawDesign | null>(null);
  const wanted = asked === design;
  const answer = useFirings(design, wanted);
  if (!wanted) {
    return (
      <div>
        <Button onClick={() => setAsked(design)}>Compare firing forward, up and down</Button>
      </div>
    );
  }
  return (
    <section aria-label="Firing forward, up and down" className="flex flex-col gap-1">
      <h3>Firing forward, up and down</h3>
      <Message error={answer.error} />
      {answer.isPending && <p className="text-soft">Trying boxes …</p>}
      {answer.data && (
        <Table
          caption="As the brief uses it: each time the largest box that the place leaves once the driver has room to move"
          rows={answer.data}
          keyOf={({ face }) => face}
          rowOf={() => ({ className: 'align-top' })}
          columns={[
            {
              name: 'Fires',
              names: true,
              cell: ({ name, outside, clearance, why, forbids }) => (
                <>
                  <span className="block">{name}</span>
                  <span className="block text-soft">
                    {inWords(`Box ${outside.map(mm).join(' × ')} mm; ${mm(clearance)} mm free: ${why}.`)}
                  </span>
                  {forbids.length > 0 && (
                    <span className="block text-short">Cannot be built: {inWords(forbids[0] ?? '')}</span>
                  )}
                </>
              ),
            },
            { name: 'Air', kind: 'figure', cell: ({ air }) => inWords(`${(air * 1e3).toFixed(1)} l`) },
            { name: 'F3', kind: 'figure', cell: ({ f3 }) => (f3 == null ? '–' : `${f3.toFixed(1)} Hz`) },
            {
              name: 'Max. clean',
              kind: 'figure',
              cell: ({ loudness }) => (loudness == null ? '–' : `${loudness.toFixed(1)} dB`),
            },
            {
              name: 'Try it',
              kind: 'action',
              cell: ({ name, design: so }) => (
                <Button
                  aria-label={`Try it firing ${name.toLowerCase()}`}
                  onClick={() => onTry({ ...so, name: `${design.name}, firing ${name.toLowerCase()}` })}
                >
                  Try
                </Button>
              ),
            },
          ]}
        />
      )}
    </section>
  );
}
