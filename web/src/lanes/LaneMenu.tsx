import { memo, Suspense, useState } from 'react';
import { laneViews } from '../model/lane_view';
import { Icon } from '../ui/Icon';
import { lazily } from '../ui/lazily';
import { Item, Menu } from '../ui/Menu';
import { useObserved } from '../ui/observed';
import type { Lane } from './lane';

const RangeDialog = lazily(() => import('./RangeDialog').then((part) => part.RangeDialog));

interface Props {
  lane: Lane;
  order: readonly string[];
  folded: boolean;
  /** Whether it cannot be folded here. */
  pinned: boolean;
  /** As set by hand. */
  range: readonly [number, number] | undefined;
}

/** The name of a lane, which opens what can be done with it. */
export const LaneMenu = memo(function LaneMenu({ lane, order, folded, pinned, range }: Props) {
  const { alone } = useObserved(laneViews);
  const [setting, setSetting] = useState(false);
  const at = order.indexOf(lane.id);
  return (
    <>
      <Menu
        trigger={
          <button
            type="button"
            title={lane.meaning}
            className="-ml-1 flex items-center whitespace-nowrap rounded-[3px] px-1 text-left leading-tight hover:bg-rule"
          >
            <h2 className="font-sans font-semibold">{lane.name}</h2>
            <Icon name="down" />
          </button>
        }
      >
        {!(pinned && !folded) && (
          <Item onSelect={() => laneViews.fold(lane.id)}>{folded ? 'Unfold' : 'Fold away'}</Item>
        )}
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
      {setting && (
        <Suspense fallback={null}>
          <RangeDialog lane={lane} range={range} onClose={() => setSetting(false)} />
        </Suspense>
      )}
    </>
  );
});
