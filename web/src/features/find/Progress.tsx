import { Link } from 'react-router';
import { runs } from '../../api/queries/jobs';
import type { DriverMatch } from '../../schema/types';
import { Button } from '../../ui/Button';

interface Props {
  match: DriverMatch;
  onCancel: () => void;
}

/** How a search stands. */
export function Progress({ match, onCancel }: Props) {
  const { found, complete } = match;
  const running = runs(match);
  return (
    <div className="flex items-center gap-3">
      <p className="flex-1" aria-live={running ? 'off' : 'polite'}>
        <b>{words(match)}</b>{' '}
        {match.total === 0 && (
          <>
            <Link to="/drivers" className="font-medium text-oak underline">
              Add drivers
            </Link>
            , typed from their sheets or imported as a table, and come back.
          </>
        )}
        {complete > 0 && (
          <span className="text-met">
            {complete} of {found} cabinets reach everything.
          </span>
        )}
        {complete === 0 && found > 0 && (
          <span className="text-short">
            None of {found} cabinets reaches everything; the nearest are first, with what holds each back.
          </span>
        )}
      </p>
      {running && (
        <>
          <progress
            aria-label="Drivers looked at"
            className="h-2 w-40"
            max={match.total}
            value={match.done}
          />
          <Button onClick={onCancel}>Stop</Button>
        </>
      )}
    </div>
  );
}

function words({ state, done, total, failure }: DriverMatch): string {
  const drivers = total === 1 ? '1 driver' : `${total} drivers`;
  if (state === 'waiting') return `${drivers} to look at …`;
  if (state === 'running' && done === total) return `${drivers} looked at. Drawing the boxes of the best …`;
  if (state === 'running') return `${done} of ${drivers} looked at …`;
  if (state === 'cancelled') return `Stopped after ${done} of ${drivers}.`;
  if (state === 'failed') return `It failed after ${done} of ${drivers}: ${failure}`;
  if (total === 0) return 'The library holds no drivers.';
  return `${drivers} looked at.`;
}
