import type { Check } from '../../schema/types';
import { lazily } from '../../ui/lazily';
import { isOfTheBox, type Stage } from '../shell/stages';

const shortOf = (checks: readonly Check[]) =>
  checks.find((check) => check.verdict === 'short' && isOfTheBox(check));

export const boxStage: Stage = {
  id: 'box',
  name: 'Box',
  command: 'Go to the box: sizes, boards, drawings',
  keys: 'alt+shift+o',
  opens: {
    path: 'box',
    Panel: lazily(() => import('./BoxStage').then((module) => module.BoxStage)),
  },
  progress({ design, checks }) {
    if (!design?.body) return 'untouched';
    const { width, height, depth } = design.body;
    return !shortOf(checks) && width && height && depth ? 'done' : 'in progress';
  },
  next({ design, checks }) {
    const short = shortOf(checks);
    if (short) return `${short.name}: ${short.words}`;
    return design?.body ? 'Settle its sizes' : 'Draw the box: shape, sizes, boards';
  },
};
