import { type Action, activeVariant } from './action';

const LONGEST_NAME = 120;

export const duplicate: Action = {
  id: 'duplicate',
  name: 'Duplicate the active variant',
  keys: ['mod+d'],
  when: (reach) => activeVariant(reach) !== undefined,
  run: (reach) => {
    const variant = activeVariant(reach);
    if (!variant) return;
    reach.workbench?.settle();
    const name = `${variant.design.name ?? ''} copy`.trim().slice(0, LONGEST_NAME);
    reach.addVariant({ ...variant.design, name });
  },
};
