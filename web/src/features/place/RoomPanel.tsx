import { inside } from '../../model/places';
import { inWords } from '../../model/preferences';
import type { RawListeningPlace, Typed } from '../../schema/types';
import { type PanelProps, type PlaceRow, PlaceValues, without } from './panel';

const WALLS = ['left', 'right', 'below', 'above', 'floor', 'ceiling'] as const;

/** Size and walls of a room or cabin, and what they make of it. */
export function RoomPanel({ place, report, error, onEdit }: PanelProps) {
  const put = (change: Partial<RawListeningPlace> | object, label: string) =>
    onEdit(inside(without({ ...place, ...change })), label);
  const row = (
    name: 'width' | 'length' | 'height' | 'absorption' | 'leak' | 'wall_mass' | 'hours',
  ): PlaceRow => ({
    path: name,
    typed: place[name],
    optional: !['width', 'length', 'height'].includes(name),
    onType: (typed) =>
      put({ [name]: typed }, name === 'leak' ? 'leak' : name === 'absorption' ? name : 'size of the room'),
  });
  const car = place.kind === 'car';
  const wall = (name: (typeof WALLS)[number]): PlaceRow => ({
    path: `walls.${name}`,
    typed: place.walls?.[name],
    onType: (typed: Typed | null) => put({ walls: without({ ...place.walls, [name]: typed }) }, 'absorption'),
  });
  const room = report?.room;
  return (
    <div className="flex flex-col gap-2">
      <PlaceValues
        error={error}
        otherwise="Of a room that is not rectangular, the nearest that is."
        rows={[
          row('width'),
          row('length'),
          row('height'),
          { ...row('absorption'), follows: car ? '15 %' : '10 %' },
          { ...row('leak'), follows: car ? '8 Hz' : '0 Hz' },
        ]}
      />
      <details>
        <summary className="text-[0.929rem] text-soft">Absorption of single walls</summary>
        <PlaceValues error={error} rows={WALLS.map(wall)} />
      </details>
      {room && (
        <>
          <p>
            <b>{room.volume.toFixed(1)} m³</b>, reverberation {room.reverberation.toFixed(2)} s.{' '}
            {inWords(room.words)}
          </p>
          {room.lift && (
            <table className="w-full text-[0.929rem]">
              <caption className="pb-0.5 text-left text-soft">
                Lift of the cabin over the open. The rule of thumb lifts below c/2L ={' '}
                {room.lift.upper.toFixed(0)} Hz; at {room.lift.crossing.toFixed(0)} Hz a sealed cabin of this
                volume is as loud as 1 m in the open.
              </caption>
              <thead>
                <tr className="border-line border-b text-left">
                  <th>Frequency</th>
                  <th className="text-right">rule of thumb</th>
                  <th className="text-right">pressure alone</th>
                  <th className="text-right">at the seats</th>
                </tr>
              </thead>
              <tbody className="font-mono">
                {room.lift.rows.map(([frequency, ...levels]) => (
                  <tr key={frequency}>
                    <th scope="row" className="text-left font-normal">
                      {frequency} Hz
                    </th>
                    {levels.map((level, at) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: three columns, always the same
                      <td key={at} className="text-right">
                        {level.toFixed(1).replace('-', '−')} dB
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {car && (
            <p className="text-[0.929rem] text-soft">
              In a car nothing may lie loose in the cabin or block belts, airbags or the way out.
            </p>
          )}
        </>
      )}
    </div>
  );
}
