import { useId, useState } from 'react';
import { useRig } from '../../api/queries/measure';
import {
  isImpedance,
  type KeptMeasurement,
  keepMeasurement,
  madeFor,
  measurementOf,
} from '../../model/measurements';
import { clockOf, dayOf } from '../../model/moment';
import { inWords } from '../../model/preferences';
import { significant } from '../../model/units';
import type { Workbench } from '../../model/workbench';
import type { MeasurePlanStep, MeasuringPlan, RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Message } from '../../ui/Message';
import { usePreferences } from '../../ui/observed';
import { FileDialog } from './FileDialog';
import { MicrophoneDialog } from './MicrophoneDialog';
import { SetupPicture } from './SetupPicture';
import { useTaking } from './taking';
import type { ToKeep } from './to_keep';

interface Props {
  plan: MeasuringPlan;
  used: readonly KeptMeasurement[];
  design: RawDesign;
  build: string;
  workbench: Workbench;
}

/** What is measured, in order: which are done, how each is set up, and the ways to take it. */
export function PlanPanel({ plan, used, design, build, workbench }: Props) {
  usePreferences();
  const [which, setWhich] = useState<'smallest' | 'all'>(
    used.some(({ measurement }) => measurement.of !== 'impedance_box') ? 'all' : 'smallest',
  );
  const [reading, setReading] = useState<{ step: MeasurePlanStep; by: 'file' | 'microphone' } | null>(null);
  const rig = useRig();
  const taking = useTaking();
  const Reading = reading?.by === 'microphone' ? MicrophoneDialog : FileDialog;
  const steps = plan.steps.filter(({ smallest }) => which === 'all' || smallest);
  const left = steps.filter((step) => !madeFor(used, step));
  const minutes = left.reduce((sum, step) => sum + step.minutes, 0);
  const keep = (step: MeasurePlanStep, { source, read, about }: ToKeep) => {
    const facts = { ...(step.driver && { driver: step.driver }), ...about };
    const measurement = measurementOf(step.of, source, design, read, facts, new Date());
    keepMeasurement(workbench, { id: crypto.randomUUID(), measurement });
  };
  const sweep = (step: MeasurePlanStep) => {
    const mass = step.mass ? `${significant(step.mass * 1e3, 3)} g` : null;
    const room = rig.data?.room;
    const about = {
      ...(mass !== null && { added_mass: mass }),
      ...(room != null && { room_temperature: `${room} degC` }),
    };
    taking.begin(step, mass, (read) => keep(step, { source: 'rig', read, about }));
  };
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Choice
          label="How much to measure"
          value={which}
          options={[
            ['smallest', 'Smallest set'],
            ['all', 'Everything'],
          ]}
          onChange={setWhich}
        />
        <p aria-live="polite">
          {left.length === 0 ? 'All of it is measured.' : `${left.length} to do, about ${minutes} minutes`}
        </p>
      </div>
      <RigLine rig={rig.data} error={rig.error} />
      {plan.limits && <p className="text-soft">{plan.limits}</p>}
      <details className="rounded-[3px] border border-rule-line bg-card px-3 py-1.5">
        <summary className="cursor-pointer font-medium">Before you begin</summary>
        <ul className="mt-1 list-disc pl-5">
          {plan.cautions.map((words) => (
            <li key={words}>{inWords(words)}</li>
          ))}
        </ul>
      </details>
      <ol className="flex flex-col gap-2">
        {steps.map((step) => (
          <li key={`${step.of} ${step.driver}`}>
            <StepCard
              step={step}
              open={step === left[0]}
              made={madeFor(used, step)}
              sweeps={Boolean(rig.data)}
              share={taking.step === step ? taking.share : null}
              busy={taking.step !== null}
              error={taking.failed === step ? taking.error : null}
              onSweep={() => sweep(step)}
              onStop={taking.stop}
              onFile={() => setReading({ step, by: 'file' })}
              onMicrophone={() => setReading({ step, by: 'microphone' })}
            />
          </li>
        ))}
      </ol>
      {reading && (
        <Reading
          step={reading.step}
          build={build}
          onKeep={(all) => {
            for (const one of all) keep(reading.step, one);
            setReading(null);
          }}
          onClose={() => setReading(null)}
        />
      )}
    </div>
  );
}

