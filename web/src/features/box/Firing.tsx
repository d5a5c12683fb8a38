import { useState } from 'react';
import { useFirings } from '../../api/queries';
import type { RawDesign } from '../../api/types';
import { inWords } from '../../model/preferences';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';

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
        <table className="w-full text-[13px]">
          <caption className="text-left text-soft">
            As the brief uses it: each time the largest box that the place leaves once the driver has room to
            move
          </caption>
          <thead>
            <tr className="border-line border-b text-left">
              <th scope="col">Fires</th>
              <th scope="col" className="text-right">
                Air
              </th>
              <th scope="col" className="text-right">
                F3
              </th>
              <th scope="col" className="whitespace-nowrap pl-3 text-right">
                Max. clean
              </th>
              <th scope="col">
                <span className="sr-only">Try it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {answer.data.map(
              ({ face, name, clearance, why, outside, air, f3, loudness, forbids, design: so }) => (
                <tr key={face} className="border-grid border-b align-top">
                  <th scope="row" className="text-left font-normal">
                    <span className="block">{name}</span>
                    <span className="block text-soft">
                      {inWords(`Box ${outside.map(mm).join(' × ')} mm; ${mm(clearance)} mm free: ${why}.`)}
                    </span>
                    {forbids.length > 0 && (
                      <span className="block text-short">Cannot be built: {inWords(forbids[0] ?? '')}</span>
                    )}
                  </th>
                  <td className="whitespace-nowrap pl-3 text-right font-mono">
                    {inWords(`${(air * 1e3).toFixed(1)} l`)}
                  </td>
                  <td className="whitespace-nowrap pl-3 text-right font-mono">
                    {f3 == null ? '–' : `${f3.toFixed(1)} Hz`}
                  </td>
                  <td className="whitespace-nowrap pl-3 text-right font-mono">
                    {loudness == null ? '–' : `${loudness.toFixed(1)} dB`}
                  </td>
                  <td className="pl-3 text-right">
                    <Button
                      aria-label={`Try it firing ${name.toLowerCase()}`}
                      onClick={() => onTry({ ...so, name: `${design.name}, firing ${name.toLowerCase()}` })}
                    >
                      Try
                    </Button>
                  </td>
                </tr>
              ),
            )}
          </tbody>
        </table>
      )}
    </section>
  );
}
