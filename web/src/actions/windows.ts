import { type Action, activeVariant, type Window } from './action';

function action(id: Window, name: string, keys: string): Action {
  return {
    id: `open-${id}`,
    name,
    keys: [keys],
    when: (context) => activeVariant(context) !== undefined,
    run: (context) => context.open(id),
  };
}

/** What opens over the workbench. */
export const windows: Action[] = [
  action('brief', 'Write the brief', 'alt+b'),
  action('driver', 'Choose another driver', 'alt+d'),
  action('family', 'Choose another kind of cabinet', 'alt+c'),
  action('sweep', 'What if: vary one value', 'alt+w'),
  action('spread', 'How sure: drivers and boards as built', 'alt+h'),
  action('scale', 'Scale the box by a factor, or into its place', 'alt+shift+x'),
  action('kit', 'Box from the boards of a pre-cut kit', 'alt+shift+k'),
  action('motion', 'Slow motion at the cursor', 'alt+m'),
  action('compare', 'Compare the variants', 'alt+x'),
  action('workings', 'All figures of the active variant, worked out', 'alt+q'),
  action('history', 'History of the active variant', 'alt+y'),
  action('archived', 'Archived variants', 'alt+a'),
];
