import { GUIDE } from '../model/guide';
import type { Action } from './action';

/** The pages of the guide, to be found by their names. */
export const guide: Action[] = GUIDE.map(({ id, title }) => ({
  id: `guide-${id}`,
  name: `Help: ${title}`,
  keys: [],
  when: () => true,
  run: (context) => context.go(`/help/${id}`),
}));
