import { lazily } from '../../ui/lazily';
import { isOfTheBox, type Stage } from '../shell/stages';

export const curvesStage: Stage = {
  id: 'curves',
  name: 'Curves',
  command: 'Go to the curves',
  keys: 'alt+shift+c',
  opens: {
    path: '',
    Panel: lazily(() => import('./CurvesStage').then((module) => module.CurvesStage)),
  },
  progress({ design, checks }) {
    if (!design) return 'untouched';
    const own = checks.filter((check) => !isOfTheBox(check));
    return own.length > 0 && own.every(({ verdict }) => verdict !== 'short') ? 'done' : 'in progress';
  },
  next({ checks }) {
    const short = checks.find((check) => check.verdict === 'short' && !isOfTheBox(check));
    return short ? `${short.name}: ${short.words}` : 'Choose volume and tuning';
  },
};
