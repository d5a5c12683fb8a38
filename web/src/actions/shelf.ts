import { type Action, activeVariant, type Reach } from './action';

function move(reach: Reach, by: 1 | -1): void {
  const variant = activeVariant(reach);
  if (variant) reach.workbench?.move(variant.id, by);
}

function action(id: string, name: string, keys: string, run: (reach: Reach) => void): Action {
  return { id, name, keys: [keys], when: (reach) => activeVariant(reach) !== undefined, run };
}

export const shelf: Action[] = [
  action('move-back', 'Move the variant back on the shelf', 'alt+shift+p', (reach) => move(reach, -1)),
  action('move-on', 'Move the variant on along the shelf', 'alt+shift+n', (reach) => move(reach, 1)),
];
