import type { Action } from './action';

function action(id: string, name: string, keys: string, address: string): Action {
  return { id, name, keys: [keys], when: () => true, run: (reach) => reach.go(address) };
}

export const goes: Action[] = [
  action('go-builds', 'Go to the builds', 'alt+shift+b', '/'),
  action('go-drivers', 'Go to the drivers', 'alt+shift+d', '/drivers'),
];
