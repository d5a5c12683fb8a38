import { useSyncExternalStore } from 'react';
import type { Observable } from '../model/observable';
import { type Preferences, preferences } from '../model/preferences';

/** The state of something that can be watched. */
export function useObserved<State extends object>(observed: Observable<State>): State {
  return useSyncExternalStore(observed.subscribe, observed.snapshot);
}

/** Draws anew when the units that a person reads in change. */
export function usePreferences(): Preferences {
  return useObserved(preferences);
}
