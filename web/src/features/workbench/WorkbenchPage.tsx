import {
  type ComponentType,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from 'react';
import { useNavigate, useParams } from 'react-router';
import type { Window } from '../../actions/action';
import { Refusal } from '../../api/client';
import { ConditionsProvider } from '../../api/conditions';
import { createVariant } from '../../api/documents';
import { useBuild } from '../../api/queries/builds';
import { useJudgement } from '../../api/queries/design';
import type { KeptKind } from '../../model/workbench';
import type { Check, FieldError, OpenBuild, RawBrief, RawDesign } from '../../schema/types';
import { lazily } from '../../ui/lazily';
import { Message } from '../../ui/Message';
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
import { unlike, useAddress, useAsked, useConflict, useShown, useWindow } from './page_state';
import { Shelf } from './Shelf';
import { Session } from './session';
import { UndoRedo } from './UndoRedo';
import { Windows } from './Windows';

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
  const asked = useAsked(bench);
  // What follows a drag less urgently than the curves waits for the frame.
  const told = useThrottled(asked, FOLLOWED);
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
  const shown = useShown(bench, results.reports);
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
  const refresh = useCallback((kind: KeptKind) => session.refresh(kind), [session]);
  const changeBrief = useCallback((brief: RawBrief) => workbench.write({ brief }, 'brief'), [workbench]);

  return (
    <ConditionsProvider value={told}>
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
              heard={bench.kept.some(({ kind, archived }) => kind === 'place' && !archived)}
              measured={bench.kept.some(({ kind, archived }) => kind === 'measurement' && !archived)}
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
                bench={bench}
                build={build.id}
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
                onRefresh={refresh}
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
  heard: boolean;
  measured: boolean;
  onOpen: (window: Window) => void;
}

/** The stages as the active variant stands; they follow a drag as calmly as the strip does. */
function WorkBar({ build, stage, brief, design: latest, heard, measured, onOpen }: WorkBarProps) {
  const design = useThrottled(latest, FOLLOWED);
  const checks = useJudgement(brief, design).data ?? NO_CHECKS;
  const work = useMemo(
    () => ({ brief, design, checks, heard, measured }),
    [brief, design, checks, heard, measured],
  );
  return <StageBar build={build} stage={stage} work={work} onOpen={onOpen} />;
}
