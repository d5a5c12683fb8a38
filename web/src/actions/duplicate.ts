import { copyOf } from '../model/design';
import { type Action, activeVariant, type CommandContext } from './action';

/** Adds a copy of a variant, as it is on screen. */
export function duplicateVariant(
  { workbench, addVariant }: Pick<CommandContext, 'workbench' | 'addVariant'>,
  id: string,
): void {
  workbench?.commit();
  const variant = workbench?.find(id);
  const others = workbench?.snapshot().variants.map((other) => other.design) ?? [];
  if (variant) addVariant(copyOf(variant.design, others));
}

export const duplicate: Action = {
  id: 'duplicate',
  name: 'Duplicate the active variant',
  keys: ['mod+d'],
  when: (context) => activeVariant(context) !== undefined,
  run: (context) => {
    const variant = activeVariant(context);
    if (variant) duplicateVariant(context, variant.id);
  },
};
