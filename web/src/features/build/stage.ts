import { lazily } from '../../ui/lazily';
import { isOfTheBox, type Stage } from '../shell/stages';

export const buildStage: Stage = {
  id: 'build',
  name: 'Build',
  command: 'Go to what is cut and built',
  keys: 'alt+shift+u',
  opens: {
    path: 'build',
    Panel: lazily(() => import('./BuildStage').then((module) => module.BuildStage)),
  },
  progress({ design, checks }) {
    if (!design?.body) return 'untouched';
    return checks.some((check) => isOfTheBox(check) && check.verdict === 'short')
      ? 'untouched'
      : 'in progress';
  },
  next({ checks }) {
    const short = checks.find((check) => isOfTheBox(check) && check.verdict === 'short');
    return short ? `First the box: ${short.words}` : 'Look at each board before it is cut';
  },
};
