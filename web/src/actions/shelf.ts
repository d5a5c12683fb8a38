import { type Action, activeVariant, type CommandContext } from './action';

function move(context: CommandContext, by: 1 | -1): void {
  const variant = activeVariant(context);
  if (variant) context.workbench?.move(variant.id, by);
}

function action(id: string, name: string, keys: string, run: (context: CommandContext) => void): Action {
  return { id, name, keys: [keys], when: (context) => activeVariant(context) !== undefined, run };
}

export const shelf: Action[] = [
  action('move-back', 'Move the variant left', 'alt+shift+p', (context) => move(context, -1)),
  action('move-on', 'Move the variant right', 'alt+shift+n', (context) => move(context, 1)),
];
