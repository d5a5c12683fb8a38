import { recordingAt } from '../../api/queries/measure';
import {
  archiveMeasurement,
  asText,
  isOfAnother,
  type KeptMeasurement,
  KINDS,
  keepMeasurement,
} from '../../model/measurements';
import { clockOf, dayOf } from '../../model/moment';
import { asRead } from '../../model/preferences';
import { fieldAt, shown } from '../../model/units';
import type { Workbench } from '../../model/workbench';
import type { RawDesign, RawMeasurement } from '../../schema/types';
import { Button } from '../../ui/Button';
import { save } from '../../ui/download';
import { usePreferences } from '../../ui/observed';
import { TextInput } from '../../ui/TextInput';
import { TraceChart } from './TraceChart';

interface Props {
  all: readonly KeptMeasurement[];
  used: readonly KeptMeasurement[];
  design: RawDesign;
  workbench: Workbench;
}

const SOURCES: Record<RawMeasurement['source'], string> = {
  text: 'text file',
  recording: 'recording',
  microphone: 'microphone',
  rig: 'measuring box',
};

const FACTS = [
  ['Mass', 'added_mass'],
  ['Distance', 'distance'],
  ['Off axis', 'angle'],
  ['Room', 'room_temperature'],
] as const;

/** Every trace of the build, those that say something of this variant marked. */
export function TracesPanel({ all, used, design, workbench }: Props) {
  usePreferences();
  if (all.length === 0) return <p className="text-soft">Nothing is measured yet.</p>;
  return (
    <ul aria-label="Traces" className="flex flex-col gap-2">
      {all.map((one) => (
        <li key={one.id}>
          <TraceCard
            one={one}
            used={used.some(({ id }) => id === one.id)}
            design={design}
            workbench={workbench}
          />
        </li>
      ))}
    </ul>
  );
}

interface CardProps {
  one: KeptMeasurement;
  used: boolean;
  design: RawDesign;
  workbench: Workbench;
}

function TraceCard({ one, used, design, workbench }: CardProps) {
  const { measurement } = one;
  const {
    of,
    at,
    variant,
    driver,
    source,
    file,
    raw,
    calibration,
    left_out,
    remarks = [],
    notes = '',
  } = measurement;
  const put = (change: Partial<RawMeasurement>, label: string) => {
    const next = Object.entries({ ...measurement, ...change }).filter(
      ([, value]) => value !== null && value !== '' && value !== false,
    );
    keepMeasurement(workbench, { ...one, measurement: Object.fromEntries(next) as RawMeasurement }, label);
  };
  const title = `${KINDS[of]}${driver ? `, driver ${driver}` : ''}`;
  const facts = FACTS.flatMap(([name, key]) => {
    const typed = measurement[key];
    return typed == null ? [] : [`${name} ${shown(asRead(typed, fieldAt(`measurement.${key}`)))}`];
  });
  if (calibration) facts.push(`Calibration ${calibration}`);
  const elsewhere = isOfAnother(measurement, design);
  return (
    <article
      aria-label={`${title}, ${dayOf(at)}, ${clockOf(at)}`}
      className="rounded-[3px] border border-rule-line bg-card px-3 py-2"
    >
      <div className="flex flex-wrap items-baseline gap-x-2">
        <h3 className="font-semibold">{title}</h3>
        <span className="text-[0.929rem] text-soft">
          {dayOf(at)}, {clockOf(at)} · {SOURCES[source]}
          {file ? ` · ${file}` : ''}
        </span>
        <span className={`ml-auto font-medium ${used ? 'text-met' : 'text-soft'}`}>
          {used ? '✓ used' : left_out ? 'left out' : elsewhere ? `of ${variant}` : 'an earlier one'}
        </span>
      </div>
      {facts.length > 0 && <p className="text-[0.929rem]">{facts.join(' · ')}</p>}
      {remarks.map((remark) => (
        <p key={remark} className="text-[0.929rem] text-soft">
          {remark}
        </p>
      ))}
      <details className="mt-1">
        <summary className="cursor-pointer text-soft">{measurement.points.length} points</summary>
        <TraceChart label={title} of={of} points={measurement.points} />
      </details>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <TextInput
          label={`Notes of ${title}`}
          value={notes}
          longest={10_000}
          optional
          className="min-w-40 flex-1"
          onChange={(text) => put({ notes: text }, 'notes')}
        />
        {elsewhere && (
          <Button onClick={() => put({ variant: design.name }, 'variant of a trace')}>
            It is of this variant
          </Button>
        )}
        <Button onClick={() => put({ left_out: !left_out }, left_out ? 'use' : 'leave out')}>
          {left_out ? 'Use it' : 'Leave out'}
        </Button>
        <Button onClick={() => save(`${title}.txt`, new Blob([asText(measurement)], { type: 'text/plain' }))}>
          Save as text
        </Button>
        {raw && (
          <a className="text-oak underline" href={recordingAt(raw)} download={file || `${title}.txt`}>
            As it came
          </a>
        )}
        <Button onClick={() => archiveMeasurement(workbench, one)}>Archive</Button>
      </div>
    </article>
  );
}
