import type { Lane } from './lane';
import type { Line } from './Plot';
import type { Trace } from './trace';

/** What a lane draws of the shown variants. */
export function drawing(
  lane: Lane,
  shown: Trace[],
  active: Trace,
  own: readonly [number, number] | undefined,
) {
  const mains = shown.map(
    (one): Line => ({
      place: one.place,
      mark: one.mark,
      strong: one.id === active.id,
      secondary: false,
      values: useable(lane.values(one.report.curves)),
    }),
  );
  const extras = lane.extras?.(active.report) ?? [];
  const asides = extras.map(
    ({ values }): Line => ({
      place: active.place,
      mark: active.mark,
      strong: false,
      secondary: true,
      values,
    }),
  );
  const reports = shown.map((one) => one.report);
  return {
    lines: [...mains, ...asides],
    extras,
    range: own ?? lane.range(reports, active.report),
    limit: lane.limit?.(active.report) ?? null,
  };
}

function useable(values: number[] | null): number[] | null {
  return values?.length ? values : null;
}
