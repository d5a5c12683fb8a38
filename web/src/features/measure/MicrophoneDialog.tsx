import { useEffect, useRef, useState } from 'react';
import { keepRecording, readMeasurement, sweepAt } from '../../api/queries/measure';
import { isImpedance } from '../../model/measurements';
import type { MeasurePlanStep, ReadMeasurement } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { useObserved } from '../../ui/observed';
import { Select } from '../../ui/Select';
import { JigResistor } from './JigResistor';
import { type Heard, LEAD, Microphone, soundDevices } from './sound/microphone';
import { averaged, type Verdict, wavOf } from './sound/samples';
import { TraceChart } from './TraceChart';
import type { ToKeep } from './to_keep';

interface Props {
  step: MeasurePlanStep;
  build: string;
  onKeep: (all: ToKeep[]) => void;
  onClose: () => void;
}

const SECONDS = [2, 5, 10, 20] as const;
const TIMES = [1, 2, 4, 8] as const;
/** Sweeps one after the other, each 6 dB louder, up to the level that is set. */
const LEVELS = [1, 2, 3, 4] as const;
const STEP = 6;
const FROM = 5;
const TO = 1000;

interface Taken {
  file: Blob;
  read: ReadMeasurement;
  /** Of the sweep, dB of full scale. */
  level: number;
}

/** A measurement with the sound card of this machine: opened, checked, played, heard, looked at, kept. */
export function MicrophoneDialog({ step, build, onKeep, onClose }: Props) {
  const impedance = isImpedance(step.of);
  const [opened, setOpened] = useState<Microphone | null>(null);
  const [devices, setDevices] = useState<Awaited<ReturnType<typeof soundDevices>> | null>(null);
  const [input, setInput] = useState('');
  const [output, setOutput] = useState('');
  const [seconds, setSeconds] = useState<(typeof SECONDS)[number]>(10);
  const [times, setTimes] = useState<(typeof TIMES)[number]>(2);
  const [level, setLevel] = useState(-30);
  const [levels, setLevels] = useState<(typeof LEVELS)[number]>(1);
  const [resistor, setResistor] = useState('22');
  const [tone, setTone] = useState<Verdict | null>(null);
  const [work, setWork] = useState<{ what: string; share: number } | null>(null);
  const [taken, setTaken] = useState<readonly Taken[]>([]);
  const [failure, setFailure] = useState<unknown>(null);
  const abort = useRef<AbortController | null>(null);
  const latest = useRef<Microphone | null>(null);
  latest.current = opened;
  useEffect(
    () => () => {
      abort.current?.abort();
      latest.current?.close();
    },
    [],
  );
  const run = async (what: string, job: (signal: AbortSignal) => Promise<void>) => {
    const controller = new AbortController();
    abort.current = controller;
    setFailure(null);
    setWork({ what, share: 0 });
    try {
      await job(controller.signal);
    } catch (error) {
      if (!controller.signal.aborted) setFailure(error);
    } finally {
      if (abort.current === controller) setWork(null);
    }
  };
  const stop = () => {
    abort.current?.abort();
    setWork(null);
  };
  const open = (wanted: string) =>
    run('Opening', async () => {
      opened?.close();
      const next = await Microphone.open(wanted || null, impedance ? 2 : 1);
      setOpened(next);
      setInput(wanted);
      setTone(null);
      setDevices(await soundDevices());
    });
  const check = (microphone: Microphone) =>
    run('Test tone', async (signal) => setTone(await microphone.test(signal)));
  const sweep = (microphone: Microphone) =>
    run('Sweep', async (signal) => {
      setTaken([]);
      const file = await fetch(sweepAt(microphone.rate, seconds, FROM, TO), { signal });
      const bytes = await file.arrayBuffer();
      const found: Taken[] = [];
      for (let below = levels - 1; below >= 0; below -= 1) {
        const played = level - STEP * below;
        const done = levels - 1 - below;
        const all = await microphone.sweep(bytes.slice(0), played, times, signal, (share) =>
          setWork({ what: 'Sweep', share: (done + share) / levels }),
        );
        const heard = wavOf(averaged(all), microphone.rate);
        const about = { of: step.of, file: 'sweep.wav', seconds, from: FROM, to: TO };
        const read = await readMeasurement(heard, {
          ...about,
          ...(impedance && { resistor: Number(resistor) }),
        });
        found.push({ file: heard, read, level: played });
        setTaken([...found]);
      }
    });
  const keep = () =>
    run('Saving', async () => {
      const all: Parameters<Props['onKeep']>[0] = [];
      for (const { file, read, level } of taken) {
        const raw = await keepRecording(build, file);
        const about = { file: 'sweep.wav', raw, ...(!impedance && { sweep_level: level }) };
        all.push({ source: 'microphone', read, about });
      }
      onKeep(all);
    });
  return (
    <Dialog
      title={step.title}
      about="The sweep is played by this machine’s sound card and heard by its microphone or line input. Nothing leaves this machine."
      wide
      open
      changed={taken.length > 0}
      onClose={onClose}
    >
      {!opened && (
        <p>
          <Button look="strong" disabled={work !== null} onClick={() => void open('')}>
            Open the microphone
          </Button>
        </p>
      )}
      {opened && (
        <div className="flex flex-col gap-2">
          <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
            {devices && devices.inputs.length > 0 && (
              <Labelled name="Input">
                <Select
                  label="Input"
                  className="max-w-60"
                  value={input}
                  options={[['', 'as the system has it'] as const, ...devices.inputs]}
                  onChange={(next) => void open(next)}
                />
              </Labelled>
            )}
            {devices && devices.outputs.length > 0 && (
              <Labelled name="Output">
                <Select
                  label="Output"
                  className="max-w-60"
                  value={output}
                  options={[['', 'as the system has it'] as const, ...devices.outputs]}
                  onChange={(next) => {
                    setOutput(next);
                    void opened.playsOn(next).catch(setFailure);
                  }}
                />
              </Labelled>
            )}
            <LevelMeter microphone={opened} />
          </div>
          <Regulated microphone={opened} tone={tone} />
          <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
            <Labelled name="Sweep">
              <Select
                label="Length of the sweep"
                value={String(seconds)}
                options={SECONDS.map((one) => [String(one), `${one} s`] as const)}
                onChange={(next) => setSeconds(Number(next) as typeof seconds)}
              />
            </Labelled>
            <Labelled name="Played">
              <Select
                label="How often"
                value={String(times)}
                options={TIMES.map((one) => [String(one), one === 1 ? 'once' : `${one} times`] as const)}
                onChange={(next) => setTimes(Number(next) as typeof times)}
              />
            </Labelled>
            {!impedance && (
              <Labelled name="Levels">
                <Select
                  label="Levels"
                  value={String(levels)}
                  options={LEVELS.map(
                    (one) => [String(one), one === 1 ? 'one' : `${one}, 6 dB apart`] as const,
                  )}
                  onChange={(next) => setLevels(Number(next) as typeof levels)}
                />
              </Labelled>
            )}
            <label className="flex items-center gap-1.5">
              Level
              <input
                type="range"
                min={-60}
                max={0}
                step={1}
                value={level}
                aria-valuetext={`${level} dB`}
                onChange={(event) => setLevel(Number(event.target.value))}
              />
              <span className="w-16 whitespace-nowrap font-mono">{`${level} dB`.replace('-', '−')}</span>
            </label>
            {impedance && <JigResistor value={resistor} onChange={setResistor} />}
          </div>
          <p className="text-soft">
            Begin soft: turn the amplifier down, then the level up until the meter reads about −12 dB. Stop at
            any buffeting.
          </p>
          <div className="flex flex-wrap items-center gap-2">
            <Button disabled={work !== null} onClick={() => void check(opened)}>
              Test tone
            </Button>
            <Button
              look={taken.length > 0 ? 'plain' : 'strong'}
              disabled={work !== null}
              onClick={() => void sweep(opened)}
            >
              {taken.length > 0 ? 'Play the sweep again' : 'Play the sweep'}
            </Button>
            {work && (
              <>
                <progress aria-label={work.what} className="h-2 w-40" max={1} value={work.share} />
                <Button onClick={stop}>Stop</Button>
              </>
            )}
          </div>
        </div>
      )}
      <Message error={failure} />
      {taken.map((one) => (
        <Result key={one.level} taken={one} step={step} several={taken.length > 1} />
      ))}
      {taken.length > 0 && (
        <p className="mt-2 text-right">
          <Button look="strong" disabled={work !== null} onClick={() => void keep()}>
            {taken.length > 1 ? `Keep these ${taken.length} measurements` : 'Keep this measurement'}
          </Button>
        </p>
      )}
    </Dialog>
  );
}

