import { expect, it } from 'vitest';
import { drying, lasting } from '../../model/duration';
import { amountOf, money } from './sheet';

it('says amounts as one buys them', () => {
  expect(amountOf(1, 'pieces')).toBe('1 piece');
  expect(amountOf(8, 'pieces')).toBe('8 pieces');
  expect(amountOf(352.4, 'ml')).toBe('352 ml');
  expect(amountOf(1.249, 'm')).toBe('1.2 m');
  expect(amountOf(1250, 'ml')).toBe('1250 ml');
  expect([money(103.6), money(null), money(undefined)]).toEqual(['104', '–', '–']);
});

it('says how long things take', () => {
  expect([lasting(0), lasting(20), lasting(66), lasting(120)]).toEqual(['no work', '20 min', '1.1 h', '2 h']);
  expect([drying(0.5), drying(2), drying(11.96)]).toEqual(['30 min', '2 h', '12 h']);
});
