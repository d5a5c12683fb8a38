import { expect, test } from 'vitest';
import { madeOf, pipesOf, USUAL_PIPES, withPipe } from './pipes';

const NOTHING_KNOWN = {
  outer_flare: null,
  inner_flare: null,
  flange: null,
  elbow: null,
  socket: null,
  coupling: null,
  cap: null,
};
const OWN = { name: 'Rain pipe', outside: 0.08, inside: 0.0764 };

test('usual pipes are offered until the list is written anew', () => {
  expect(pipesOf({ list: null })).toBe(USUAL_PIPES);
  expect(USUAL_PIPES.length).toBeGreaterThan(4);
  expect(USUAL_PIPES.every(({ outside, inside }) => inside < outside)).toBe(true);
  expect(pipesOf({ list: [OWN] })).toEqual([OWN]);
});

test('what is no pipe is not offered', () => {
  const wrong = { name: 'Inside out', outside: 0.05, inside: 0.06 };
  expect(pipesOf({ list: [OWN, wrong, {} as never] })).toEqual([OWN]);
  expect(pipesOf({ list: 'pipes' as never })).toBe(USUAL_PIPES);
});

test('one pipe of the list is changed, added or taken out', () => {
  const other = { ...OWN, name: 'Drain' };
  expect(withPipe([OWN], 0, other)).toEqual([other]);
  expect(withPipe([OWN], 1, other)).toEqual([OWN, other]);
  expect(withPipe([OWN, other], 0, null)).toEqual([other]);
});

test('a kit brings its flares and its flange, a plain pipe takes them off', () => {
  expect(madeOf({ name: 'Kit', outside: 0.106, inside: 0.1, flare: 0.028, flange: 0.18 })).toEqual({
    diameter: '100.0 mm',
    build: {
      ...NOTHING_KNOWN,
      wall: '3.00 mm',
      outer_flare: '28 mm',
      inner_flare: '28 mm',
      flange: '180 mm',
    },
  });
  expect(madeOf(OWN).build).toEqual({ ...NOTHING_KNOWN, wall: '1.80 mm' });
});

test('a pipe brings the fittings that its list knows', () => {
  const known = { ...OWN, elbow: 0.044, socket: 0.04, coupling: 0.09, cap: 0.045 };
  expect(madeOf(known).build).toMatchObject({
    elbow: '44.0 mm',
    socket: '40.0 mm',
    coupling: '90.0 mm',
    cap: '45.0 mm',
  });
  // A coupling goes around its pipe, and an elbow is longer than half of it.
  for (const { outside, elbow = 0, coupling = 0 } of USUAL_PIPES) {
    expect(coupling).toBeGreaterThan(outside);
    expect(elbow).toBeGreaterThan(outside / 2);
  }
});
