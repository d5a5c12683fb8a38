import { useOutcomes } from '../../api/queries/jobs';
import { type Family, familyEntry } from '../../model/families';
import { inWords } from '../../model/preferences';
import { hertz } from '../../model/units';
import type { DriverMatch } from '../../schema/types';
import { Silhouette } from '../../section/Silhouette';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import type { Chosen } from './chosen';
import { litres, percent } from './FoundTable';

interface Props {
  match: DriverMatch;
  chosen: Chosen;
  busy: boolean;
  onTake: (driver: string, family: Family) => void;
}

/** What one driver comes to in every kind of cabinet, or why it does not. */
export function Outcomes({ match, chosen, busy, onTake }: Props) {
  const outcomes = useOutcomes(match.id, chosen.driver, match.done);
  return (
    <section aria-label={`${chosen.name} in every cabinet`}>
      <h2 className="text-lg">{chosen.name}</h2>
      <Message error={outcomes.error} />
      {outcomes.data?.length === 0 && (
        <p className="text-soft">
          It has not been looked at: it came into the library later, or is archived.
        </p>
      )}
      <ul className="flex flex-col gap-2">
        {outcomes.data?.map(({ family, found, refused }) => (
          <li
            key={family}
            className={`rounded-[3px] border p-2 ${family === chosen.family ? 'border-oak bg-card' : 'border-line'}`}
          >
            <div className="flex items-start gap-2">
              <Silhouette family={family} small />
              <div className="min-w-0 flex-1">
                <h3 className="leading-tight">
                  {familyEntry(family).name}
                  {found && ` · ${percent(found.score / 100)}`}
                </h3>
                {refused && (
                  <p>
                    <b>Not this one. </b>
                    {refused}
                  </p>
                )}
                {found && (
                  <p className="font-mono text-[0.929rem]">
                    F3 {hertz(found.f3)}
                    {found.loudness != null && ` · ${found.loudness.toFixed(1)} dB`} · {litres(found.volume)}
                    {found.cost != null && ` · ${found.cost.toFixed(0)}`}
                  </p>
                )}
              </div>
              {found && (
                <Button
                  disabled={busy}
                  aria-label={`Try this design: ${familyEntry(family).name} for ${chosen.name}`}
                  onClick={() => onTake(chosen.driver, family)}
                >
                  Try this design
                </Button>
              )}
            </div>
            {found && (
              <>
                <p className="mt-1 text-[0.929rem] leading-snug">
                  <b>{found.starting_point}. </b>
                  {inWords(found.reason)}
                </p>
                <ul className="mt-1 grid grid-cols-[auto_auto_1fr] gap-x-2 text-[0.929rem] leading-snug">
                  {found.parts.map(({ id, name, reached, words, part }) => (
                    <li key={id} className="contents">
                      <span className={part < 1 ? 'text-short' : 'text-met'}>{percent(part)}</span>
                      <span className="text-soft">{name}</span>
                      <span>
                        {reached}, {words}
                      </span>
                    </li>
                  ))}
                </ul>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
