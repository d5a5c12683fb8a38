import { useMutation, useQueryClient } from '@tanstack/react-query';
import { addDriver } from '../../api/queries/library';
import { actOnRig, useRig } from '../../api/queries/measure';
import { plusMinus } from '../../model/measurements';
import { inWords } from '../../model/preferences';
import type { BoxRemedy, Finding, MeasuringReport, RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { usePreferences } from '../../ui/observed';
import { DriverFits } from './DriverFits';
import { AngleTable, LinearityTable } from './LinearityTable';

interface Props {
  report: MeasuringReport;
  /** What is drawn beside what was measured. */
  foretold: string | null;
  onForetell: (id: string | null) => void;
  onTry: (design: RawDesign) => void;
  /** Takes a remedy: its steps into the log, its design on the shelf. */
  onRemedy: (remedy: BoxRemedy) => void;
  onPlan: () => void;
}

/** What the measurements say, and what would fix the box. */
export function FindingsPanel({ report, foretold, onForetell, onTry, onRemedy, onPlan }: Props) {
  usePreferences();
  const { findings, remedies, tunings, by_hand, as_found, answer } = report;
  return (
    <div className="flex flex-col gap-3">
      <ul aria-label="Findings" className="flex flex-col gap-1.5">
        {findings.map((finding) => (
          <FindingLine key={`${finding.id} ${finding.words}`} finding={finding} />
        ))}
      </ul>
      {remedies.length > 0 && (
        <section aria-labelledby="remedies">
          <h3 id="remedies" className="font-semibold">
            Ways to fix it, the easiest first
          </h3>
          <ol className="mt-1 flex flex-col gap-2">
            {remedies.map((remedy) => (
              <li key={remedy.id}>
                <RemedyCard
                  remedy={remedy}
                  act={actOf(remedy, answer.port_cut_mm?.value ?? null)}
                  shown={foretold === remedy.id}
                  onShow={(next) => onForetell(next ? remedy.id : null)}
                  onTake={() => onRemedy(remedy)}
                  onPlan={onPlan}
                />
              </li>
            ))}
          </ol>
        </section>
      )}
      {as_found && (
        <Adopt
          design={as_found}
          driver={as_found.driver.sources?.fs?.kind === 'measured'}
          shown={foretold === 'as_found'}
          onShow={(next) => onForetell(next ? 'as_found' : null)}
          onTry={onTry}
        />
      )}
      {tunings.length > 0 && (
        <table className="w-full text-[0.929rem]">
          <caption className="text-left font-semibold">
            The tuning by several ways, each somewhere else
          </caption>
          <tbody>
            {tunings.map(({ id, way, hz, about }) => (
              <tr key={id} className="border-line border-t align-top">
                <th scope="row" className="py-0.5 pr-3 text-left font-medium">
                  {way}
                </th>
                <td className="whitespace-nowrap py-0.5 pr-3 text-right font-mono">{hz.toFixed(1)} Hz</td>
                <td className="py-0.5 text-soft">{about}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {report.linearity.map((one) => (
        <LinearityTable key={`${one.of} ${one.driver}`} one={one} />
      ))}
      {report.angles.length > 0 && <AngleTable angles={report.angles} />}
      {by_hand.length > 0 && <DriverFits drivers={by_hand} />}
      {answer.notes.length > 0 && (
        <details>
          <summary className="cursor-pointer text-soft">Notes of the fit</summary>
          <ul className="list-disc pl-5 text-[0.929rem] text-soft">
            {answer.notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

const LOOKS: Record<Finding['verdict'], { sign: string; name: string; look: string }> = {
  look: { sign: '!', name: 'Look at this', look: 'border-short bg-short-wash text-short' },
  good: { sign: '✓', name: 'Good', look: 'border-met text-met' },
  note: { sign: 'i', name: 'Note', look: 'border-rule-line text-ink' },
  open: { sign: '?', name: 'Open', look: 'border-line text-soft' },
};

function FindingLine({ finding: { verdict, title, words, sure } }: { finding: Finding }) {
  const { sign, name, look } = LOOKS[verdict];
  return (
    <li className="flex gap-2">
      <span
        role="img"
        aria-label={name}
        className={`mt-0.5 flex size-5 shrink-0 items-center justify-center rounded-full border font-bold text-[0.857rem] ${look}`}
      >
        {sign}
      </span>
      <p className="min-w-0">
        <b>{title}.</b> {inWords(words)}
        {sure && (
          <span className="text-soft">
            {' '}
            {sure[0]?.toUpperCase()}
            {sure.slice(1)}.
          </span>
        )}
      </p>
    </li>
  );
}

/** What a simulated measuring box is told for a remedy; null where it knows nothing like it. */
export function actOf({ id, by }: Pick<BoxRemedy, 'id' | 'by'>, cut: number | null): string | null {
  if (id === 'seal') return 'act seal';
  if (id === 'swap') return 'act swap';
  if (id === 'port' && cut !== null) return `act cut ${cut.toFixed(1)}`;
  const litres = Number.parseFloat(by);
  if (id === 'block' && Number.isFinite(litres)) return `act block ${litres}`;
  if (id === 'fill' && Number.isFinite(litres)) return `act block ${-litres}`;
  return null;
}

interface RemedyProps {
  remedy: BoxRemedy;
  act: string | null;
  shown: boolean;
  onShow: (shown: boolean) => void;
  onTake: () => void;
  onPlan: () => void;
}

function RemedyCard({ remedy, act, shown, onShow, onTake, onPlan }: RemedyProps) {
  const { title, by, words, steps, outcome, design } = remedy;
  const rig = useRig();
  const done = useMutation({
    mutationFn: (command: string) => actOnRig(command),
    onSuccess: () => {
      onTake();
      onPlan();
    },
  });
  const then = [
    outcome.tuning && `${plusMinus(outcome.tuning)} Hz`,
    outcome.qtc != null && `Qtc ${outcome.qtc.toFixed(2)}`,
    outcome.f3 != null && `−3 dB at ${outcome.f3.toFixed(1)} Hz`,
  ].filter(Boolean);
  return (
    <article className="rounded-[3px] border border-rule-line bg-card px-3 py-2">
      <h4 className="font-semibold">{inWords(title)}</h4>
      <p className="text-[0.929rem]">
        By: {inWords(by)}. Then, in the air of the design: <b className="font-mono">{then.join(', ')}</b>
      </p>
      <p>{inWords(words)}</p>
      <ol className="mt-1 list-decimal pl-5 text-[0.929rem]">
        {steps.map((step) => (
          <li key={step}>{inWords(step)}</li>
        ))}
      </ol>
      <div className="mt-1.5 flex flex-wrap gap-2">
        <Button aria-pressed={shown} onClick={() => onShow(!shown)}>
          {shown ? 'Hide its lines' : 'Show its lines'}
        </Button>
        <Button look="strong" onClick={onTake}>
          {design ? 'Make it a variant' : 'Note it in the log'}
        </Button>
        {rig.data?.simulated && act && (
          <Button disabled={done.isPending} onClick={() => done.mutate(act)}>
            Do it to the simulated box
          </Button>
        )}
      </div>
      {!design && (
        <p className="mt-1 text-soft">
          The design stays as it is: do it, then measure the finished box again. What was measured before is
          kept.
        </p>
      )}
      <Message error={done.error} />
    </article>
  );
}

interface AdoptProps {
  design: RawDesign;
  driver: boolean;
  shown: boolean;
  onShow: (shown: boolean) => void;
  onTry: (design: RawDesign) => void;
}

/** What was measured, taken over into a design or into the library. */
function Adopt({ design, driver, shown, onShow, onTry }: AdoptProps) {
  const client = useQueryClient();
  const add = useMutation({
    mutationFn: () => addDriver(named(design)),
    onSuccess: () => client.invalidateQueries({ queryKey: ['drivers'] }),
  });
  return (
    <section aria-labelledby="adopt">
      <h3 id="adopt" className="font-semibold">
        Take over what was measured
      </h3>
      <p className="text-[0.929rem] text-soft">
        A new variant with the driver, losses, volume and port as they were found: its curves are those of the
        box that stands there.
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <Button aria-pressed={shown} onClick={() => onShow(!shown)}>
          {shown ? 'Hide its lines' : 'Show its lines'}
        </Button>
        <Button onClick={() => onTry(design)}>New variant as measured</Button>
        {driver && (
          <Button disabled={add.isPending || add.isSuccess} onClick={() => add.mutate()}>
            {add.isSuccess ? 'In the library' : 'Driver into the library'}
          </Button>
        )}
      </div>
      <Message error={add.error} />
    </section>
  );
}

/** The measured driver, told apart from its sheet by its name. */
function named({ driver }: RawDesign): RawDesign['driver'] {
  const on = driver.sources?.fs?.on ?? '';
  return { ...driver, name: `${driver.name}, measured ${on}`.trim().slice(0, 120) };
}
