import type { Action } from './action';

export const switchTheme: Action = {
  id: 'switch-theme',
  name: 'Switch between daylight and lamplight',
  keys: ['alt+l'],
  when: () => true,
  run: (context) => context.switchTheme(),
};
