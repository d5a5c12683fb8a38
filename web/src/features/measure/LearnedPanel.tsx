import { useLearned } from '../../api/queries/measure';
import { inWords, measure, preferredUnit } from '../../model/preferences';
import { fieldAt, significant, usualUnit } from '../../model/units';
import type { LearnedValue, RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { usePreferences } from '../../ui/observed';
import { useOpenValues } from '../workbench/learned';

interface Props {
  design: RawDesign;
  /** Takes the design with what was learned. */
  onUse: (design: RawDesign) => void;
}

const QUANTITIES: Record<LearnedValue['quantity'], { name: string; usual: string }> = {
  leakage: { name: 'Leakage (QL)', usual: 'usually' },
  port_ends: { name: 'Ports act longer by', usual: 'formulas say' },
  fill: { name: 'Absorption (QA), against tables', usual: 'tables say' },
  thickness: { name: 'Thickness', usual: 'sold as' },
};

/** A value of a quantity as it is read. */
function learnedAmount(quantity: LearnedValue['quantity'], value: number): string {
  if (quantity === 'leakage') return significant(value, 2);
  if (quantity === 'fill') return `× ${value.toFixed(2)}`;
  if (quantity === 'port_ends') return `${value === 0 ? 0 : value.toFixed(2)} radii`;
  const field = fieldAt('body.thickness');
  return measure(value, preferredUnit(field) ?? usualUnit(field), 3);
}

const buildsBehind = (builds: number): string => `${builds} ${builds === 1 ? 'build' : 'builds'}`;

/** What the workshop's own finished boxes say of the next one, and the way to use it. */
export function LearnedPanel({ design, onUse }: Props) {
  usePreferences();
  const learned = useLearned();
  const values = learned.data ?? [];
  const { set, next, error } = useOpenValues(design, true, values.length > 0);
  return (
    <div className="flex flex-col gap-3">
      <Message error={learned.error ?? error} />
      <p className="text-soft">
        What your own finished boxes turned out to be, over all builds. A build counts once “New variant as
        measured” was made of it, boards once they are measured in Build; a leaking box teaches nothing. From
        three builds on a value is offered in new variants.
      </p>
      {values.length > 0 && (
        <table className="w-full text-[0.929rem]">
          <caption className="sr-only">What the workshop has learned</caption>
          <thead>
            <tr className="text-left text-soft">
              <th scope="col" className="pr-3 font-medium">
                Of
              </th>
              <th scope="col" className="pr-3 font-medium">
                The next will have
              </th>
              <th scope="col" className="pr-3 font-medium">
                2 in 3 within
              </th>
              <th scope="col" className="font-medium">
                From
              </th>
            </tr>
          </thead>
          <tbody>
            {values.map((value) => {
              const { quantity, of, span } = value;
              const amount = (x: number) => learnedAmount(quantity, x);
              return (
                <tr key={`${quantity} ${of}`} className="border-line border-t align-top">
                  <th scope="row" className="py-1 pr-3 text-left font-medium">
                    {QUANTITIES[quantity].name}
                    <span className="block font-normal text-soft">{of}</span>
                  </th>
                  <td className="py-1 pr-3">
                    <span className="font-mono">{amount(value.value)}</span>
                    <span className="block text-soft">
                      {QUANTITIES[quantity].usual} {amount(value.usual)}
                    </span>
                  </td>
                  <td className="whitespace-nowrap py-1 pr-3 font-mono">{span.map(amount).join(' to ')}</td>
                  <td className="whitespace-nowrap py-1">
                    {buildsBehind(value.builds)}
                    {!value.offered && <span className="block text-soft">few yet</span>}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {learned.isSuccess && values.length === 0 && (
        <p>Nothing is learned yet. Measure a finished box and keep it as measured.</p>
      )}
      {set && values.length > 0 && (
        <section aria-label="In this variant" className="flex flex-col items-start gap-1.5">
          {set.length > 0 ? (
            <>
              <p>In this variant it would set: {inWords(set.join('; '))}.</p>
              <Button disabled={!next} onClick={() => next && onUse(next)}>
                Use it in this variant
              </Button>
            </>
          ) : (
            <p className="text-soft">
              Nothing of it is open in this variant: its values are written already, or it has other joints
              and ports.
            </p>
          )}
        </section>
      )}
    </div>
  );
}
