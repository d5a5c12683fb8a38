import { Suspense, useCallback, useMemo, useState } from 'react';
import { usePlace } from '../../api/queries/place';
import { Lanes } from '../../lanes/Lanes';
import { LanesMenu } from '../../lanes/LanesMenu';
import { conditions } from '../../model/conditions';
import { type Chosen, type KeptPlace, placesOn } from '../../model/places';
import type { RawListeningPlace } from '../../schema/types';
import { useInAddress } from '../../ui/address';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { lazily } from '../../ui/lazily';
import { Message } from '../../ui/Message';
import { useObserved, usePreferences } from '../../ui/observed';
import { Scroll } from '../../ui/Scroll';
import { FOLLOWED, useThrottled } from '../../ui/throttle';
import { ConditionsBar } from '../curves/ConditionsBar';
import { NotComputed } from '../curves/NotComputed';
import type { StageProps } from '../shell/stages';
import { useTheme } from '../shell/theme';
import { NewPlace } from './NewPlace';
import { PlaceTools } from './PlaceTools';
import { Plan } from './Plan';
import { PANELS } from './panels';

const HistoryDialog = lazily(() => import('../workbench/HistoryDialog').then((part) => part.HistoryDialog));

const LANES = ['level', 'seats'];

/** Where the build is listened to: the plan with cabinets and seats, what arrives there, and what the place does. */
export function PlaceStage(props: StageProps) {
  usePreferences();
  const { bench, workbench, shown } = props;
  const places = placesOn(bench);
  const here = places.find(({ id }) => id === bench.listening.place);
  const { basis } = useObserved(conditions);
  if (!here) {
    return (
      <section aria-label="Place" className="min-h-0 flex-1 overflow-y-auto px-4 pt-2 pb-1">
        <ConditionsBar shown={shown} bench={bench} workbench={workbench} />
        <NewPlace workbench={workbench} bench={bench} />
      </section>
    );
  }
  if (basis === 'bench') {
    return (
      <section aria-label="Place" className="min-h-0 flex-1 px-4 pt-2 pb-1">
        <ConditionsBar shown={shown} bench={bench} workbench={workbench} />
        <p className="mt-4 flex items-center gap-3">
          On the bench nobody listens.
          <Button onClick={() => conditions.set({ basis: 'in_use' })}>As the brief uses it</Button>
        </p>
      </section>
    );
  }
  return <Here {...props} here={here} />;
}

function Here(props: StageProps & { here: KeptPlace }) {
  const { here, variant, workbench, bench, name, build, brief, shown } = props;
  const { id, place } = here;
  const theme = useTheme();
  const design = useThrottled(variant.design, FOLLOWED);
  const answer = usePlace(design);
  const report = answer.data?.name === place.name.trim() ? answer.data : undefined;
  const [chosen, choose] = useState<Chosen>({ which: 'cabinets', at: 0 });
  const [history, setHistory] = useState(false);
  const [ghosts, setGhosts] = useState<readonly (readonly number[])[]>([]);
  const panels = PANELS.filter(({ of }) => of(place));
  const [panel, open] = useInAddress(
    'show',
    panels.map(({ id }) => id),
  );
  const edit = useCallback(
    (next: RawListeningPlace, label: string) =>
      workbench.keep({ kind: 'place', id, content: next, archived: false }, label),
    [workbench, id],
  );
  const preview = useCallback(
    (next: RawListeningPlace) => workbench.previewKept('place', id, next),
    [workbench, id],
  );
  const commit = useCallback((label: string) => workbench.commit(label), [workbench]);
  const tools = useMemo(
    () => <LanesMenu title={name} shown={shown} activeId={variant.id} />,
    [name, shown, variant.id],
  );
  const { Panel } = panels.find((one) => one.id === panel) ?? PANELS[0];
  return (
    <section aria-label="Place" className="flex min-h-0 flex-1 flex-col gap-1 px-4 pt-2 pb-1">
      <ConditionsBar shown={shown} bench={bench} workbench={workbench} />
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        <div className="flex min-h-0 flex-col gap-1 max-lg:h-[560px]">
          <PlaceTools
            here={here}
            workbench={workbench}
            report={report}
            onHistory={() => setHistory(true)}
            onEdit={edit}
            onChoose={choose}
          />
          <Plan
            design={design}
            place={place}
            report={report}
            chosen={chosen}
            ghosts={ghosts}
            theme={theme}
            onChoose={choose}
            onPreview={preview}
            onCommit={commit}
          />
        </div>
        <div className="flex min-h-0 flex-col gap-1.5">
          <div className="relative min-h-0 flex-[1.1] max-lg:h-[420px] max-lg:flex-none">
            {props.problem !== undefined && <NotComputed problem={props.problem} />}
            <Lanes shown={shown} activeId={variant.id} theme={theme} tools={tools} only={LANES} />
          </div>
          <Choice
            label="Details"
            value={panel}
            options={panels.map(({ id, name }) => [id, name] as const)}
            onChange={open}
          />
          <Scroll label="Details of the place" className="min-h-0 flex-1 overflow-y-auto pr-1 pb-2">
            <Message error={answer.error} />
            <Panel
              place={place}
              report={report}
              error={answer.error}
              chosen={chosen}
              design={design}
              build={build}
              brief={brief}
              onBrief={props.onBrief}
              onChoose={choose}
              onEdit={edit}
              onGhosts={setGhosts}
            />
          </Scroll>
        </div>
      </div>
      <Suspense fallback={null}>
        {history && (
          <HistoryDialog
            id={id}
            title={`History of ${place.name}`}
            about="A state that comes back takes the place of what is there; Undo takes it away again."
            restore="Bring back"
            onRestore={(content) => {
              edit(content as RawListeningPlace, 'earlier state');
              setHistory(false);
            }}
            onClose={() => setHistory(false)}
          />
        )}
      </Suspense>
    </section>
  );
}
