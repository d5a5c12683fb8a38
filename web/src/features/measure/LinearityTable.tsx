import { KINDS } from '../../model/measurements';
import { significant } from '../../model/units';
import type { MeasuringReport } from '../../schema/types';

type One = MeasuringReport['linearity'][number];

const decibels = (level: number): string => `${level.toFixed(0)} dB`.replace('-', '−');

const worst = (found: readonly number[] | null | undefined, unit: string): string =>
  found ? `${significant(found[1] ?? 0, 2)} ${unit} at ${significant(found[0] ?? 0, 2)} Hz` : '–';

function verdict({ music, maximum, steps }: One): string {
  const loudest = steps.at(-1)?.level;
  if (maximum == null)
    return 'Not clean at any of these levels: the input is overdriven, or something scrapes.';
  if (music === loudest) return 'Clean at every level that was played: it may go louder.';
  const clean =
    music == null
      ? 'Not clean enough for music at any of these levels'
      : `Clean enough for music up to ${decibels(music)}`;
  return `${clean}; as a maximum up to ${decibels(maximum)}.`;
}

/** Harmonics and compression of one opening, level by level. */
export function LinearityTable({ one }: { one: One }) {
  return (
    <section aria-label={`Level by level: ${KINDS[one.of]}`}>
      <h3 className="font-semibold">
        Level by level: {KINDS[one.of].toLowerCase()} {one.of === 'nearfield_cone' ? one.driver : ''}
      </h3>
      <p>{verdict(one)}</p>
      <table className="w-full text-[0.929rem]">
        <thead>
          <tr className="text-left">
            <th scope="col">Sweep</th>
            <th scope="col">2nd harmonic</th>
            <th scope="col">3rd harmonic</th>
            <th scope="col">Compression</th>
          </tr>
        </thead>
        <tbody>
          {one.steps.map(({ level, second, third, compression }) => (
            <tr key={level} className="border-line border-t">
              <th scope="row" className="whitespace-nowrap text-left font-medium">
                {decibels(level)}
              </th>
              <td className="font-mono">{worst(second, '%')}</td>
              <td className="font-mono">{worst(third, '%')}</td>
              <td className="font-mono">{worst(compression, 'dB')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[0.929rem] text-soft">
        The worst from 20 to 200 Hz. Common practice: 3 % and 1 dB for music, 10 % and 3 dB for a maximum.
        Compression is against the softest sweep.
      </p>
    </section>
  );
}

/** What is lost beside the axis. */
export function AngleTable({ angles }: { angles: MeasuringReport['angles'] }) {
  const at = (lost: readonly (readonly number[])[], wanted: number) => {
    const found = lost.find(([frequency = 0]) => frequency >= wanted)?.[1];
    return found === undefined ? '–' : `${found.toFixed(1).replace('-', '−')} dB`;
  };
  return (
    <table className="w-full text-[0.929rem]">
      <caption className="text-left font-semibold">
        Beside the axis: what is lost, over a third of an octave
      </caption>
      <thead>
        <tr className="text-left">
          <th scope="col">Angle</th>
          <th scope="col">100 Hz</th>
          <th scope="col">200 Hz</th>
          <th scope="col">400 Hz</th>
          <th scope="col">Beams from</th>
        </tr>
      </thead>
      <tbody>
        {angles.map(({ angle, lost, beams }) => (
          <tr key={angle} className="border-line border-t">
            <th scope="row" className="text-left font-medium">
              {angle.toFixed(0)}°
            </th>
            {[100, 200, 400].map((wanted) => (
              <td key={wanted} className="font-mono">
                {at(lost, wanted)}
              </td>
            ))}
            <td className="font-mono">
              {beams == null ? 'not within the trace' : `${significant(beams, 2)} Hz`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
