import { describe, expect, it } from 'vitest';
import type { Motion, Mover } from '../api/types';
import { slot } from '../testing/nook';
import { report } from '../testing/report';
import { layOut } from './geometry';
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
});
