// How far one press of an arrow key goes.

/** A step of 1, 2 or 5 times a power of ten, about a hundredth of the value. */
export function stepFor(value: number, whole: boolean): number {
  if (whole) return 1;
  const wanted = Math.abs(value) * 0.012;
  const decade = 10 ** Math.floor(Math.log10(wanted));
  const lead = wanted / decade;
  return decade * (lead >= 5 ? 5 : lead >= 2 ? 2 : 1);
}

/** The value so many steps away, on a multiple of the step. */
export function nudged(value: number, steps: number, whole: boolean): number {
  const step = stepFor(value, whole);
  return Number(((Math.round(value / step) + steps) * step).toPrecision(9));
}

/** The value rounded so that half a percent still shows. */
export function rounded(value: number, whole: boolean): number {
  const step = stepFor(value, whole) / (whole ? 1 : 2);
  return Number((Math.round(value / step) * step).toPrecision(9));
}
