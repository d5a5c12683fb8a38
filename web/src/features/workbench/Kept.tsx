import { useEffect, useState, useSyncExternalStore } from 'react';
import type { Outbox, OutboxState } from '../../model/outbox';
import { Button } from '../../ui/Button';

interface Props {
  outbox: Outbox;
  /** Opens the choice between two states of one document. */
  onChoose: () => void;
}

/** Says whether what is on screen is saved. */
export function Kept({ outbox, onChoose }: Props) {
  const saving = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const now = useNow();
  const { state } = saving;
  const trouble = state === 'unreachable' || state === 'refused' || state === 'conflict';
  return (
    <>
      <p
        role="status"
        className={
          trouble
            ? // The bar has no room for a sentence.
              'fixed top-9 left-1/2 z-40 max-w-[90vw] -translate-x-1/2 rounded-[3px] border border-short bg-short-wash px-2.5 py-0.5 font-medium text-short shadow'
            : // As wide as what it says most, so that nothing beside it moves.
              'min-w-14 shrink-0 text-soft'
        }
      >
        {state === 'saved' && saving.savedAt ? (
          <>
            Saved
            <span className="max-[1500px]:sr-only"> {ago((now - saving.savedAt.getTime()) / 1000)}</span>
          </>
        ) : (
          words(saving)
        )}
      </p>
      {state === 'conflict' && <Button onClick={onChoose}>Choose …</Button>}
      {state === 'refused' && <Button onClick={() => outbox.retry()}>Try again</Button>}
    </>
  );
}

function words({ state, reason, stored }: OutboxState): string {
  const lost = stored ? '' : ' This browser has no room left to remember them: leave this page open.';
  if (state === 'unreachable')
    return `Not saved yet: the server does not answer. Changes wait here until it is back.${lost}`;
  if (state === 'conflict') return `Not saved yet: changed in another window.${lost}`;
  if (state === 'refused') return `Not saved: ${reason ?? ''}${lost}`;
  if (state === 'sending') return 'Saving …';
  return '';
}

function ago(seconds: number): string {
  if (seconds < 5) return 'just now';
  if (seconds < 60) return `${Math.floor(seconds / 5) * 5} s ago`;
  if (seconds < 3600) return `${Math.floor(seconds / 60)} min ago`;
  if (seconds < 86400) return `${Math.floor(seconds / 3600)} h ago`;
  return `${Math.floor(seconds / 86400)} days ago`;
}

function useNow(): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 5000);
    return () => clearInterval(timer);
  }, []);
  return now;
}
