import { lazily } from '../../ui/lazily';
import type { Stage } from '../shell/stages';

export const measureStage: Stage = {
  id: 'measure',
  name: 'Measure',
  command: 'Go to what is measured',
  keys: 'alt+shift+m',
  opens: {
    path: 'measure',
    Panel: lazily(() => import('./MeasureStage').then((module) => module.MeasureStage)),
  },
  progress: ({ measured }) => (measured ? 'in progress' : 'untouched'),
  next: ({ measured }) => (measured ? 'See what the measurements say' : 'Measure the finished box'),
};
