import { conditions } from '../model/conditions';
import { type Action, activeVariant } from './action';

export const switchConditions: Action = {
  id: 'switch-conditions',
  name: 'Switch between in use and on the bench',
  keys: ['alt+r'],
  when: (context) => activeVariant(context) !== undefined,
  run: () => conditions.set({ basis: conditions.snapshot().basis === 'bench' ? 'in_use' : 'bench' }),
};
