// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest';
import { LaneViews } from './lane_view';

const ALL = ['level', 'travel', 'air', 'impedance'];
const WHOLE = [10, 500] as const;
let views: LaneViews;

beforeEach(() => {
  localStorage.clear();
  views = new LaneViews();
});

describe('how the lanes are looked at', () => {
  it('is remembered', () => {
    views.fold('air');
    views.move('travel', -1, ALL);
    const later = new LaneViews();
    expect(later.snapshot().folded).toEqual(['pressure', 'seats', 'air']);
    expect(later.ordered(ALL)).toEqual(['travel', 'level', 'air', 'impedance']);
  });

  it('keeps a lane that comes later behind the one it usually follows', () => {
    views.move('impedance', -1, ['level', 'travel', 'impedance']);
    expect(views.ordered(ALL)).toEqual(['level', 'impedance', 'travel', 'air']);
  });

  it('stops moving at the ends', () => {
    views.move('level', -1, ALL);
    views.move('impedance', 1, ALL);
    expect(views.ordered(ALL)).toEqual(ALL);
  });

  it('gives one lane all the room, and takes it back', () => {
    views.fold('level');
    views.maximise('level');
    expect(views.snapshot()).toMatchObject({ alone: 'level', folded: ['pressure', 'seats'] });
    views.maximise('level');
    expect(views.snapshot().alone).toBeNull();
  });

  it('zooms around a frequency that stays in its place', () => {
    views.zoom('in', 40, WHOLE);
    const [from, to] = views.snapshot().span ?? [0, 0];
    expect(from).toBeGreaterThan(10);
    expect(Math.log(40 / from) / Math.log(to / from)).toBeCloseTo(Math.log(4) / Math.log(50));
    views.zoom('out', 40, WHOLE);
    expect(views.snapshot().span).toBeNull();
  });

  it('is never narrower than a third of an octave nor wider than what there is', () => {
    views.show([41, 40], WHOLE);
    const [from, to] = views.snapshot().span ?? [0, 0];
    expect(to / from).toBeCloseTo(2 ** (1 / 3));
    views.show([1, 1000], WHOLE);
    expect(views.snapshot().span).toBeNull();
  });

  it('survives what cannot be read', () => {
    localStorage.setItem('oak-drum:lanes', 'nonsense');
    expect(new LaneViews().snapshot().folded).toEqual(['pressure', 'seats']);
  });
});
