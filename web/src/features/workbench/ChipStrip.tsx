import { memo, Suspense, useRef, useState } from 'react';
import { useJudgement } from '../../api/queries/design';
import { NO_BRIEF } from '../../model/documents';
import { inWords } from '../../model/preferences';
import type { OnBench, Workbench } from '../../model/workbench';
import type { Check, RawBrief, RawDesign, Report } from '../../schema/types';
import { Button } from '../../ui/Button';
import { lazily } from '../../ui/lazily';
import { usePreferences } from '../../ui/observed';
import { FOLLOWED, useThrottled } from '../../ui/throttle';
import { type Chip, strip, type Verdict } from './figures';

const FigureCard = lazily(() => import('./FigureCard').then((part) => part.FigureCard));

const EDGE: Record<Verdict, string> = {
  met: 'border-l-met',
  careful: 'border-l-oak',
  short: 'border-l-short bg-short-wash',
  plain: 'border-l-rule-line',
};
const WORDS: Record<Verdict, string> = {
  met: 'text-met',
  careful: 'text-oak',
  short: 'text-short',
  plain: 'text-soft',
};

interface Props {
  report: Report;
  brief: RawBrief | null;
  /** How the active variant stands to the brief. */
  checks: Check[];
  /** The active one. */
  variant: string;
  workbench: Workbench;
  onBrief: () => void;
  /** Makes a new variant. */
  onTry: (design: RawDesign) => void;
  /** Takes another brief. */
  onChange: (brief: RawBrief) => void;
}

const NONE: Check[] = [];

/** The strip of a variant with its judgement; both follow a drag more calmly than its curves. */
export function JudgedStrip({
  report,
  variant,
  ...props
}: Omit<Props, 'checks' | 'variant'> & { variant: OnBench }) {
  const design = useThrottled(variant.design, FOLLOWED);
  // Without a brief there is still the box: whether it can be built as drawn.
  const checks = useJudgement(props.brief ?? NO_BRIEF, design).data ?? NONE;
  return (
    <ChipStrip {...props} report={useThrottled(report, FOLLOWED)} checks={checks} variant={variant.id} />
  );
}

/** What the brief asks and the active variant reaches, then other figures; each explains itself. */
const ChipStrip = memo(function ChipStrip(props: Props) {
  const { report, brief, checks, variant, workbench, onBrief, onTry, onChange } = props;
  usePreferences();
  const count = (wanted: Check['verdict']) => checks.filter(({ verdict }) => verdict === wanted).length;
  const [short, open] = [count('short'), count('unknown')];
  const [all, setAll] = useState(false);
  const chips = strip(report, checks);
  // A phone has room for what is short or open and the lowest note, and for its own stage below them.
  const waits = ({ verdict }: Chip, at: number) => at > 0 && (verdict === 'met' || verdict === 'plain');
  const waiting = chips.filter(waits).length;
  return (
    <ul aria-label="Figures" className="flex gap-1.5 border-line border-b px-4 py-2 max-lg:flex-wrap">
      <li>
        <button
          type="button"
          className="h-full w-[104px] rounded-[3px] border border-line bg-rule px-2 py-1 text-left hover:border-oak"
          onClick={onBrief}
        >
          <span className="block truncate text-[0.893rem] text-ink">The brief</span>
          <span className="block truncate font-bold text-[1.071rem] leading-tight">
            {brief ? 'Change' : 'Write it'}
          </span>
          <span
            className={`block truncate text-[0.893rem] ${!brief ? 'text-ink' : short ? 'text-short' : 'text-met'}`}
          >
            {brief && checks.length ? standing(short, open, checks.length) : 'what to reach'}
          </span>
        </button>
      </li>
      {chips.map((chip, at) => (
        <li
          key={chip.id}
          className={`min-w-0 flex-1 max-lg:min-w-36 ${waits(chip, at) && !all ? 'max-sm:hidden' : ''}`}
        >
          <Figure
            {...chip}
            variant={variant}
            workbench={workbench}
            brief={brief}
            onTry={onTry}
            onBrief={onChange}
          />
        </li>
      ))}
      {waiting > 0 && (
        <li className="flex sm:hidden">
          <Button aria-expanded={all} onClick={() => setAll(!all)}>
            {all ? 'Fewer figures' : `${waiting} more ${waiting === 1 ? 'figure' : 'figures'}`}
          </Button>
        </li>
      )}
    </ul>
  );
});

interface FigureProps extends Chip, Pick<Props, 'variant' | 'workbench' | 'brief' | 'onTry'> {
  onBrief: (brief: RawBrief) => void;
}

// Most chips stay as they are while a value is dragged.
const Figure = memo(function Figure(props: FigureProps) {
  const { variant, workbench, brief, onTry, onBrief, ...chip } = props;
  usePreferences();
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  return (
    <>
      <button
        ref={button}
        type="button"
        data-figure={chip.id}
        aria-haspopup="dialog"
        aria-expanded={open}
        className={`w-full rounded-[3px] border border-line border-l-4 bg-card px-2.5 py-1 text-left hover:border-oak ${EDGE[chip.verdict]}`}
        onClick={() => setOpen(!open)}
      >
        <span className="block truncate text-[0.893rem] text-soft">{chip.name}</span>
        <span
          className={`block truncate font-bold ${/\d/.test(chip.figure) ? 'text-[1.071rem] leading-tight xl:text-[1.214rem]' : 'text-[1rem] leading-[1.34rem] xl:leading-[1.518rem]'}`}
        >
          {inWords(chip.figure)}
        </span>
        <span className={`block truncate text-[0.893rem] ${WORDS[chip.verdict]}`}>{inWords(chip.words)}</span>
      </button>
      {open && (
        <Suspense fallback={null}>
          <FigureCard
            chip={chip}
            beside={button}
            variant={variant}
            workbench={workbench}
            brief={brief}
            onTry={onTry}
            onBrief={onBrief}
            onClose={() => setOpen(false)}
          />
        </Suspense>
      )}
    </>
  );
});

function standing(short: number, open: number, all: number): string {
  if (short) return `${short} of ${all} short`;
  return open ? `met, ${open} open` : 'all met';
}
