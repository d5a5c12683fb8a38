import {
  type ComponentType,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { Window } from '../../actions/action';
import { Refusal } from '../../api/client';
import { ConditionsProvider } from '../../api/conditions';
import { createVariant } from '../../api/documents';
import { useBuild, useJudgement } from '../../api/queries';
import type { Check, FieldError, OpenBuild, RawBrief, RawDesign, Report } from '../../api/types';
import type { Trace } from '../../lanes/trace';
import { type Asked, conditions } from '../../model/conditions';
import { copyOf } from '../../model/design';
import { keyOf } from '../../model/drafts';
import { markAt } from '../../model/mark';
import type { Outbox } from '../../model/outbox';
import type { Bench, Workbench } from '../../model/workbench';
import { addressWith } from '../../ui/address';
import { lazily } from '../../ui/lazily';
import { Message } from '../../ui/Message';
import { useObserved } from '../../ui/observed';
import { FOLLOWED, useThrottled } from '../../ui/throttle';
import { UnreadableList } from '../../ui/UnreadableList';
import { NotFound } from '../shell/NotFound';
import { Shell } from '../shell/Shell';
import { StageBar } from '../shell/StageBar';
import { type Stage, type StageProps, useStages } from '../shell/stages';
import { BuildName } from './BuildName';
import { JudgedStrip } from './ChipStrip';
import { importDesign } from './design_file';
import { Kept } from './Kept';
import { Shelf } from './Shelf';
import { Session } from './session';
import { UndoRedo } from './UndoRedo';
import { Windows, windowOf } from './Windows';

const ConflictDialog = lazily(() => import('./ConflictDialog').then((part) => part.ConflictDialog));
const StartHere = lazily(() => import('./StartHere').then((part) => part.StartHere));

export function WorkbenchPage() {
  const { id = '', path = '' } = useParams();
  const build = useBuild(id);
  const stage = useStages().find(({ opens }) => 'path' in opens && opens.path === path);
  if (!stage || !('path' in stage.opens)) return <NotFound />;
  if (build.data) {
    return <OpenWorkbench key={build.data.id} build={build.data} stage={stage} Panel={stage.opens.Panel} />;
  }
  const missing = build.error instanceof Refusal && build.error.document.status === 404;
  return (
    <Shell title={missing ? 'No such build' : 'Opening'}>
      <div className="p-8">
        <h1 className="sr-only">{missing ? 'No such build' : 'Opening'}</h1>
        {missing ? <p>There is no such build, or it was archived.</p> : <Message error={build.error} />}
        {build.isPending && <p className="text-soft">Opening the build …</p>}
      </div>
    </Shell>
  );
}

const NO_ERRORS: FieldError[] = [];

const NO_CHECKS: Check[] = [];

interface Props {
  build: OpenBuild;
  stage: Stage;
  Panel: ComponentType<StageProps>;
}

function OpenWorkbench({ build, stage, Panel }: Props) {
  const session = useMemo(() => new Session(build), [build]);
  const { workbench, simulator, outbox } = session;
  const bench = useSyncExternalStore(workbench.subscribe, workbench.snapshot);
  const { name, brief } = bench.text;
  const asked = useAsked(brief);
  // In which conditions comes first, so that nothing is asked twice.
  useEffect(() => session.simulator.condition(asked), [session, asked]);
  useEffect(() => session.start(), [session]);
  const conflict = useConflict(outbox);
  const results = useSyncExternalStore(simulator.subscribe, simulator.snapshot);
  const [carried, setCarried] = useState<RawDesign | null>(null);
  const [failure, setFailure] = useState<unknown>(null);

  const navigate = useNavigate();
  const find = useCallback(() => navigate(`/builds/${build.id}/find`), [navigate, build.id]);
  useAddress(workbench, bench.activeId);
  const { opened, show, close } = useWindow();
  const [slow, setSlow] = useState(false);
  const active = bench.variants.find((variant) => variant.id === bench.activeId && !variant.archived);
  const shown = useTraces(bench, results.reports);
  // The lanes are drawn first, the cabinet in the next frame.
  const reports = useThrottled(results.reports, 0);
  const report = active && reports.get(active.id);
  const problem = active && results.problems.get(active.id);

  const addVariant = useCallback((design: RawDesign) => void workbench.create(design), [workbench]);
  // What a file says is the server's to judge before it is shown.
  const importFile = useCallback(() => {
    setFailure(null);
    const read = importDesign().then((design) => design && createVariant(build.id, design));
    read.then((variant) => variant && session.bringBack(variant, 'design file'), setFailure);
  }, [build.id, session]);

  const open = useCallback(
    (window: Window) => {
      if (window === 'motion') setSlow((before) => !before);
      else show(window);
    },
    [show],
  );
  const follows = useCallback(
    (id: string, path: string) => {
      const built = simulator.snapshot().reports.get(id)?.as_built;
      const led = path === 'enclosure.volume' && built?.follows.includes('volume');
      return (led && built?.volumes[0]) || null;
    },
    [simulator],
  );
  const begin = useCallback(() => show('new-driver'), [show]);
  const openBrief = useCallback(() => show('brief'), [show]);
  const tryOut = useCallback(
    (design: RawDesign) => addVariant(unlike(design, workbench.snapshot())),
    [addVariant, workbench],
  );
  const changeBrief = useCallback((brief: RawBrief) => workbench.write({ brief }, 'brief'), [workbench]);

  return (
    <ConditionsProvider value={asked}>
      <Shell
        title={name}
        beside={
          <>
            <BuildName name={name} onChange={(next) => workbench.write({ name: next }, 'name')} />
            <WorkBar
              build={build.id}
              stage={stage.id}
              brief={brief}
              design={active?.design ?? null}
              onOpen={open}
            />
            <Kept outbox={outbox} onChoose={conflict.choose} />
          </>
        }
        tools={<UndoRedo workbench={workbench} bench={bench} />}
        workbench={{ workbench, build: build.id, addVariant, open, follows }}
      >
        <UnreadableList documents={build.unreadable} />
        {active ? (
          <div className="flex h-full flex-col">
            {report && (
              <JudgedStrip
                report={report}
                brief={brief}
                variant={active}
                workbench={workbench}
                onBrief={openBrief}
                onTry={tryOut}
                onChange={changeBrief}
              />
            )}
            <Suspense fallback={<p className="flex-1 p-4 text-soft">Opening …</p>}>
              <Panel
                variant={active}
                workbench={workbench}
                name={name}
                brief={brief}
                report={report}
                problem={problem}
                errors={problem?.errors ?? NO_ERRORS}
                shown={shown}
                slow={slow}
                onTry={tryOut}
                onBrief={changeBrief}
                onOpen={open}
              />
            </Suspense>
            <Shelf
              workbench={workbench}
              bench={bench}
              reports={results.reports}
              failure={failure}
              onAdd={addVariant}
              onNew={begin}
              onFind={brief ? find : null}
              onImport={importFile}
              onOpen={open}
            />
          </div>
        ) : (
          <Suspense fallback={null}>
            <StartHere
              failure={failure}
              briefed={brief != null}
              onBrief={openBrief}
              onNew={begin}
              onImport={importFile}
            />
          </Suspense>
        )}
        <Windows
          opened={opened}
          build={build.id}
          brief={brief}
          briefKey={workbench.brief.id}
          variant={active ?? null}
          bench={bench}
          reports={results.reports}
          carried={carried}
          onEdit={(next, label) => {
            if (active) workbench.edit(active.id, next, label);
            close();
          }}
          onTry={(next) => {
            close();
            tryOut(next);
          }}
          onBack={(variant) => {
            session.bringBack(variant);
            close();
          }}
          onBrief={(next, search) => {
            changeBrief(next);
            close();
            if (search) void outbox.whenSettled().then(find);
          }}
          onShow={show}
          onCarry={(next) => {
            setCarried(next);
            show('new-cabinet');
          }}
          onClose={close}
        />
        {conflict.open && (
          <Suspense fallback={null}>
            <ConflictDialog outbox={outbox} onClose={conflict.close} />
          </Suspense>
        )}
      </Shell>
    </ConditionsProvider>
  );
}

interface WorkBarProps {
  build: string;
  stage: string;
  brief: RawBrief | null;
  design: RawDesign | null;
  onOpen: (window: Window) => void;
}

/** The stages as the active variant stands; they follow a drag as calmly as the strip does. */
function WorkBar({ build, stage, brief, design: latest, onOpen }: WorkBarProps) {
  const design = useThrottled(latest, FOLLOWED);
  const checks = useJudgement(brief, design).data ?? NO_CHECKS;
  const work = useMemo(() => ({ brief, design, checks }), [brief, design, checks]);
  return <StageBar build={build} stage={stage} work={work} onOpen={onOpen} />;
}

/** Which variant is worked on stands in the address; an address with another leads there. */
function useAddress(workbench: Workbench, activeId: string | null): void {
  const named = useSearchParams()[0].get('variant');
  useEffect(() => {
    const { variants } = workbench.snapshot();
    if (named && variants.some(({ id, archived }) => id === named && !archived)) workbench.activate(named);
  }, [named, workbench]);
  useEffect(() => {
    // Written beside the router, whose navigations would cut each other off.
    const { state } = window.history;
    const params = addressWith('variant', activeId);
    window.history.replaceState(state, '', `${window.location.pathname}${params.size ? `?${params}` : ''}`);
  }, [activeId]);
}

/** The window that is open stands in the address, so that Back closes it and a reload opens it again. */
function useWindow() {
  const [params, setParams] = useSearchParams();
  const opened = windowOf(params.get('open'));
  const show = useCallback(
    (window: Window) => setParams(() => addressWith('open', window), { replace: opened !== null }),
    [setParams, opened],
  );
  const close = useCallback(() => setParams(() => addressWith('open', null), { replace: true }), [setParams]);
  return { opened, show, close };
}

/** Whether the choice between two states is open: at once where there is one, and again when it is asked for. */
function useConflict(outbox: Outbox) {
  const { conflict } = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const about = conflict && keyOf(conflict.document);
  const [put, setPut] = useState<string | null>(null);
  useEffect(() => {
    if (!about) setPut(null);
  }, [about]);
  const close = useCallback(() => setPut(about), [about]);
  const choose = useCallback(() => setPut(null), []);
  return { open: about !== null && about !== put, close, choose };
}

/** What travels with every computation: the brief of the build, and how it is looked at. */
function useAsked(brief: RawBrief | null): Asked {
  const { conditions: wanted } = useObserved(conditions);
  return useMemo(() => ({ brief, conditions: wanted }), [brief, wanted]);
}

/** With a name that no variant on the bench has. */
function unlike(design: RawDesign, bench: Bench): RawDesign {
  const others = bench.variants.filter((variant) => !variant.archived).map((variant) => variant.design);
  return others.some((other) => other.name === design.name) ? copyOf(design, others) : design;
}

/** What the lanes show; the same list while a drag has changed a design and its curves have not come yet. */
function useTraces(bench: Bench, reports: ReadonlyMap<string, Report>): Trace[] {
  const names = JSON.stringify(bench.variants.map(({ id, design, archived }) => [id, design.name, archived]));
  // biome-ignore lint/correctness/useExhaustiveDependencies: of the variants only what is in `names` is shown
  return useMemo(
    () =>
      bench.variants.flatMap((variant): Trace[] => {
        const { id, place, design } = variant;
        const report = reports.get(id);
        if (variant.archived || !report || !bench.shown.has(id)) return [];
        return [{ id, place, report, design, name: design.name ?? '', mark: markAt(place) }];
      }),
    [names, bench.shown, reports],
  );
}
