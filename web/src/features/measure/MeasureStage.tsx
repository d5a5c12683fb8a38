import { useMemo, useState } from 'react';
import { useForetold, useMeasureReport, useMeasuringPlan } from '../../api/queries/measure';
import { Lanes } from '../../lanes/Lanes';
import { LanesMenu } from '../../lanes/LanesMenu';
import type { Shown } from '../../lanes/shown';
import { measurementsOn, usedFor } from '../../model/measurements';
import { localDay, localMoment } from '../../model/moment';
import { keepEntry } from '../../model/workshop';
import type { BoxRemedy, MeasuringReport, RawDesign, Report, Trace } from '../../schema/types';
import { useInAddress } from '../../ui/address';
import { Choice } from '../../ui/Choice';
import { Message } from '../../ui/Message';
import { Scroll } from '../../ui/Scroll';
import { FOLLOWED, useThrottled } from '../../ui/throttle';
import { ConditionsBar } from '../curves/ConditionsBar';
import { NotComputed } from '../curves/NotComputed';
import type { StageProps } from '../shell/stages';
import { useTheme } from '../shell/theme';
import { ComparePanel } from './ComparePanel';
import { FindingsPanel } from './FindingsPanel';
import { LearnedPanel } from './LearnedPanel';
import { PlanPanel } from './PlanPanel';
import { TracesPanel } from './TracesPanel';

const LANES = ['level', 'impedance'];
const PANELS = [
  ['plan', 'Plan'],
  ['findings', 'Findings'],
  ['traces', 'Traces'],
  ['compare', 'Compare'],
  ['learned', 'Learned'],
] as const;

/** What is measured of the active variant, laid on its prediction, what that says, and what would fix it. */
export function MeasureStage(props: StageProps) {
  const { variant, workbench, bench, build, name, shown, problem, onTry } = props;
  const theme = useTheme();
  const design = useThrottled(variant.design, FOLLOWED);
  const [today] = useState(() => localDay(new Date()));
  const all = useMemo(() => measurementsOn(bench), [bench]);
  const used = useMemo(() => usedFor(all, design), [all, design]);
  const measurements = useMemo(() => used.map(({ measurement }) => measurement), [used]);
  const plan = useMeasuringPlan(design);
  const answer = useMeasureReport(design, measurements, today);
  const report = answer.data;
  const [panel, open] = useInAddress(
    'show',
    PANELS.map(([id]) => id),
  );
  const [wanted, foretell] = useState<string | null>(null);
  const remedy = report && designOf(report, wanted);
  const foretold = useForetold(remedy?.design ?? null);
  const drawn = useMemo(
    () => withMeasured(shown, variant.id, report, remedy?.name, foretold.data),
    [shown, variant.id, report, remedy?.name, foretold.data],
  );
  const take = (remedy: BoxRemedy) => {
    const text = [`${remedy.title}: ${remedy.by}.`, ...remedy.steps].join(' ');
    keepEntry(workbench, { id: crypto.randomUUID(), entry: { at: localMoment(new Date()), text } });
    if (remedy.design) onTry(remedy.design);
  };
  const tools = useMemo(
    () => <LanesMenu title={name} shown={drawn} activeId={variant.id} />,
    [name, drawn, variant.id],
  );
  return (
    <section aria-label="Measure" className="flex min-h-0 flex-1 flex-col gap-1 px-4 pt-2 pb-1">
      <ConditionsBar shown={shown} bench={bench} workbench={workbench} />
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
        <div className="relative min-h-0 max-lg:h-[480px]">
          {problem !== undefined && <NotComputed problem={problem} />}
          <Lanes shown={drawn} activeId={variant.id} theme={theme} tools={tools} only={LANES} />
        </div>
        <div className="flex min-h-0 flex-col gap-1.5">
          <div>
            <Choice label="Details" value={panel} options={PANELS} onChange={open} />
          </div>
          <Scroll key={panel} label="Measuring" className="min-h-0 flex-1 overflow-y-auto pr-1 pb-2">
            <Message error={plan.error ?? answer.error} />
            {answer.isPlaceholderData && panel === 'findings' && (
              <p role="status" className="text-soft">
                Working out the newest measurement…
              </p>
            )}
            {panel === 'plan' && plan.data && (
              <PlanPanel plan={plan.data} used={used} design={design} build={build} workbench={workbench} />
            )}
            {panel === 'findings' &&
              (report ? (
                <FindingsPanel
                  report={report}
                  foretold={wanted}
                  onForetell={foretell}
                  onTry={onTry}
                  onRemedy={take}
                  onPlan={() => open('plan')}
                />
              ) : (
                <p className="text-soft">
                  {measurements.length > 0
                    ? 'Working it out…'
                    : 'Nothing is measured yet. The impedance of the finished box tells most.'}
                </p>
              ))}
            {panel === 'compare' && <ComparePanel all={all} />}
            {panel === 'learned' && (
              <LearnedPanel
                design={variant.design}
                onUse={(next) => workbench.edit(variant.id, next, 'learned values')}
              />
            )}
            {panel === 'traces' && (
              <TracesPanel all={all} used={used} design={design} workbench={workbench} />
            )}
          </Scroll>
        </div>
      </div>
    </section>
  );
}

/** The box with a remedy done, or as it was found. */
function designOf(
  report: MeasuringReport,
  wanted: string | null,
): { name: string; design: RawDesign } | null {
  if (wanted === 'as_found' && report.as_found) return { name: 'as measured', design: report.as_found };
  const remedy = report.remedies.find(({ id }) => id === wanted);
  return remedy ? { name: remedy.title.toLowerCase(), design: remedy.foretold } : null;
}

const DRAWN: readonly Trace['quantity'][] = ['level', 'impedance'];

/** What is shown, the active variant with what was measured of it and with what a remedy would make of it. */
function withMeasured(
  shown: Shown[],
  active: string,
  report: MeasuringReport | undefined,
  label: string | undefined,
  foretold: Report | undefined,
): Shown[] {
  if (!report) return shown;
  const after = (foretold && label ? foretold.traces : [])
    .filter(({ quantity, origin }) => DRAWN.includes(quantity) && origin === 'simulated')
    .map((trace): Trace => ({ ...trace, origin: 'target', label: label ?? '' }));
  return shown.map((one) =>
    one.id === active ? { ...one, traces: [...one.traces, ...report.traces, ...after] } : one,
  );
}
