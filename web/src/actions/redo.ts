import type { Action } from './action';

export const redo: Action = {
  id: 'redo',
  name: 'Redo',
  keys: ['mod+shift+z', 'mod+y'],
  when: ({ workbench }) => workbench !== null,
  run: ({ workbench }) => workbench?.redo(),
};
