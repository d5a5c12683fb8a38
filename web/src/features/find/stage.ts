import type { Stage } from '../shell/stages';

export const driverStage: Stage = {
  id: 'driver',
  name: 'Driver',
  command: 'Go to the drivers for the brief',
  keys: 'alt+shift+f',
  opens: { page: 'find' },
  progress: ({ design }) => (design ? 'done' : 'untouched'),
  next: () => 'Choose a driver, or search the library for the brief',
};
