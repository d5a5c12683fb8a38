import type { Action, CommandContext } from './action';

function action(id: string, name: string, keys: string, run: (context: CommandContext) => void): Action {
  return { id, name, keys: [keys], when: () => true, run };
}

/** What opens wherever one is. */
export const shows: Action[] = [
  action('show-palette', 'Find a command', 'mod+k', (context) => context.show('palette')),
  action('show-units', 'Choose units', 'alt+u', (context) => context.show('units')),
  action('show-glossary', 'Look up a term', 'alt+g', (context) => context.show('glossary')),
  action('show-keys', 'Show all shortcuts', 'alt+k', (context) => context.show('keys')),
];
