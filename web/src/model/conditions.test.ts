import { expect, it } from 'vitest';
import type { Report } from '../schema/types';
import { conditionsOf } from './conditions';

const of = (name: string, words: string) => ({ name, report: { conditions: words } as Report });

it('says conditions once where variants share them, and by name where they do not', () => {
  expect(conditionsOf([])).toBe('');
  expect(conditionsOf([of('A', '2.83 V'), of('B', '2.83 V')])).toBe('2.83 V');
  expect(conditionsOf([of('A', '2.83 V'), of('B', '20 V')])).toBe('A: 2.83 V; B: 20 V');
});
