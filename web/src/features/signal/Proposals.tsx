import { inWords } from '../../model/preferences';
import type { RawFilter, SignalReport } from '../../schema/types';
import { Button } from '../../ui/Button';

interface Props {
  signal: SignalReport | undefined;
  onAdd: (filter: RawFilter) => void;
}

/** Filters that would help, each put in and computed before it is offered. */
export function Proposals({ signal, onAdd }: Props) {
  if (!signal?.proposals.length) return null;
  return (
    <section aria-label="Filters that would help" className="mt-3">
      <h2 className="mb-1 text-[1.071rem]">Filters that would help</h2>
      <ul className="flex flex-col gap-2">
        {signal.proposals.map(({ id, name, words, filter }) => (
          <li key={id} className="rounded-[3px] border border-line bg-card px-2.5 py-1.5">
            <div className="flex items-baseline gap-2">
              <h3 className="flex-1 font-semibold">{name}</h3>
              {filter && (
                <Button aria-label={`Add: ${name}`} onClick={() => onAdd(filter)}>
                  Add
                </Button>
              )}
            </div>
            <p className="text-[0.929rem]">{inWords(words)}</p>
          </li>
        ))}
      </ul>
      <details className="mt-2">
        <summary>Where builders disagree</summary>
        {signal.debates.map(({ name, words }) => (
          <p key={name} className="mt-1 text-[0.929rem]">
            <b>{name}</b> {inWords(words)}
          </p>
        ))}
      </details>
    </section>
  );
}
