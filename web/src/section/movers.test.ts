import { describe, expect, it } from 'vitest';
import type { Motion, Mover } from '../schema/types';
import { slot } from '../testing/nook';
import { report } from '../testing/report';
import { layOut } from './layout';
import { magnification, movingParts, placeAt } from './movers';
import type { Scene } from './scene';

const mover = (kind: Mover['kind'], label: string, travel: number, phase: number): Mover => ({
  kind,
  label,
  travel,
  phase,
  sound: { level: 90, beside_sum: 0 },
});
const motion: Motion = {
  frequency: 29,
  level: 100,
  words: [],
  movers: [mover('cone', 'Cone', 0.002, 90), mover('port', 'Port', 0.04, 0)],
};

describe('slow motion', () => {
  const scene = layOut({ design: slot, report }) as Scene;
  const moving = movingParts(scene, motion);

  it('moves the cone and the air of the port, outward', () => {
    expect(moving.map(({ part, mover: { label } }) => [part.kind, label])).toEqual([
      ['port', 'Port'],
      ['driver', 'Cone'],
    ]);
    expect(moving.map(({ outward }) => outward)).toEqual([
      [1, 0],
      [1, 0],
    ]);
  });

  it('enlarges all alike, and keeps their phases', () => {
    const scale = magnification(moving);
    expect(0.04 * scale).toBeCloseTo(20);
    const [port, cone] = moving.map((one) => one.mover) as [Mover, Mover];
    expect(placeAt(port, 0, scale)).toBeCloseTo(20);
    expect(placeAt(cone, 0, scale)).toBeCloseTo(0);
    expect(placeAt(cone, 270, scale)).toBeCloseTo(1);
  });

  it('moves each cone of a pair by itself where there is air between them', () => {
    const pair = { ...slot, driver_array: { isobaric: { arrangement: 'face_to_face' as const } } };
    const both = layOut({ design: pair, report }) as Scene;
    const travels = (cones: Mover[]) => {
      const all = movingParts(both, { ...motion, movers: cones });
      return all.map(({ mover: { label }, outward }) => [label, ...outward]);
    };
    const [outer, inner] = [mover('cone', 'Cone 1', 2e-3, 90), mover('cone', 'Cone 2', 1.9e-3, 88)];
    expect(travels([outer, inner])).toEqual([
      ['Cone 2', 1, 0],
      ['Cone 1', 1, 0],
    ]);
    // Where they are taken as one, both go as that one.
    expect(travels([mover('cone', 'Cone', 2e-3, 90)]).map(([label]) => label)).toEqual(['Cone', 'Cone']);
  });
});
