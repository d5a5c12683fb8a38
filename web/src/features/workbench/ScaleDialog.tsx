import { useDeferredValue, useState } from 'react';
import { useScaled } from '../../api/queries/design';
import { inWords } from '../../model/preferences';
import { hertz, parseNumber } from '../../model/units';
import type { RawBrief, RawDesign, ScaleOutcome } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { Table } from '../../ui/Table';

interface Props {
  design: RawDesign;
  brief: RawBrief | null;
  conditions: string;
  onUse: (design: RawDesign) => void;
  onTry: (design: RawDesign) => void;
  onClose: () => void;
}

const BY = [
  ['factor', 'By a factor'],
  ['place', 'Into the place of the brief'],
] as const;

const litres = (volume: number | null | undefined) =>
  volume == null ? '–' : inWords(`${(volume * 1e3).toFixed(1)} l`);
const decibels = (level: number | null | undefined) => (level == null ? '–' : `${level.toFixed(1)} dB`);

const ROWS: [string, (outcome: ScaleOutcome) => string][] = [
  ['Outside', ({ outside }) => litres(outside)],
  ['Air', ({ air }) => litres(air)],
  ['F3', ({ f3 }) => hertz(f3)],
  ['Tuning', ({ tuning }) => hertz(tuning)],
  ['SPL, passband', ({ level }) => decibels(level)],
  ['Max. clean SPL', ({ clean }) => decibels(clean)],
  ['Fastest air', ({ air_speed }) => (air_speed == null ? '–' : `${air_speed.toFixed(1)} m/s`)],
  ['Box, as drawn', ({ buildable }) => (buildable ? 'can be built' : 'cannot be built')],
];

/** Somebody else's plan made larger or smaller: every length by one factor, and what becomes of it. */
export function ScaleDialog({ design, brief, conditions, onUse, onTry, onClose }: Props) {
  const [by, setBy] = useState<'factor' | 'place'>('factor');
  const [typed, setTyped] = useState('0.8');
  const read = parseNumber(typed);
  const factor = typeof read === 'number' && read >= 0.2 && read <= 5 ? read : null;
  const wanted = by === 'factor' ? factor : 'place';
  const asked = useDeferredValue(wanted);
  const { data, error, isPlaceholderData } = useScaled(design, brief, asked);
  // What is on show until the answer comes is of another factor, and is not taken for this one.
  const settled = asked === wanted && !isPlaceholderData;
  const name = data ? `${design.name ?? 'Box'}, × ${data.factor.toFixed(3)}` : '';
  return (
    <Dialog
      title="Scale the box"
      about={`Every length of the box by one factor, areas and volumes with it. Boards, drivers and radiators stay as they are sold. ${conditions}.`}
      open
      onClose={onClose}
    >
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <Choice label="How it is scaled" value={by} options={BY} onChange={setBy} />
        {by === 'factor' && (
          <label className="flex items-center gap-1.5">
            Factor
            <input
              className="field w-20 font-mono"
              inputMode="decimal"
              aria-invalid={factor === null}
              aria-describedby={factor === null ? 'scale-range' : undefined}
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
            />
          </label>
        )}
        {by === 'factor' && factor === null && (
          <p id="scale-range" role="alert" className="text-short">
            "{typed}" is not a factor from 0.2 to 5.
          </p>
        )}
        {by === 'place' && data && settled && <span className="font-mono">× {data.factor.toFixed(3)}</span>}
      </div>
      <Message error={error} />
      {data && (
        <div aria-busy={!settled} className="aria-busy:opacity-60">
          <Table
            className="text-[1rem]"
            rows={ROWS}
            keyOf={([figure]) => figure}
            columns={[
              { name: 'Figure', names: true, className: 'py-0.5', cell: ([figure]) => figure },
              { name: 'As it is', kind: 'figure', cell: ([, of]) => of(data.before) },
              {
                name: 'Scaled',
                kind: 'figure',
                className: ([figure]) =>
                  figure === 'Box, as drawn' && !data.after.buildable ? 'font-bold text-short' : 'font-bold',
                cell: ([, of]) => of(data.after),
              },
            ]}
          />
          <div className="mt-4 flex justify-end gap-2">
            <Button disabled={!settled} onClick={() => onUse(data.design)}>
              Replace this design
            </Button>
            <Button
              look="strong"
              disabled={!settled}
              onClick={() => onTry({ ...data.design, name: name.slice(0, 120) })}
            >
              As a variant
            </Button>
          </div>
        </div>
      )}
    </Dialog>
  );
}