function Labelled({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="flex items-center gap-1.5">
      {name}
      {children}
    </div>
  );
}

/** How loud it is at the input; it does not speak by itself, only when it is asked. */
function LevelMeter({ microphone }: { microphone: Microphone }) {
  const { level, clipped }: Heard = useObserved(microphone);
  const shown = Math.max(-60, Math.min(0, level));
  return (
    <div className="flex items-center gap-1.5">
      Heard
      <meter
        aria-label="Level at the input"
        className="h-3 w-36"
        min={-60}
        max={0}
        high={-6}
        optimum={-20}
        value={shown}
      />
      <span className="w-16 font-mono">
        {Number.isFinite(level) ? `${level.toFixed(0)} dB`.replace('-', '−') : '–'}
      </span>
      {clipped && (
        <b role="alert" className="text-short">
          clipped: turn the input down
        </b>
      )}
    </div>
  );
}

const TOLD: Record<Verdict, string> = {
  true: 'The test tone came back as it was played: nothing regulates the level.',
  levelled:
    'The test tone came back at another level than it was played: something regulates the level. Switch automatic gain off in the system’s settings, or use another input.',
  unheard: 'The test tone was not heard above the noise: check the leads and the level.',
};

const NAMES: Record<string, string> = {
  echoCancellation: 'echo cancelling',
  noiseSuppression: 'noise suppression',
  autoGainControl: 'automatic gain',
};

function Regulated({ microphone, tone }: { microphone: Microphone; tone: Verdict | null }) {
  const { regulates } = microphone;
  const left = regulates.map((name) => NAMES[name] ?? name).join(', ');
  return (
    <p aria-live="polite" className={left || tone === 'levelled' ? 'text-short' : 'text-soft'}>
      {left
        ? `The browser could not switch off: ${left}. What is measured is not to be trusted.`
        : 'Echo cancelling, noise suppression and automatic gain are off.'}{' '}
      {tone && TOLD[tone]}
    </p>
  );
}

interface ResultProps {
  taken: Taken;
  step: MeasurePlanStep;
  several: boolean;
}

function Result({ taken: { read, level }, step, several }: ResultProps) {
  const late = read.arrives == null ? null : (read.arrives - LEAD) * 1e3;
  return (
    <div className="mt-2">
      {several && <h3 className="font-semibold">{`${level} dB`.replace('-', '−')}</h3>}
      {late !== null && (
        <p>Heard {late.toFixed(1)} ms after it was played: sound card and air; it is taken out.</p>
      )}
      {read.remarks.map((remark) => (
        <p key={remark} className="text-short">
          {remark}
        </p>
      ))}
      <TraceChart label={step.title} of={step.of} points={read.points} />
    </div>
  );
}
