// How the lanes are looked at: their order, what is folded, which span and ranges, and where the cursor stands.

import { Observable } from './observable';
import { Stored } from './stored';

export interface LaneView {
  /** Ids of lanes in the order they stand; those that are missing come after. */
  order: readonly string[];
  folded: readonly string[];
  /** The one that has all the room. */
  alone: string | null;
  /** Lowest and highest frequency on show, Hz; null shows all. */
  span: readonly [number, number] | null;
  /** Lowest and highest value of lanes whose range was set by hand. */
  ranges: Readonly<Record<string, readonly [number, number]>>;
  /** Whether peaks and dips of the active variant are named. */
  peaks: boolean;
  /** What is played in the lane over time, if it is there. */
  played: 'step' | 'burst' | null;
}

const USUAL: LaneView = {
  order: [],
  // Rarely asked for, and five others have less room beside it.
  folded: ['pressure', 'seats'],
  alone: null,
  span: null,
  ranges: {},
  peaks: false,
  played: null,
};

/** Narrowest span: a third of an octave. */
const NARROWEST = 2 ** (1 / 3);
const ZOOM = 1.6;

export class LaneViews extends Stored<LaneView> {
  constructor() {
    super('oak-drum:lanes', USUAL);
  }

  /** Ids in the order they stand. */
  ordered(all: readonly string[]): string[] {
    const known = this.state.order.filter((id) => all.includes(id));
    // A lane that has never been moved stays behind the one that it usually follows.
    for (const [at, id] of all.entries()) {
      if (known.includes(id)) continue;
      const before = all.slice(0, at).findLast((other) => known.includes(other));
      known.splice(before ? known.indexOf(before) + 1 : 0, 0, id);
    }
    return known;
  }

  fold(id: string): void {
    const { folded, alone } = this.state;
    const away = folded.includes(id);
    this.set({
      folded: away ? folded.filter((other) => other !== id) : [...folded, id],
      alone: alone === id ? null : alone,
    });
  }

  maximise(id: string): void {
    const { alone, folded } = this.state;
    this.set({ alone: alone === id ? null : id, folded: folded.filter((other) => other !== id) });
  }

  move(id: string, by: 1 | -1, all: readonly string[]): void {
    const order = this.ordered(all);
    const at = order.indexOf(id);
    const to = at + by;
    if (at < 0 || to < 0 || to >= order.length) return;
    order.splice(at, 1);
    order.splice(to, 0, id);
    this.set({ order });
  }

  range(id: string, range: readonly [number, number] | null): void {
    const { [id]: _, ...others } = this.state.ranges;
    this.set({ ranges: range ? { ...others, [id]: range } : others });
  }

  /** Shows a span within a whole one; all of it where it is as wide. */
  show(span: readonly [number, number] | null, [lowest, highest]: readonly [number, number]): void {
    if (!span) {
      this.set({ span: null });
      return;
    }
    let [from, to] = [Math.max(lowest, Math.min(...span)), Math.min(highest, Math.max(...span))];
    if (to / from < NARROWEST) {
      const middle = Math.min(
        highest / Math.sqrt(NARROWEST),
        Math.max(lowest * Math.sqrt(NARROWEST), Math.sqrt(from * to)),
      );
      [from, to] = [middle / Math.sqrt(NARROWEST), middle * Math.sqrt(NARROWEST)];
    }
    this.set({ span: from <= lowest * 1.001 && to >= highest * 0.999 ? null : [from, to] });
  }

  /** Zooms in or out around a frequency, which stays where it is on screen. */
  zoom(direction: 'in' | 'out', around: number, whole: readonly [number, number]): void {
    const [from, to] = this.state.span ?? whole;
    const factor = direction === 'in' ? 1 / ZOOM : ZOOM;
    const centre = Math.min(to, Math.max(from, around));
    this.show([centre * (from / centre) ** factor, centre * (to / centre) ** factor], whole);
  }
}

/** Where the cursor stands at first: the low E of a bass, Hz. */
const FIRST_CURSOR = 41.2;

/** The one frequency that every lane, the table and the slow motion read. */
export class Cursor extends Observable<{ frequency: number }> {
  constructor() {
    super({ frequency: FIRST_CURSOR });
  }

  move(frequency: number): void {
    if (frequency !== this.state.frequency) this.update({ frequency });
  }
}

export const laneViews = new LaneViews();
export const cursor = new Cursor();
