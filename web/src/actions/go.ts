import type { Action } from './action';

function action(id: string, name: string, keys: string, address: string): Action {
  return { id, name, keys: [keys], when: () => true, run: (context) => context.go(address) };
}

/** Goes to a stage of the build that is open. */
export function toStage(id: string, name: string, keys: string, go: Action['run']): Action {
  return { id: `go-${id}`, name, keys: [keys], when: ({ build }) => build !== null, run: go };
}

export const goes: Action[] = [
  action('go-builds', 'Go to the builds', 'alt+shift+b', '/'),
  action('go-drivers', 'Go to the drivers', 'alt+shift+d', '/drivers'),
  action('go-jobs', 'Go to the jobs', 'alt+shift+j', '/jobs'),
];
