import type { Action } from './action';

export const undo: Action = {
  id: 'undo',
  name: 'Undo',
  keys: ['mod+z'],
  when: ({ workbench }) => workbench !== null,
  run: ({ workbench }) => workbench?.undo(),
};
