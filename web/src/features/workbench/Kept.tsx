import { useEffect, useState, useSyncExternalStore } from 'react';
import type { Sync, SyncState } from '../../model/sync';

/** Says whether what is on screen is kept. */
export function Kept({ sync }: { sync: Sync }) {
  const keeping = useSyncExternalStore(sync.subscribe, sync.snapshot);
  const now = useNow();
  const trouble =
    keeping.state === 'unreachable' || keeping.state === 'refused' || keeping.state === 'conflict';
  return (
    <p role="status" className={`truncate ${trouble ? 'font-medium text-short' : 'text-soft'}`}>
      {words(keeping, now)}
    </p>
  );
}

function words({ state, reason, keptAt }: SyncState, now: number): string {
  if (state === 'unreachable')
    return 'Not saved yet: the server does not answer. Changes wait here until it is back.';
  if (state === 'conflict') return 'Changed in another window';
  if (state === 'refused') return `Not saved: ${reason ?? ''}`;
  if (state === 'sending') return 'Saving …';
  return keptAt ? `Saved ${ago((now - keptAt.getTime()) / 1000)}` : '';
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
