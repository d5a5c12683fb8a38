import { type Action, activeVariant } from './action';

export const archive: Action = {
  id: 'archive',
  name: 'Archive the active variant',
  keys: ['alt+backspace'],
  when: (context) => activeVariant(context) !== undefined,
  run: (context) => {
    const variant = activeVariant(context);
    if (variant) context.workbench?.archive(variant.id);
  },
};
