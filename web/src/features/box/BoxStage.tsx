import { Tabs } from 'radix-ui';
import { lazy, Suspense, useDeferredValue, useState } from 'react';
import { askDrawing, useCabinet, useModel } from '../../api/queries/box';
import { inWords } from '../../model/preferences';
import type { BodyReport, FieldError, RawDesign } from '../../schema/types';
import { useInAddress } from '../../ui/address';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { save } from '../../ui/download';
import { Message } from '../../ui/Message';
import { Scroll } from '../../ui/Scroll';
import type { StageProps } from '../shell/stages';
import { AirTab } from './AirTab';
import type { Editing } from './BodyField';
import { PanelsTab } from './PanelsTab';
import { Sheet } from './Sheet';
import { SizesTab } from './SizesTab';
import { tabOf } from './sheet';
import { WavesTab } from './WavesTab';

const TABS = [
  ['sizes', 'Sizes and volume'],
  ['air', 'Driver and ports'],
  ['waves', 'Standing waves'],
  ['panels', 'Boards'],
] as const;

type Tab = (typeof TABS)[number][0];
const TAB_IDS = TABS.map(([id]) => id);

/** The box of the active variant: drawn from the boards up, with everything that is decided about it. */
export function BoxStage({ variant, workbench, brief, errors, onTry, onBrief }: StageProps) {
  const { design, id } = variant;
  const answer = useCabinet(useDeferredValue(design));
  const [tab, setTab] = useInAddress('tab', TAB_IDS);
  const [selected, setSelected] = useState('');
  const [wave, setWave] = useState<number | null>(null);
  const report = answer.data;
  const built = useLastBuilt(id, design, report);
  const editing: Editing = {
    design,
    errors: errors.concat(refusals(answer.error)),
    edit: (next, label) => workbench.edit(id, next, label),
  };
  if (report === null) {
    return (
      <section aria-label="Box" className="grid flex-1 place-items-center p-8">
        <p className="max-w-[34rem] text-center">
          A baffle has no box to build. Choose another kind of cabinet to see its boards.
        </p>
      </section>
    );
  }
  return (
    <section
      aria-label="Box"
      className="grid min-h-0 flex-1 gap-4 px-4 pt-2 pb-1 lg:grid-cols-[minmax(0,1.35fr)_minmax(440px,1fr)]"
    >
      <div className="flex min-h-0 flex-col gap-1.5 max-lg:h-[560px]">
        <Message error={answer.error} />
        {answer.isPending && !built && <p className="text-soft">Building …</p>}
        {built && answer.error && (
          <p className="text-soft">What you see is the last box that could be built.</p>
        )}
        {built && (
          <Drawn
            report={built.report}
            design={built.design}
            wave={tab === 'waves' ? wave : null}
            selected={selected}
            onSelect={(part) => {
              setSelected(part);
              setTab(tabOf(part));
            }}
          />
        )}
      </div>
      <Tabs.Root value={tab} onValueChange={(next) => setTab(next as Tab)} className="flex min-h-0 flex-col">
        <Tabs.List aria-label="What is decided about the box" className="flex flex-wrap border-line border-b">
          {TABS.map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="-mb-px border-transparent border-b-2 px-2.5 py-1 text-soft hover:text-ink data-[state=active]:border-oak data-[state=active]:font-semibold data-[state=active]:text-ink"
            >
              {name}
              {report && <Count tab={value} report={report} />}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {TABS.map(([value, name]) => (
          <Tabs.Content key={value} value={value} tabIndex={-1} className="min-h-0 flex-1">
            <Scroll label={name} className="h-full overflow-y-auto pt-2 pr-1 pb-2">
              <h2 className="sr-only">{name}</h2>
              {value === 'sizes' && <SizesTab {...editing} report={report} brief={brief} />}
              {report && value === 'air' && (
                <AirTab {...editing} report={report} brief={brief} onTry={onTry} onBrief={onBrief} />
              )}
              {report && value === 'waves' && (
                <WavesTab {...editing} report={report} chosen={wave} onChoose={setWave} />
              )}
              {report && value === 'panels' && <PanelsTab {...editing} report={report} />}
            </Scroll>
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </section>
  );
}

interface Built {
  id: string;
  design: RawDesign;
  report: BodyReport;
}

/** The last box of a variant that could be built, so that a value that forbids it empties no drawing. */
function useLastBuilt(id: string, design: RawDesign, report: BodyReport | null | undefined): Built | null {
  const [last, setLast] = useState<Built | null>(null);
  const current = report ? { id, design, report } : null;
  if (current && last?.report !== report) setLast(current);
  return current ?? (last?.id === id ? last : null);
}

function refusals(error: unknown): FieldError[] {
  const found = error as { document?: { errors?: FieldError[] | null } } | null;
  return found?.document?.errors ?? [];
}

/** How many things want a look. */
function Count({ tab, report }: { tab: Tab; report: BodyReport }) {
  const count =
    tab === 'air'
      ? report.findings.filter(({ forbids }) => forbids).length
      : tab === 'waves'
        ? report.waves.filter(({ feared }) => feared).length
        : 0;
  if (!count) return null;
  return (
    <span className="ml-1.5 rounded-full bg-short-wash px-1.5 font-semibold text-[0.857rem] text-short">
      {count}
      <span className="sr-only"> to look at</span>
    </span>
  );
}

interface DrawnProps {
  report: BodyReport;
  design: RawDesign;
  wave: number | null;
  selected: string;
  onSelect: (part: string) => void;
}

type DrawingId = 'side' | 'front' | 'plan' | 'exploded';

type ViewId = DrawingId | 'model';
const VIEWS: readonly ViewId[] = ['side', 'front', 'plan', 'exploded', 'model'];

// Only who turns the box round needs what draws it.
const ModelView = lazy(() => import('./ModelView'));

function Drawn({ report, design, wave, selected, onSelect }: DrawnProps) {
  const [view, setView] = useInAddress('view', VIEWS);
  const [failure, setFailure] = useState<unknown>(null);
  const drawing = report.drawings.find((one) => one.view === view);
  const shown = wave !== null && view === 'side' ? report.waves[wave] : undefined;
  const [low, high] = report.chambers[0]?.bounds ?? [];
  const download = (format: 'svg' | 'dxf') => {
    setFailure(null);
    const type = format === 'svg' ? 'image/svg+xml' : 'image/vnd.dxf';
    if (view === 'model') return;
    askDrawing(design, view, format).then(
      (text) => save(`${design.name}, ${view}.${format}`, new Blob([text as string], { type })),
      setFailure,
    );
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <Choice
          label="View"
          value={view}
          options={[
            ...report.drawings.map(({ view: id, name }) => [id as ViewId, name] as const),
            ['model', '3-D'],
          ]}
          onChange={setView}
        />
        <span className="flex-1" />
        {view !== 'model' && (
          <>
            <Button look="quiet" onClick={() => download('svg')}>
              SVG
            </Button>
            <Button look="quiet" onClick={() => download('dxf')}>
              DXF
            </Button>
          </>
        )}
      </div>
      <Message error={failure} />
      <div className="min-h-0 flex-1">
        {view === 'model' && <Turned design={design} selected={selected} onSelect={onSelect} />}
        {drawing && (
          <Sheet
            drawing={drawing}
            selected={selected}
            onSelect={onSelect}
            wave={
              shown && low && high
                ? { wave: shown, from: [low[2] ?? 0, low[1] ?? 0], to: [high[2] ?? 0, high[1] ?? 0] }
                : null
            }
          />
        )}
      </div>
      <p className="text-[0.929rem] text-soft">{summary(report)}</p>
    </>
  );
}

function Turned({ design, ...chosen }: Pick<DrawnProps, 'design' | 'selected' | 'onSelect'>) {
  const model = useModel(useDeferredValue(design));
  if (!model.data) return <Message error={model.error} />;
  return (
    <Suspense fallback={<p className="text-soft">Setting it up …</p>}>
      <ModelView model={model.data} name={design.name || 'Box'} {...chosen} />
    </Suspense>
  );
}

/** How it is moved (common practice), kg. */
function lifted(mass: number): string {
  if (mass > 80) return '; it is moved on wheels or a lift, or built where it stands.';
  return mass > 25 ? '; lift it with two people.' : '.';
}

function summary({ outside, outside_volume, weight }: BodyReport): string {
  const [width = 0, height = 0, depth = 0] = outside.map((size) => Math.round(size * 1e3));
  const mass = weight.panels + weight.braces;
  const whole = mass + weight.drivers + weight.fill;
  return inWords(
    `Outside ${width} mm wide, ${height} mm high, ${depth} mm deep: ${(outside_volume * 1e3).toFixed(0)} l. ` +
      `Empty about ${mass.toFixed(1)} kg, with drivers${weight.fill >= 0.05 ? ' and fill' : ''} about ${whole.toFixed(0)} kg` +
      lifted(whole),
  );
}
