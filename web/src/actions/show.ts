import type { Action, Reach } from './action';

function action(id: string, name: string, keys: string, run: (reach: Reach) => void): Action {
  return { id, name, keys: [keys], when: () => true, run };
}

/** What opens wherever one is. */
export const shows: Action[] = [
  action('show-palette', 'Find a command', 'mod+k', (reach) => reach.show('palette')),
  action('show-units', 'Choose units', 'alt+u', (reach) => reach.show('units')),
  action('show-glossary', 'Look a term up', 'alt+g', (reach) => reach.show('glossary')),
  action('show-keys', 'Show all shortcuts', 'alt+k', (reach) => reach.show('keys')),
];
