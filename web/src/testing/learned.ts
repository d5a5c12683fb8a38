// What a workshop of one box and of three has learned.

import type { LearnedDesign, LearnedValue } from '../schema/types';
import { slot } from './nook';

export const leakage: LearnedValue = {
  quantity: 'leakage',
  of: 'butt joints',
  builds: 1,
  offered: false,
  value: 11.46,
  span: [8.97, 14.6],
  usual: 7,
};
export const ply: LearnedValue = {
  quantity: 'thickness',
  of: 'Birch plywood sold as 18 mm',
  builds: 3,
  offered: true,
  value: 0.01746,
  span: [0.01733, 0.0176],
  usual: 0.018,
};

export const learnedDesign: LearnedDesign = {
  design: { ...slot, notes: 'learned' },
  set: ['QL 11 (butt joints, 1 build)', 'ports act longer by 2 mm (slot ports, 3 builds)'],
};
