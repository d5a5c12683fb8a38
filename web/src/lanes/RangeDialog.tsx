import { useState } from 'react';
import { laneViews } from '../model/lane_view';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import type { Lane } from './lane';

interface Props {
  lane: Lane;
  /** As set by hand. */
  range: readonly [number, number] | undefined;
  onClose: () => void;
}

/** Sets between which values a lane is drawn. */
export function RangeDialog({ lane, range, onClose }: Props) {
  const [low, setLow] = useState(String(range?.[0] ?? ''));
  const [high, setHigh] = useState(String(range?.[1] ?? ''));
  const [wrong, setWrong] = useState('');
  function take() {
    const [from, to] = [low, high].map((text) => Number(text.replace(',', '.'))) as [number, number];
    if (!low.trim() || !high.trim() || !Number.isFinite(from) || !Number.isFinite(to) || to <= from) {
      setWrong(`Write two numbers, the lower one first; "${low}" to "${high}" is no range.`);
      return;
    }
    laneViews.range(lane.id, [from, to]);
    onClose();
  }
  return (
    <Dialog title={`${lane.name}: range`} open onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          take();
        }}
      >
        <div className="flex items-center gap-3">
          {(
            [
              ['Lowest', low, setLow],
              ['Highest', high, setHigh],
            ] as const
          ).map(([name, value, set]) => (
            <label key={name} className="flex items-center gap-2">
              {name}
              <input
                className="field w-24"
                inputMode="decimal"
                value={value}
                onChange={(event) => set(event.target.value)}
              />
            </label>
          ))}
          <span className="text-soft">{lane.unit}</span>
        </div>
        {wrong && (
          <p role="alert" className="text-short">
            {wrong}
          </p>
        )}
        <div className="flex justify-end">
          <Button look="strong" type="submit">
            Set
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
