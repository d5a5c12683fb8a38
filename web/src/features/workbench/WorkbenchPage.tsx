import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import type { Window } from '../../actions/action';
import { answered, api, Refusal } from '../../api/client';
import { ConditionsProvider } from '../../api/conditions';
import { useBuild } from '../../api/queries';
import type {
  BuildWithVariants,
  FieldError,
  ProblemDocument,
  RawBrief,
  RawDesign,
  Report,
  Unreadable,
} from '../../api/types';
import { Lanes } from '../../lanes/Lanes';
import { LanesMenu } from '../../lanes/LanesMenu';
import type { Trace } from '../../lanes/trace';
import { type Asked, conditions } from '../../model/conditions';
import { copyOf } from '../../model/design';
import { markAt } from '../../model/mark';
import { readTyped } from '../../model/units';
import type { Bench } from '../../model/workbench';
import { Message } from '../../ui/Message';
import { useObserved } from '../../ui/observed';
import { useThrottled } from '../../ui/throttle';
import { UnreadableList } from '../../ui/UnreadableList';
import { BoxStage } from '../box/BoxStage';
import { NotFound } from '../shell/NotFound';
import { Shell } from '../shell/Shell';
import { useTheme } from '../shell/theme';
import { BriefDialog } from './BriefDialog';
import { BuildName } from './BuildName';
import { useBuildText } from './build_text';
import { CabinetDialog } from './CabinetDialog';
import { CabinetPanel } from './CabinetPanel';
import { JudgedStrip } from './ChipStrip';
import { ConditionsBar } from './ConditionsBar';
import { ConflictDialog } from './ConflictDialog';
import { DriverDialog } from './DriverDialog';
import { Kept } from './Kept';
import { Shelf } from './Shelf';
import { isStage, type Stage, Stages } from './Stages';
import { StartHere } from './StartHere';
import { Session } from './session';
import { UndoRedo } from './UndoRedo';
import { Windows } from './Windows';

