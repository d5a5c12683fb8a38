import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { keepRecording, readMeasurement, sweepAt } from '../../api/queries/measure';
import { isImpedance } from '../../model/measurements';
import { fieldAt, readTyped, significant } from '../../model/units';
import type { MeasurePlanStep, ReadMeasurement, Typed } from '../../schema/types';
import { Button, Download } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { chooseFile } from '../../ui/file';
import { Message } from '../../ui/Message';
import { QuantityInput } from '../../ui/QuantityInput';
import { TextInput } from '../../ui/TextInput';
import { JigResistor } from './JigResistor';
import { TraceChart } from './TraceChart';
import type { ToKeep } from './to_keep';

interface Props {
  step: MeasurePlanStep;
  build: string;
  onKeep: (all: ToKeep[]) => void;
  onClose: () => void;
}

const MASS = fieldAt('measurement.added_mass');
const TEMPERATURE = fieldAt('measurement.room_temperature');
const DISTANCE = fieldAt('measurement.distance');
const ANGLE = fieldAt('measurement.angle');
/** The sweep that is offered: what a recording of it is read by. */
const SWEEP = { rate: 48_000, seconds: 10, from: 5, to: 1000 };

/** A browser does not always know what a WAV file is. */
function typed(file: File): File {
  const type = /\.wav$/i.test(file.name) ? 'audio/wav' : 'text/plain';
  return new File([file], file.name, { type });
}

/** A trace or a recording from a file, looked at before it is kept. */
export function FileDialog({ step, build, onKeep, onClose }: Props) {
  const { of } = step;
  const impedance = isImpedance(of);
  const [file, setFile] = useState<File | null>(null);
  const [calibration, setCalibration] = useState<{ name: string; hash: string } | null>(null);
  const [resistor, setResistor] = useState('22');
  const [mass, setMass] = useState<Typed | null>(step.mass ? `${significant(step.mass * 1e3, 3)} g` : null);
  const [room, setRoom] = useState<Typed | null>(null);
  const [distance, setDistance] = useState<Typed | null>(
    step.distance != null ? `${Math.round(step.distance * 1e3)} mm` : null,
  );
  const [angle, setAngle] = useState<Typed | null>(null);
  const [notes, setNotes] = useState('');
  const read = useMutation({
    mutationFn: ({ file, calibration }: { file: File; calibration: string | undefined }) =>
      readMeasurement(file, {
        of,
        file: file.name,
        seconds: SWEEP.seconds,
        from: SWEEP.from,
        to: SWEEP.to,
        ...(impedance && file.type === 'audio/wav' && { resistor: Number(resistor) }),
        ...(calibration && { calibration }),
      }),
  });
  const keep = useMutation({ mutationFn: (wanted: File) => keepRecording(build, wanted) });
  const choose = async () => {
    const chosen = await chooseFile('.txt,.csv,.tsv,.frd,.zma,.wav,text/plain,text/csv,audio/wav');
    if (!chosen) return;
    const next = typed(chosen);
    setFile(next);
    read.mutate({ file: next, calibration: calibration?.hash });
  };
  const chooseCalibration = async () => {
    const chosen = await chooseFile('.txt,.cal,.csv,text/plain');
    if (!chosen) return;
    const hash = await keep.mutateAsync(new File([chosen], chosen.name, { type: 'text/plain' }));
    setCalibration({ name: chosen.name, hash });
    if (file) read.mutate({ file, calibration: hash });
  };
  const use = async (found: ReadMeasurement) => {
    if (!file) return;
    const raw = await keep.mutateAsync(file);
    const about = {
      file: file.name,
      raw,
      ...(of === 'impedance_mass' && mass !== null && { added_mass: mass }),
      ...(room !== null && { room_temperature: room }),
      ...(!impedance && distance !== null && { distance }),
      ...(angle !== null && { angle }),
      ...(calibration && { calibration: calibration.name }),
      ...(notes && { notes }),
    };
    onKeep([{ source: file.type === 'audio/wav' ? 'recording' : 'text', read: found, about }]);
  };
  const found = read.data;
  const wrongMass = of === 'impedance_mass' && readTyped(mass, 'mass') === null;
  return (
    <Dialog
      title={step.title}
      about={
        impedance
          ? 'Frequency, ohms and, if there is one, phase, in whatever columns your program wrote them; or a recording of both sides of the jig’s resistor.'
          : 'Frequency, level and, if there is one, phase, in whatever columns your program wrote them; or a recording of the sweep.'
      }
      wide
      open
      onClose={onClose}
    >
      <div className="flex flex-wrap items-center gap-2">
        <Button look={found ? 'plain' : 'strong'} disabled={read.isPending} onClick={() => void choose()}>
          Choose a file…
        </Button>
        <Download href={sweepAt(SWEEP.rate, SWEEP.seconds, SWEEP.from, SWEEP.to)}>
          Save the sweep (WAV)
        </Download>
        {!impedance && of !== 'loopback' && (
          <Button onClick={() => void chooseCalibration()}>
            {calibration ? `Microphone: ${calibration.name}` : 'Microphone calibration…'}
          </Button>
        )}
        {impedance && <JigResistor value={resistor} onChange={setResistor} />}
      </div>
      <p className="mt-1 text-soft">
        A recording holds the sweep of {SWEEP.seconds} s from {SWEEP.from} to {SWEEP.to} Hz that is saved
        here, any rate, 16 to 32 bits.
      </p>
      <Message error={read.error ?? keep.error} />
      {found && (
        <>
          <p className="mt-2">
            {found.points.length} points, {significant(found.points[0]?.[0] ?? 0, 3)} to{' '}
            {significant(found.points.at(-1)?.[0] ?? 0, 3)} Hz; {found.form}
            {found.phased ? '' : '; no phase'}.
          </p>
          {found.remarks.map((remark) => (
            <p key={remark} className="text-soft">
              {remark}
            </p>
          ))}
          <TraceChart label={step.title} of={of} points={found.points} />
          <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
            {of === 'impedance_mass' && (
              <Quantity label="Mass on the cone" field={MASS} typed={mass} onType={setMass} />
            )}
            {!impedance && of !== 'loopback' && (
              <Quantity label="Distance" field={DISTANCE} typed={distance} onType={setDistance} />
            )}
            {of === 'seat' && <Quantity label="Off axis" field={ANGLE} typed={angle} onType={setAngle} />}
            <Quantity label="Room temperature" field={TEMPERATURE} typed={room} onType={setRoom} />
            <TextInput
              label="Notes"
              value={notes}
              longest={10_000}
              optional
              className="min-w-48 flex-1"
              onChange={setNotes}
            />
          </div>
          {wrongMass && <p className="mt-1 text-short">Type what was stuck to the cone, as weighed.</p>}
          <p className="mt-2 text-right">
            <Button look="strong" disabled={keep.isPending || wrongMass} onClick={() => void use(found)}>
              Keep this measurement
            </Button>
          </p>
        </>
      )}
    </Dialog>
  );
}

interface QuantityProps {
  label: string;
  field: ReturnType<typeof fieldAt>;
  typed: Typed | null;
  onType: (typed: Typed | null) => void;
}

function Quantity({ label, field, typed, onType }: QuantityProps) {
  return (
    <div className="flex items-center gap-1.5">
      {label}
      <QuantityInput
        label={label}
        fields={[field]}
        typed={typed}
        optional
        className="w-24 font-mono"
        onType={(_, next) => onType(next)}
      />
    </div>
  );
}
