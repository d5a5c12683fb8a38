import { markAt } from '../../model/mark';
import { isImpedance } from '../../model/measurements';
import { roundUp } from '../../model/scale';
import type { RawTraceKind } from '../../schema/types';
import { Chart } from '../workbench/Chart';

interface Props {
  label: string;
  of: RawTraceKind;
  /** Hz, ohm or dB, degrees. */
  points: readonly number[][];
}

/** One trace by itself. */
export function TraceChart({ label, of, points }: Props) {
  const frequency = points.map(([at = 0]) => at);
  const values = points.map(([, value = 0]) => value);
  const most = Math.max(...values);
  const top = Math.ceil((most + 3) / 5) * 5;
  const range = isImpedance(of) ? ([0, roundUp(most * 1.05)] as const) : ([top - 60, top] as const);
  const line = {
    name: isImpedance(of) ? 'Ω' : 'dB',
    place: 0,
    mark: markAt(0),
    strong: true,
    secondary: false,
  };
  return <Chart label={label} height={190} range={range} lines={[{ ...line, frequency, values }]} />;
}
