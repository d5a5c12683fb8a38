import { lazy } from 'react';
import type { Stage } from '../shell/stages';

const OF_THE_BOX = ['fits', 'place', 'size', 'weight'];

export const boxStage: Stage = {
  id: 'box',
  name: 'Box',
  command: 'Go to the box: sizes, boards, drawings',
  keys: 'alt+shift+o',
  opens: {
    path: 'box',
    Panel: lazy(() => import('./BoxPanel').then((module) => ({ default: module.BoxPanel }))),
  },
  progress({ design, checks }) {
    if (!design?.body) return 'untouched';
    const short = checks.some(({ id, verdict }) => OF_THE_BOX.includes(id) && verdict === 'short');
    const { width, height, depth } = design.body;
    return !short && width && height && depth ? 'done' : 'in progress';
  },
  next({ design, checks }) {
    const short = checks.find(({ id, verdict }) => OF_THE_BOX.includes(id) && verdict === 'short');
    if (short) return `${short.name}: ${short.words}`;
    return design?.body ? 'Settle its sizes' : 'Draw the box: shape, sizes, boards';
  },
};
