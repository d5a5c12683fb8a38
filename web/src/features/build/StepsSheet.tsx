import { useEffect, useState } from 'react';
import { useCompanions } from '../../api/queries/companion';
import { drying, lasting } from '../../model/duration';
import { localMoment } from '../../model/moment';
import { asRead, inWords } from '../../model/preferences';
import { fieldAt, readTyped, shown, usualUnit, writeTyped } from '../../model/units';
import { keepEntry, progressOn, tick, withMeasured } from '../../model/workshop';
import type { Step, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { QuantityInput } from '../../ui/QuantityInput';
import { Scroll } from '../../ui/Scroll';
import { lengthOf } from './lengths';
import { PhoneDialog } from './PhoneDialog';
import type { SheetProps } from './sheet';

/** What is done in which order, each with its check; what is measured on the way flows back into the design. */
export function StepsSheet(props: SheetProps) {
  const { plan, bench } = props;
  const ticks = progressOn(bench).ticks ?? [];
  const stateOf = (id: string) => {
    const found = ticks.find(({ step }) => step === id);
    return found ? (found.failed ? 'failed' : 'done') : null;
  };
  const next = plan.steps.find(({ id }) => stateOf(id) !== 'done');
  const [opened, open] = useState<string | null>(null);
  const [phone, setPhone] = useState(false);
  useFromPhones(props);
  const shown = opened ?? next?.id;
  const phases = [...new Set(plan.steps.map(({ phase }) => phase))];
  const done = plan.steps.filter(({ id }) => stateOf(id) === 'done').length;
  return (
    <Scroll label="Steps" className="min-h-0 flex-1 overflow-y-auto pr-1 pb-2">
      <div className="flex flex-wrap items-center gap-2 pb-1">
        <p className="min-w-60 flex-1 text-soft">
          {done} of {plan.steps.length} done{next ? `; next: ${inWords(next.title).toLowerCase()}` : ''}. Tick
          a step when its check holds; what you measure is taken into the design.
        </p>
        <Button onClick={() => setPhone(true)}>On a phone…</Button>
      </div>
      {phone && (
        <PhoneDialog build={props.build} variant={props.variant.id} onClose={() => setPhone(false)} />
      )}
      {phases.map((phase) => {
        const steps = plan.steps.filter((step) => step.phase === phase);
        return (
          <section key={phase} className="pb-2">
            <h3 className="border-line border-b font-semibold">{steps[0]?.phase_name}</h3>
            <ol>
              {steps.map((step) => (
                <li key={step.id} className="border-rule-line border-b">
                  <StepRow
                    {...props}
                    step={step}
                    state={stateOf(step.id)}
                    open={shown === step.id}
                    onOpen={() => open(shown === step.id ? '' : step.id)}
                    onTicked={() => open(null)}
                  />
                </li>
              ))}
            </ol>
          </section>
        );
      })}
    </Scroll>
  );
}

/** While a phone has the steps open, what is ticked there is looked at. */
function useFromPhones({ build, onRefresh }: SheetProps) {
  const { data, dataUpdatedAt } = useCompanions(build);
  const open = data?.links.some(({ state }) => state === 'joined') ?? false;
  // biome-ignore lint/correctness/useExhaustiveDependencies: at every answer
  useEffect(() => {
    if (open) onRefresh('progress');
  }, [open, dataUpdatedAt, onRefresh]);
}

interface RowProps extends SheetProps {
  step: Step;
  state: 'done' | 'failed' | null;
  open: boolean;
  onOpen: () => void;
  onTicked: () => void;
}

function StepRow({ step, state, open, onOpen, onTicked, plan, workbench, variant, onShow }: RowProps) {
  const nameOf = (id: string) => plan.items.find((item) => item.id === id)?.name ?? id;
  const fail = () => {
    tick(workbench, step.id, 'failed', new Date());
    const entry = {
      at: localMoment(new Date()),
      step: step.id,
      text: step.title,
      mistake: step.fails?.mistake ?? '',
      fix: step.fails?.fix ?? '',
    };
    keepEntry(workbench, { id: crypto.randomUUID(), entry });
    onShow('log');
  };
  return (
    <div className={open ? 'bg-card px-2 py-1.5' : 'px-2 py-0.5'}>
      <div className="flex items-center gap-2.5">
        <input
          type="checkbox"
          aria-label={`${step.title} done`}
          className="size-5"
          checked={state === 'done'}
          onChange={(event) => {
            tick(workbench, step.id, event.target.checked ? 'done' : null, new Date());
            onTicked();
          }}
        />
        <button
          type="button"
          aria-expanded={open}
          className={`min-h-6 flex-1 text-left font-medium ${state === 'done' ? 'text-soft line-through' : ''}`}
          onClick={onOpen}
        >
          {inWords(step.title)}
          {state === 'failed' && <span className="text-short"> – its check failed</span>}
        </button>
        <span className="whitespace-nowrap font-mono text-[0.857rem] text-soft">
          {lasting(step.minutes)}
          {step.wait ? `, then ${drying(step.wait[1] as number)}` : ''}
        </span>
      </div>
      {open && (
        <div className="mt-1 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-1 pl-7 md:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
          <div className="flex flex-col gap-1">
            <p>{inWords(step.how)}</p>
            {step.why && <p className="text-soft">{inWords(step.why)}</p>}
            {step.reach && (
              <p className="text-soft">
                Through the {step.reach.through}, {lengthOf(step.reach.width)} wide.
              </p>
            )}
            {step.caution && (
              <p className="border-short border-l-3 pl-2">
                <b>Caution.</b> {inWords(step.caution)}
              </p>
            )}
            <p>
              <b>Check:</b> {inWords(step.check)}
            </p>
            {step.measures && <Measured step={step} workbench={workbench} variant={variant} />}
            {step.methods.length > 0 && (
              <details>
                <summary className="text-soft">Where builders differ</summary>
                <dl>
                  {step.methods.map(([method, words]) => (
                    <div key={method} className="flex gap-2">
                      <dt className="min-w-32 font-medium">{method}</dt>
                      <dd>{inWords(words)}</dd>
                    </div>
                  ))}
                </dl>
              </details>
            )}
            {step.fails && (
              <p className="flex flex-wrap items-center gap-2">
                <Button onClick={fail}>The check failed…</Button>
                <span className="text-soft">{inWords(step.fails.fix)}</span>
              </p>
            )}
          </div>
          <dl className="text-[0.929rem]">
            <Facts name="Parts" all={step.parts.map(nameOf)} />
            <Facts name="Boards" all={step.panels.map((number) => `no. ${number}`)} />
            <Facts name="Tools" all={step.tools} />
            {step.clamps && (
              <Facts
                name="Clamps"
                all={[`${step.clamps[0]}, opening ${lengthOf(step.clamps[1] as number)}`]}
              />
            )}
            {step.wait && <Facts name="Wait" all={[`${step.wait[0]}, ${drying(step.wait[1] as number)}`]} />}
          </dl>
        </div>
      )}
    </div>
  );
}

function Facts({ name, all }: { name: string; all: readonly string[] }) {
  if (!all.length) return null;
  return (
    <div className="flex gap-2">
      <dt className="min-w-16 text-soft">{name}</dt>
      <dd>{inWords(all.join('; '))}</dd>
    </div>
  );
}

const PATHS = {
  thickness: 'measured.boards.measured',
  cutout: 'measured.cutout',
  depth: 'measured.depth',
  volume: 'measured.volume.measured',
} as const;

/** A value that is measured at a step. */
function Measured({ step, workbench, variant }: Pick<RowProps, 'step' | 'workbench' | 'variant'>) {
  const { measures } = step;
  if (!measures) return null;
  const what = measures.what as keyof typeof PATHS;
  const field = fieldAt(PATHS[what]);
  const typed = measuredOf(variant.design.measured, what, measures.material, measures.drawn);
  const drawn = writeTyped(measures.drawn, usualUnit(field), 4);
  return (
    <div className="flex items-center gap-2">
      <span>Measured:</span>
      <QuantityInput
        label={`${field.symbol}, measured`}
        fields={[field]}
        typed={typed}
        follows={String(asRead(drawn, field))}
        optional
        className="w-28 font-mono"
        onType={(_, next) => {
          const { design } = variant;
          workbench.edit(
            variant.id,
            withMeasured(
              design,
              what,
              next,
              nominalOf(variant.design.measured, what, measures.material, measures.drawn) ?? drawn,
              measures.material,
            ),
            'measured in the workshop',
          );
        }}
      />
      <span className="text-[0.929rem] text-soft">as drawn {shown(asRead(drawn, field))}</span>
    </div>
  );
}

type Measurements = SheetProps['variant']['design']['measured'];

const boardOf = (measured: Measurements, material: string | null | undefined, drawn: number) =>
  measured?.boards?.find(
    (board) => board.material === material && Math.abs(siOf(board.nominal) - drawn) < 5e-5,
  );

const siOf = (typed: Typed): number => readTyped(typed, 'length')?.si ?? Number.NaN;

function measuredOf(
  measured: Measurements,
  what: keyof typeof PATHS,
  material: string | null | undefined,
  drawn: number,
): Typed | null {
  if (what === 'thickness') return boardOf(measured, material, drawn)?.measured ?? null;
  if (what === 'volume') return measured?.volume?.measured ?? null;
  return measured?.[what] ?? null;
}

/** How the design's own thickness was written when it was measured. */
function nominalOf(
  measured: Measurements,
  what: keyof typeof PATHS,
  material: string | null | undefined,
  drawn: number,
): Typed | null {
  return what === 'thickness' ? (boardOf(measured, material, drawn)?.nominal ?? null) : null;
}
