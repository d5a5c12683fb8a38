import { siAt, valueAt, withValue } from '../model/design';
import { nudged } from '../model/nudge';
import { fieldAt, readTyped, usualUnit, writeTyped } from '../model/units';
import { type Action, activeVariant, type CommandContext } from './action';

function nudge(context: CommandContext, path: string, steps: number): void {
  const variant = activeVariant(context);
  const si = variant && (context.follows(variant.id, path) ?? siAt(variant.design, path));
  if (!variant || !si) return;
  const field = fieldAt(path);
  const unit = readTyped(valueAt(variant.design, path), field.dimension)?.unit ?? usualUnit(field);
  const factor = unit?.factor ?? 1;
  const next = nudged(si / factor, steps, false) * factor;
  if (next < field.min || next > field.max) return;
  context.workbench?.edit(
    variant.id,
    withValue(variant.design, path, writeTyped(next, unit, 5)),
    field.symbol,
  );
}

function action(id: string, name: string, keys: string, path: string, steps: number): Action {
  return {
    id,
    name,
    keys: [keys],
    when: (context) => activeVariant(context) !== undefined,
    run: (context) => nudge(context, path, steps),
  };
}

export const nudges: Action[] = [
  action('volume-up', 'A little more volume', 'alt+v', 'enclosure.volume', 1),
  action('volume-down', 'A little less volume', 'alt+shift+v', 'enclosure.volume', -1),
  action('tuning-up', 'Tune a little higher', 'alt+t', 'enclosure.tuning', 1),
  action('tuning-down', 'Tune a little lower', 'alt+shift+t', 'enclosure.tuning', -1),
];
