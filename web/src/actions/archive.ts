import { type Action, activeVariant } from './action';

export const archive: Action = {
  id: 'archive',
  name: 'Archive the active variant',
  keys: ['alt+backspace'],
  when: (reach) => activeVariant(reach) !== undefined,
  run: (reach) => {
    const variant = activeVariant(reach);
    if (variant) reach.workbench?.archive(variant.id);
  },
};
