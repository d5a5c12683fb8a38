import { extrasOf, type Lane, mainOf } from './lane';
import type { Line } from './line';
import type { Shown } from './shown';

/** What a lane draws of the shown variants: the main line of each first, then what stands beside the active one's. */
export function drawing(
  lane: Lane,
  shown: Shown[],
  active: Shown,
  own: readonly [number, number] | undefined,
) {
  const mains = shown.map((one): Line => {
    const { frequency, values } = mainOf(lane, one) ?? { frequency: [], values: [] };
    const strong = one.id === active.id;
    return { place: one.place, mark: one.mark, strong, secondary: false, frequency, values };
  });
  const { place, mark } = active;
  const extras = extrasOf(lane, active).map(({ label, trace: { frequency, values, origin } }) => ({
    label,
    line: {
      place,
      mark,
      strong: false,
      secondary: true,
      measured: origin === 'measured',
      frequency,
      values,
    } satisfies Line,
  }));
  return {
    lines: [...mains, ...extras.map(({ line }) => line)],
    extras,
    range: own ?? lane.range(shown, active),
    limit: lane.limit?.(active) ?? null,
  };
}
