import { lazy } from 'react';
import type { Stage } from '../shell/stages';

/** What is judged by the box as it is drawn. */
const OF_THE_BOX = ['fits', 'place', 'size', 'weight'];

export const curvesStage: Stage = {
  id: 'curves',
  name: 'Curves',
  command: 'Go to the curves',
  keys: 'alt+shift+c',
  opens: {
    path: '',
    Panel: lazy(() => import('./CurvesStage').then((module) => ({ default: module.CurvesStage }))),
  },
  progress({ design, checks }) {
    if (!design) return 'untouched';
    const own = checks.filter(({ id }) => !OF_THE_BOX.includes(id));
    return own.length > 0 && own.every(({ verdict }) => verdict !== 'short') ? 'done' : 'in progress';
  },
  next({ checks }) {
    const short = checks.find(({ id, verdict }) => verdict === 'short' && !OF_THE_BOX.includes(id));
    return short ? `${short.name}: ${short.words}` : 'Choose volume and tuning';
  },
};