export function WorkbenchPage() {
  const { id = '', stage = 'curves' } = useParams();
  const build = useBuild(id);
  if (!isStage(stage)) return <NotFound />;
  if (build.data) return <OpenWorkbench key={build.data.id} build={build.data} stage={stage} />;
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

/** What of a build cannot be read: variants, or its brief. */
function unreadable({ id, unreadable: variants, brief_problem }: BuildWithVariants): Unreadable[] {
  return brief_problem ? [...variants, { id, name: 'The brief', reason: brief_problem }] : variants;
}

type Choosing =
  | { of: 'driver of the variant' | 'driver of a new variant' | 'cabinet of the variant' }
  | { of: 'cabinet of a new variant'; design: RawDesign }
  | null;

function OpenWorkbench({ build, stage }: { build: BuildWithVariants; stage: Stage }) {
  const session = useMemo(() => new Session(build), [build]);
  const text = useBuildText(build);
  const asked = useAsked(text.current.brief ?? null);
  // In which conditions comes first, so that nothing is asked twice.
  useEffect(() => session.simulator.condition(asked), [session, asked]);
  useEffect(() => session.start(), [session]);
  const { workbench, simulator, sync } = session;
  const bench = useSyncExternalStore(workbench.subscribe, workbench.snapshot);
  const results = useSyncExternalStore(simulator.subscribe, simulator.snapshot);
  const theme = useTheme();
  const [choosing, setChoosing] = useState<Choosing>(null);
  const [failure, setFailure] = useState<unknown>(null);

  const navigate = useNavigate();
  const find = useCallback(() => navigate(`/builds/${build.id}/find`), [navigate, build.id]);
  // Whoever made a variant elsewhere wants to work on it.
  const made = (useLocation().state as { variant?: string } | null)?.variant;
  useEffect(() => {
    if (made && workbench.snapshot().variants.some(({ id }) => id === made)) workbench.activate(made);
  }, [made, workbench]);

  const [opened, setOpened] = useState<Window | null>(null);
  const openBrief = useCallback(() => setOpened('brief'), []);
  const closeWindow = useCallback(() => setOpened(null), []);
  const [slow, setSlow] = useState(false);
  const active = bench.variants.find((variant) => variant.id === bench.activeId && !variant.archived);
  const shown = useTraces(bench, results.reports);
  // The lanes are drawn first, the cabinet in the next frame.
  const reports = useThrottled(results.reports, 0);
  const report = active && reports.get(active.id);
  const problem = active && results.problems.get(active.id);

  const activeId = active?.id ?? '';
  const tools = useMemo(
    () => <LanesMenu title={build.name} shown={shown} activeId={activeId} />,
    [build.name, shown, activeId],
  );

  const addVariant = useCallback(
    (design: RawDesign) => {
      setFailure(null);
      const params = { path: { id: build.id } };
      const made = answered(api.POST('/api/v1/builds/{id}/variants', { params, body: design }));
      made.then((variant) => session.add(variant), setFailure);
    },
    [build.id, session],
  );

  const open = useCallback((window: Window) => {
    if (window === 'motion') setSlow((before) => !before);
    else if (window === 'driver' || window === 'family') {
      setChoosing({ of: window === 'driver' ? 'driver of the variant' : 'cabinet of the variant' });
    } else setOpened(window);
  }, []);
  const follows = useCallback(
    (id: string, path: string) => {
      const built = simulator.snapshot().reports.get(id)?.as_built;
      const led = path === 'enclosure.volume' && built?.follows.includes('volume');
      return (led && built?.volumes[0]) || null;
    },
    [simulator],
  );
  const begin = useCallback(() => setChoosing({ of: 'driver of a new variant' }), []);
  const tryOut = useCallback(
    (design: RawDesign) => addVariant(unlike(design, workbench.snapshot())),
    [addVariant, workbench],
  );
  const changeBrief = useCallback((brief: RawBrief) => text.change.mutate({ brief }), [text.change.mutate]);

  return (
    <ConditionsProvider value={asked}>
      <Shell
        title={build.name}
        beside={
          <>
            <BuildName text={text} />
            <Stages build={build.id} stage={stage} />
            <Kept sync={sync} />
          </>
        }
        tools={<UndoRedo workbench={workbench} bench={bench} />}
        workbench={{ workbench, build: build.id, addVariant, open, follows }}
      >
        <UnreadableList documents={unreadable(build)} />
        {active ? (
          <div className="flex h-full flex-col">
            {report && (
              <JudgedStrip
                report={report}
                brief={text.current.brief ?? null}
                variant={active}
                workbench={workbench}
                onBrief={openBrief}
                onTry={tryOut}
                onChange={changeBrief}
              />
            )}
            {stage === 'box' ? (
              <div className="min-h-0 flex-1 px-4 pt-2 pb-1">
                <BoxStage
                  variant={active}
                  workbench={workbench}
                  brief={text.current.brief ?? null}
                  errors={problem?.errors ?? NO_ERRORS}
                  onTry={tryOut}
                  onBrief={changeBrief}
                />
              </div>
            ) : (
              <div className="grid min-h-0 flex-1 gap-4 px-4 pt-2 pb-1 lg:grid-cols-[minmax(0,1.62fr)_minmax(420px,1fr)]">
                <div className="relative flex min-h-0 flex-col max-lg:h-[640px]">
                  <ConditionsBar shown={shown} />
                  {problem !== undefined && <NotComputed problem={problem} />}
                  <div className="min-h-0 flex-1">
                    <Lanes shown={shown} activeId={active.id} theme={theme} tools={tools} />
                  </div>
                </div>
                <CabinetPanel
                  variant={active}
                  workbench={workbench}
                  report={report}
                  errors={problem?.errors ?? NO_ERRORS}
                  least={readTyped(text.current.brief?.amplifier_load, 'resistance')?.si ?? null}
                  slow={slow}
                  onOpen={open}
                />
              </div>
            )}
            <Shelf
              workbench={workbench}
              bench={bench}
              reports={results.reports}
              failure={failure}
              onAdd={addVariant}
              onNew={begin}
              onFind={text.current.brief ? find : null}
              onFailure={setFailure}
              onOpen={open}
            />
          </div>
        ) : (
          <StartHere
            failure={failure}
            briefed={text.current.brief != null}
            onBrief={openBrief}
            onNew={begin}
            onAdd={addVariant}
            onFailure={setFailure}
          />
        )}
        {choosing?.of.startsWith('driver') && (
          <DriverDialog
            open
            design={choosing?.of === 'driver of the variant' ? (active?.design ?? null) : null}
            onClose={() => setChoosing(null)}
            onChosen={(design) => {
              if (choosing?.of === 'driver of the variant' && active) {
                workbench.edit(active.id, design, 'driver');
                setChoosing(null);
              } else setChoosing({ of: 'cabinet of a new variant', design });
            }}
          />
        )}
        {choosing?.of.startsWith('cabinet') && (
          <CabinetDialog
            open
            brief={text.current.brief ?? null}
            begun={choosing.of === 'cabinet of the variant'}
            design={choosing.of === 'cabinet of a new variant' ? choosing.design : (active?.design ?? null)}
            onClose={() => setChoosing(null)}
            onHere={(design) => {
              if (active) workbench.edit(active.id, design, 'kind of cabinet');
              setChoosing(null);
            }}
            onNew={(design) => {
              addVariant(unlike(design, bench));
              setChoosing(null);
            }}
          />
        )}
        {opened === 'brief' && (
          <BriefDialog
            open
            brief={text.current.brief ?? null}
            busy={text.change.isPending}
            error={text.change.variables?.brief ? text.change.error : null}
            onClose={closeWindow}
            onKeep={(brief, search) =>
              text.change.mutate({ brief }, { onSuccess: () => (search ? find() : closeWindow()) })
            }
          />
        )}
        {active && (
          <Windows
            opened={opened}
            variant={active}
            bench={bench}
            session={session}
            reports={results.reports}
            onTry={(design) => {
              closeWindow();
              tryOut(design);
            }}
            onClose={closeWindow}
          />
        )}
        <ConflictDialog session={session} />
      </Shell>
    </ConditionsProvider>
  );
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

/** Why the lanes show an earlier state; what is wrong with a value of the cabinet is said at that value. */
function NotComputed({ problem }: { problem: ProblemDocument | null }) {
  const elsewhere = problem?.errors?.length
    ? problem.errors.filter(({ field }) => !field.startsWith('enclosure.') && !field.startsWith('signal.'))
    : [];
  const reason =
    problem === null ? 'The server does not answer; trying again.' : (elsewhere[0]?.message ?? '');
  return (
    <p
      role="alert"
      className="absolute top-1 left-36 z-20 max-w-[30rem] rounded-[3px] border border-short bg-short-wash px-2.5 py-0.5 text-short shadow"
    >
      These are the curves before the last change. {elsewhere[0] && <b>{elsewhere[0].field} </b>}
      {reason}
    </p>
  );
}
