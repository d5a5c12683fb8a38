import { lazily } from '../../ui/lazily';
import type { Stage } from '../shell/stages';

export const signalStage: Stage = {
  id: 'signal',
  name: 'Signal',
  command: 'Go to the signal: filters, amplifier, passive parts',
  keys: 'alt+shift+g',
  opens: {
    path: 'signal',
    Panel: lazily(() => import('./SignalStage').then((module) => module.SignalStage)),
  },
  progress({ brief, design, checks }) {
    const signal = design?.signal;
    const known = Boolean(signal?.amplifier || brief?.amplifier_power);
    if (!design || (!known && !signal?.filters?.length && !signal?.parts?.length)) return 'untouched';
    const load = checks.find(({ id }) => id === 'load');
    return known && load?.verdict !== 'short' ? 'done' : 'in progress';
  },
  next({ brief, design, checks }) {
    const load = checks.find(({ id, verdict }) => id === 'load' && verdict === 'short');
    if (load) return `${load.name}: ${load.words}`;
    if (!design?.signal?.amplifier && !brief?.amplifier_power) return 'Choose the amplifier';
    return design?.signal?.filters?.length ? 'Look at each filter' : 'Protect the cone with a high-pass';
  },
};
