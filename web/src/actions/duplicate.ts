import { copyOf } from '../model/design';
import { type Action, activeVariant, type Reach } from './action';

/** Adds a copy of a variant, as it is on screen. */
export function duplicateVariant(
  { workbench, addVariant }: Pick<Reach, 'workbench' | 'addVariant'>,
  id: string,
): void {
  workbench?.settle();
  const variant = workbench?.find(id);
  const others = workbench?.snapshot().variants.map((other) => other.design) ?? [];
  if (variant) addVariant(copyOf(variant.design, others));
}

export const duplicate: Action = {
  id: 'duplicate',
  name: 'Duplicate the active variant',
  keys: ['mod+d'],
  when: (reach) => activeVariant(reach) !== undefined,
  run: (reach) => {
    const variant = activeVariant(reach);
    if (variant) duplicateVariant(reach, variant.id);
  },
};
