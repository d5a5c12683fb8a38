import { Suspense, useState } from 'react';
import { conditionsOf } from '../model/conditions';
import { cursor, laneViews } from '../model/lane_view';
import { printSheet, save } from '../ui/download';
import { Icon } from '../ui/Icon';
import { lazily } from '../ui/lazily';
import { Check, Heading, Item, Menu } from '../ui/Menu';
import { useObserved } from '../ui/observed';
import { openLanes, presentLanes } from './Lanes';
import { colour } from './paint';
import type { Picture } from './picture';
import type { Shown } from './shown';

const ValuesDialog = lazily(() => import('./ValuesDialog').then((part) => part.ValuesDialog));
/** Drawing what is on screen for a file or paper. */
const drawn = () => import('./picture');
const files = () => import('./picture_file');

interface Props {
  title: string;
  shown: Shown[];
  activeId: string;
}

/** What can be done with all lanes at once. */
export function LanesMenu({ title, shown, activeId }: Props) {
  const view = useObserved(laneViews);
  const [table, setTable] = useState(false);
  const active = shown.find((one) => one.id === activeId) ?? shown[0];
  if (!active) return null;
  const frequency = active.traces[0]?.frequency ?? [];
  const whole = [frequency[0] ?? 10, frequency.at(-1) ?? 500] as const;
  const lanes = presentLanes(shown);
  const zoom = (way: 'in' | 'out') => laneViews.zoom(way, cursor.snapshot().frequency, whole);

  async function picture(): Promise<Picture> {
    const { pictureOf } = await drawn();
    const { ranges, span, peaks } = laneViews.snapshot();
    const open = openLanes(lanes);
    return pictureOf({
      title: `${title} · ${conditionsOf(shown)}`,
      shown,
      active: active as Shown,
      lanes: open.length ? open : lanes,
      span: span ?? whole,
      ranges,
      cursor: cursor.snapshot().frequency,
      peaks,
      colour,
    });
  }

  async function saveSvg() {
    const { asSvg } = await files();
    save(`${title}.svg`, new Blob([asSvg(await picture())], { type: 'image/svg+xml' }));
  }

  async function savePng() {
    const { asPng } = await files();
    save(`${title}.png`, await asPng(await picture()));
  }

  async function print() {
    const { asSvg } = await files();
    // Paper is light, whatever the lamp is like.
    const { dataset } = document.documentElement;
    const theme = dataset.theme;
    dataset.theme = 'light';
    const onPaper = await picture();
    if (theme) dataset.theme = theme;
    printSheet(asSvg({ ...onPaper, background: '#fff' }));
  }

  return (
    <div className="flex flex-col items-start gap-0.5">
      <Menu
        trigger={
          <button
            type="button"
            className="flex items-center gap-0.5 rounded-[3px] border border-rule-line bg-rule px-2 py-0.5 font-medium hover:border-oak"
          >
            Lanes <Icon name="down" />
          </button>
        }
      >
        <Item onSelect={() => zoom('in')}>Zoom in at the cursor</Item>
        <Item onSelect={() => zoom('out')} disabled={!view.span}>
          Zoom out
        </Item>
        <Item onSelect={() => laneViews.show(null, whole)} disabled={!view.span}>
          Show all frequencies
        </Item>
        <Check checked={view.peaks} onSelect={() => laneViews.set({ peaks: !view.peaks })}>
          Name peaks and dips
        </Check>
        <Heading>Lanes</Heading>
        {lanes.map((lane) => (
          <Check
            key={lane.id}
            checked={!view.folded.includes(lane.id)}
            onSelect={() => laneViews.fold(lane.id)}
          >
            {lane.name}
          </Check>
        ))}
        {(['step', 'burst'] as const).map((played) => (
          <Check
            key={played}
            checked={view.played === played}
            onSelect={() => laneViews.set({ played: view.played === played ? null : played })}
          >
            {played === 'step' ? 'Step over time' : 'Burst at the cursor, over time'}
          </Check>
        ))}
        <Item onSelect={() => laneViews.reset()}>Reset view</Item>
        <Heading>Export</Heading>
        <Item onSelect={() => setTable(true)}>Values as a table …</Item>
        <Item onSelect={() => void saveSvg()}>Picture (SVG)</Item>
        <Item onSelect={() => void savePng()}>Picture (PNG)</Item>
        <Item onSelect={() => void print()}>Print …</Item>
      </Menu>
      {view.span && (
        <button
          type="button"
          className="rounded-[3px] px-1 text-[0.893rem] text-oak underline hover:bg-rule"
          onClick={() => laneViews.show(null, whole)}
        >
          Show all
        </button>
      )}
      {table && (
        <Suspense fallback={null}>
          <ValuesDialog open shown={shown} lanes={lanes} onClose={() => setTable(false)} />
        </Suspense>
      )}
    </div>
  );
}
