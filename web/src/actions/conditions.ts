import { conditions } from '../model/conditions';
import { type Action, activeVariant } from './action';

export const switchConditions: Action = {
  id: 'switch-conditions',
  name: 'Switch between in use and on the bench',
  keys: ['alt+r'],
  when: (context) => activeVariant(context) !== undefined,
  run: () =>
    conditions.set({
      conditions: conditions.snapshot().conditions === 'bench' ? 'in_use' : 'bench',
    }),
};
