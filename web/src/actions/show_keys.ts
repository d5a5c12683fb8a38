import type { Action } from './action';

export const showKeys: Action = {
  id: 'show-keys',
  name: 'Show all shortcuts',
  keys: ['alt+k'],
  when: () => true,
  run: (reach) => reach.showKeys(),
};
