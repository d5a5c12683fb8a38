import { useMutation } from '@tanstack/react-query';
import { askTrace } from '../../api/queries/signal';
import { markAt } from '../../model/mark';
import { significant } from '../../model/units';
import type { ReadTrace } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { chooseTrace } from '../../ui/file';
import { Message } from '../../ui/Message';
import { Chart } from '../workbench/Chart';

interface Props {
  /** Takes the trace as a filter: Hz, dB, degrees. */
  onUse: (trace: ReadTrace['points']) => void;
  onClose: () => void;
}

/** A transfer function that was measured, read from a text file and shown before it is used. */
export function MeasuredDialog({ onUse, onClose }: Props) {
  const { mutate, data: found, error, isPending } = useMutation({ mutationFn: askTrace });
  const choose = () => void chooseTrace().then((file) => file && mutate(file));
  const levels = found?.points.map(([, level = 0]) => level) ?? [];
  const [least, most] = [Math.min(...levels), Math.max(...levels)];
  return (
    <Dialog
      title="A measured filter"
      about="Frequency, level in dB and, if there is one, phase in degrees, in whatever columns your program wrote them: a receiver's low-pass, a processor that cannot be looked into."
      open
      onClose={onClose}
    >
      <p>
        <Button look={found ? 'plain' : 'strong'} disabled={isPending} onClick={choose}>
          Choose a file …
        </Button>
      </p>
      <Message error={error} />
      {found && (
        <>
          <p className="mt-2">
            {found.rows} rows, {significant(found.points[0]?.[0] ?? 0, 3)} to{' '}
            {significant(found.points.at(-1)?.[0] ?? 0, 3)} Hz; {found.form}
            {found.phase ? '' : '; no phase, taken as 0°'}.
          </p>
          {found.notes.map((note) => (
            <p key={note} className="text-soft">
              {note}
            </p>
          ))}
          <Chart
            label="The measured filter"
            height={180}
            range={[Math.floor((least - 3) / 5) * 5, Math.ceil((most + 3) / 5) * 5]}
            lines={[
              {
                name: 'level',
                place: 0,
                mark: markAt(0),
                strong: true,
                secondary: false,
                frequency: found.points.map(([frequency = 0]) => frequency),
                values: levels,
              },
            ]}
          />
          <p className="mt-2 text-right">
            <Button look="strong" onClick={() => onUse(found.points)}>
              Add it as a filter
            </Button>
          </p>
        </>
      )}
    </Dialog>
  );
}
