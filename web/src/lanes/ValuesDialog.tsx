import { conditionsOf } from '../model/conditions';
import { cursor } from '../model/lane_view';
import { significant } from '../model/units';
import { Dialog } from '../ui/Dialog';
import { MarkGlyph } from '../ui/MarkGlyph';
import { Scroll } from '../ui/Scroll';
import { type Lane, mainOf } from './lane';
import type { Shown } from './shown';
import { valueAt } from './trace';

/** Third-octave bands of a subwoofer (IEC 61260), Hz. */
const BANDS = [16, 20, 25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200];

interface Props {
  open: boolean;
  shown: Shown[];
  lanes: Lane[];
  onClose: () => void;
}

/** All lanes in numbers, at the cursor and at the middles of third octaves. */
export function ValuesDialog({ open, shown, lanes, onClose }: Props) {
  if (!open) return null;
  const here = cursor.snapshot().frequency;
  const at = [here, ...BANDS];
  return (
    <Dialog
      title="Values of the lanes"
      about={`At the cursor, then at the middles of third octaves. ${conditionsOf(shown)}.`}
      open
      wide
      onClose={onClose}
    >
      <Scroll label="Values" className="overflow-x-auto">
        <table className="w-full text-right font-mono text-[0.929rem]">
          <thead>
            <tr className="border-line border-b">
              <th scope="col" className="text-left font-sans">
                Hz
              </th>
              {at.map((frequency, column) => (
                <th key={frequency} scope="col" className={column === 0 ? 'bg-rule px-1.5' : 'px-1.5'}>
                  {significant(frequency, 3)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {lanes.flatMap((lane) =>
              shown.map((one, row) => {
                const main = mainOf(lane, one);
                return (
                  <tr
                    key={`${lane.id} ${one.id}`}
                    className={row === shown.length - 1 ? 'border-line border-b' : ''}
                  >
                    <th scope="row" className="py-0.5 pr-2 text-left font-normal font-sans">
                      <span className="flex items-center gap-1.5">
                        <MarkGlyph mark={one.mark} />
                        <span className="max-w-56 truncate">
                          {lane.name}, {one.name}
                        </span>
                        <span className="text-soft">{lane.unit.split(',')[0]}</span>
                      </span>
                    </th>
                    {at.map((frequency, column) => (
                      <td key={frequency} className={column === 0 ? 'bg-rule px-1.5 font-bold' : 'px-1.5'}>
                        {(main && valueAt(main, frequency))?.toFixed(lane.decimals) ?? '–'}
                      </td>
                    ))}
                  </tr>
                );
              }),
            )}
          </tbody>
        </table>
      </Scroll>
    </Dialog>
  );
}
