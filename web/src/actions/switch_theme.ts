import type { Action } from './action';

export const switchTheme: Action = {
  id: 'switch-theme',
  name: 'Switch between light and dark theme',
  keys: ['alt+l'],
  when: () => true,
  run: (context) => context.switchTheme(),
};