function RigLine({
  rig,
  error,
}: {
  rig: { name: string; simulated: boolean } | null | undefined;
  error: unknown;
}) {
  if (error) return <Message error={error} />;
  if (!rig) return null;
  return (
    <p className="text-[0.929rem]">
      <b>Measuring box:</b> {rig.name}
      {rig.simulated && (
        <span className="text-soft">
          {' '}
          · simulated: it measures a hidden cabinet, off its drawing as real ones are
        </span>
      )}
    </p>
  );
}

interface StepProps {
  step: MeasurePlanStep;
  /** Whether it is shown how it is done: of what comes next. */
  open: boolean;
  made: KeptMeasurement | undefined;
  sweeps: boolean;
  /** What share of its sweep is done; null where none runs. */
  share: number | null;
  busy: boolean;
  error: unknown;
  onSweep: () => void;
  onStop: () => void;
  onFile: () => void;
  onMicrophone: () => void;
}

function StepCard({
  step,
  open,
  made,
  sweeps,
  share,
  busy,
  error,
  onSweep,
  onStop,
  onFile,
  onMicrophone,
}: StepProps) {
  const heading = useId();
  const facts = [
    step.mass ? `about ${significant(step.mass * 1e3, 2)} g` : null,
    step.distance != null ? `${Math.round(step.distance * 1e3)} mm away` : null,
    step.highest ? `tells up to ${Math.round(step.highest)} Hz` : null,
    `${step.minutes} min`,
  ].filter(Boolean);
  const at = made?.measurement.at;
  return (
    <article aria-labelledby={heading} className="rounded-[3px] border border-rule-line bg-card px-3 py-2">
      <div className="flex flex-wrap items-baseline gap-x-2">
        <h3 id={heading} className="font-semibold">
          {step.title}
        </h3>
        <span className="text-[0.929rem] text-soft">{inWords(facts.join(' · '))}</span>
        {at && (
          <span className="ml-auto font-medium text-met">
            ✓ {dayOf(at)}, {clockOf(at)}
          </span>
        )}
      </div>
      <details open={open} className="mt-0.5">
        <summary className="cursor-pointer text-[0.929rem] text-soft">How it is done</summary>
        <div className="mt-1 flex gap-3">
          <SetupPicture of={step.of} />
          <div className="min-w-0 flex-1">
            <ul className="list-disc pl-4">
              {step.how.map((words) => (
                <li key={words}>{inWords(words)}</li>
              ))}
            </ul>
            <p className="mt-1">
              <b>Settles:</b> {inWords(step.settles)}
            </p>
            {!made && <p className="text-soft">Without it: {step.without}</p>}
          </div>
        </div>
      </details>
      <div className="mt-1.5 flex flex-wrap items-center gap-2">
        {sweeps && share === null && (
          <Button look={made ? 'plain' : 'strong'} disabled={busy} onClick={onSweep}>
            {made ? 'Measure again' : 'Measure'}
          </Button>
        )}
        {share !== null && (
          <>
            <progress aria-label={`Sweep: ${step.title}`} className="h-2 w-40" max={1} value={share} />
            <Button onClick={onStop}>Stop</Button>
          </>
        )}
        <Button disabled={busy} onClick={onMicrophone}>
          {isImpedance(step.of) ? 'With a jig at the sound card…' : 'With a microphone…'}
        </Button>
        <Button disabled={busy} onClick={onFile}>
          From a file…
        </Button>
      </div>
      <Message error={error} />
    </article>
  );
}
