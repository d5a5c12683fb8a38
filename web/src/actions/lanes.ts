import { SPAN } from '../api/ask';
import { LANES } from '../lanes/lane';
import { cursor, laneViews } from '../model/lane_view';
import type { Action } from './action';

const WHOLE = [SPAN.from, SPAN.to] as const;
const onBench = ({ workbench }: { workbench: unknown }) => workbench !== null;

function action(id: string, name: string, keys: string, run: () => void): Action {
  return { id, name, keys: [keys], when: onBench, run };
}

export const lanes: Action[] = [
  ...LANES.map((lane, at) =>
    action(`fold-${lane.id}`, `Fold or unfold ${lane.name.toLowerCase()}`, `alt+${at + 1}`, () =>
      laneViews.fold(lane.id),
    ),
  ),
  action('zoom-in', 'Zoom in at the cursor', 'alt+i', () =>
    laneViews.zoom('in', cursor.snapshot().frequency, WHOLE),
  ),
  action('zoom-out', 'Zoom out', 'alt+o', () => laneViews.zoom('out', cursor.snapshot().frequency, WHOLE)),
  action('zoom-all', 'Show all frequencies', 'alt+0', () => laneViews.show(null, WHOLE)),
  action('peaks', 'Name peaks and dips', 'alt+e', () =>
    laneViews.set({ peaks: !laneViews.snapshot().peaks }),
  ),
  action('step', 'Step over time', 'alt+s', () =>
    laneViews.set({ played: laneViews.snapshot().played === 'step' ? null : 'step' }),
  ),
];
