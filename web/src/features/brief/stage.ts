import type { Stage } from '../shell/stages';

export const briefStage: Stage = {
  id: 'brief',
  name: 'Brief',
  command: 'Go to the brief',
  keys: 'alt+shift+r',
  opens: { window: 'brief' },
  progress: ({ brief }) => (brief?.lowest ? 'done' : brief ? 'in progress' : 'untouched'),
  next: ({ brief }) =>
    brief
      ? 'Say the lowest note that must be heard'
      : 'Say how low, how loud and in which space it must play',
};
