import { lazily } from '../../ui/lazily';
import type { Stage } from '../shell/stages';

export const placeStage: Stage = {
  id: 'place',
  name: 'Place',
  command: 'Go to the place: room, car, outdoors',
  keys: 'alt+shift+w',
  opens: {
    path: 'place',
    Panel: lazily(() => import('./PlaceStage').then((module) => module.PlaceStage)),
  },
  progress: ({ heard }) => (heard ? 'done' : 'untouched'),
  next: ({ heard }) => (heard ? 'Look for better places' : 'Say where it is listened to'),
};
