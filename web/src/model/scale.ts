// Where values stand on a drawing, and the round ones among them.

/** From a value to a place. */
export type Scale = (value: number) => number;
export type Range = readonly [number, number];

/** A range of values spread evenly over a stretch; the stretch may run backwards, as heights do. */
export function linear([from, to]: Range, [start, end]: Range): Scale {
  return (value) => start + ((end - start) * (value - from)) / (to - from);
}

/** A range of values spread over a stretch, each doubling as wide as any other. */
export function logarithmic([from, to]: Range, [start, end]: Range): Scale {
  return (value) => start + ((end - start) * Math.log(value / from)) / Math.log(to / from);
}

/** The first of some leading digits, times a power of ten, that is no less than a value. */
export function roundUp(value: number, leads: readonly number[] = [1, 1.5, 2, 3, 4, 5, 6, 8]): number {
  if (!(value > 0)) return 1;
  const decade = 10 ** Math.floor(Math.log10(value));
  return decade * (leads.find((lead) => lead >= (value / decade) * 0.9999) ?? 10);
}

/** Round values across a range, at most about so many. */
export function rungs([low, high]: Range, most = 5): number[] {
  const step = roundUp((high - low) / most, [1, 2, 5]);
  const first = Math.ceil(low / step - 1e-9);
  const last = Math.floor(high / step + 1e-9);
  return Array.from({ length: last - first + 1 }, (_, k) => (first + k) * step);
}

/** 1, 2 and 5 of every decade in a range; more of them where that leaves fewer than three. */
export function decades([from, to]: Range): number[] {
  const within = (leads: readonly number[]) => {
    const found: number[] = [];
    for (let decade = 10 ** Math.floor(Math.log10(from)); decade <= to; decade *= 10) {
      found.push(...leads.map((lead) => lead * decade).filter((value) => value >= from && value <= to));
    }
    return found;
  };
  const few = within([1, 2, 5]);
  return few.length >= 3 ? few : within([1, 1.5, 2, 2.5, 3, 4, 5, 6, 7, 8, 9]);
}
