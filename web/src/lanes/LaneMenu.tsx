import { memo, useState } from 'react';
import { laneViews } from '../model/lane_view';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { Icon } from '../ui/Icon';
import { Item, Menu } from '../ui/Menu';
import { useObserved } from '../ui/observed';
import type { Lane } from './lane';

interface Props {
  lane: Lane;
  order: readonly string[];
  folded: boolean;
  /** As set by hand. */
  range: readonly [number, number] | undefined;
}

/** The name of a lane, which opens what can be done with it. */
export const LaneMenu = memo(function LaneMenu({ lane, order, folded, range }: Props) {
  const { alone } = useObserved(laneViews);
  const [setting, setSetting] = useState(false);
  const at = order.indexOf(lane.id);
  return (
    <>
      <Menu
        hint={lane.meaning}
        trigger={
          <button
            type="button"
            className="-ml-1 flex items-center whitespace-nowrap rounded-[3px] px-1 text-left leading-tight hover:bg-rule"
          >
            <h2 className="font-sans font-semibold">{lane.name}</h2>
            <Icon name="down" />
          </button>
        }
      >
        <Item onSelect={() => laneViews.fold(lane.id)}>{folded ? 'Unfold' : 'Fold away'}</Item>
        <Item onSelect={() => laneViews.maximise(lane.id)}>
          {alone === lane.id ? 'Back to all lanes' : 'Maximise'}
        </Item>
        <Item disabled={at <= 0} onSelect={() => laneViews.move(lane.id, -1, order)}>
          Move up
        </Item>
        <Item disabled={at >= order.length - 1} onSelect={() => laneViews.move(lane.id, 1, order)}>
          Move down
        </Item>
        <Item onSelect={() => setSetting(true)}>Set the range …</Item>
        {range && <Item onSelect={() => laneViews.range(lane.id, null)}>Auto range</Item>}
      </Menu>
      {setting && <RangeDialog lane={lane} range={range} onClose={() => setSetting(false)} />}
    </>
  );
});

function RangeDialog({ lane, range, onClose }: { lane: Lane; range: Props['range']; onClose: () => void }) {
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
