import { toasts } from '../model/toasts';
import type { Workbench } from '../model/workbench';
import { type Action, activeVariant } from './action';

/** Archives a variant and says how to bring it back. */
export function archiveVariant(workbench: Workbench, id: string): void {
  const name = workbench.find(id)?.design.name;
  workbench.archive(id);
  toasts.say(`${name || 'The variant'} is archived.`, () => workbench.bringBack(id));
}

export const archive: Action = {
  id: 'archive',
  name: 'Archive the active variant',
  keys: ['alt+backspace'],
  when: (context) => activeVariant(context) !== undefined,
  run: (context) => {
    const variant = activeVariant(context);
    if (variant && context.workbench) archiveVariant(context.workbench, variant.id);
  },
};
