import { Tooltip } from 'radix-ui';
import { memo } from 'react';
import type { Check, RawBrief, Report } from '../../api/types';
import { strip, type Verdict } from './figures';

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
  onBrief: () => void;
}

/** What the brief asks and the active variant reaches, then other figures; each explains itself. */
export const ChipStrip = memo(function ChipStrip({ report, brief, checks, onBrief }: Props) {
  const count = (wanted: Check['verdict']) => checks.filter(({ verdict }) => verdict === wanted).length;
  const [short, open] = [count('short'), count('unknown')];
  return (
    <ul aria-label="Figures" className="flex gap-1.5 border-line border-b px-4 py-2">
      <li>
        <button
          type="button"
          className="h-full w-[104px] rounded-[3px] border border-line bg-rule px-2 py-1 text-left hover:border-oak"
          onClick={onBrief}
        >
          <span className="block truncate text-[12.5px] text-ink">The brief</span>
          <span className="block truncate font-bold text-[15px] leading-tight">
            {brief ? 'Change' : 'Write it'}
          </span>
          <span
            className={`block truncate text-[12.5px] ${short ? 'text-short' : checks.length ? 'text-met' : 'text-ink'}`}
          >
            {checks.length ? standing(short, open, checks.length) : 'what to reach'}
          </span>
        </button>
      </li>
      {strip(report, checks).map((chip) => (
        <li key={chip.id} className="min-w-0 flex-1">
          <Tooltip.Root>
            <Tooltip.Trigger asChild>
              <button
                type="button"
                data-figure={chip.id}
                className={`w-full rounded-[3px] border border-line border-l-4 bg-card px-2.5 py-1 text-left ${EDGE[chip.verdict]}`}
              >
                <span className="block truncate text-[12.5px] text-soft">{chip.name}</span>
                <span className="block truncate font-bold text-[15px] leading-tight xl:text-[17px]">
                  {chip.figure}
                </span>
                <span className={`block truncate text-[12.5px] ${WORDS[chip.verdict]}`}>{chip.words}</span>
              </button>
            </Tooltip.Trigger>
            <Tooltip.Portal>
              <Tooltip.Content
                sideOffset={4}
                collisionPadding={8}
                className="z-50 max-w-72 rounded border border-ink bg-ink px-2.5 py-1.5 text-paper shadow-lg"
              >
                {chip.meaning}
              </Tooltip.Content>
            </Tooltip.Portal>
          </Tooltip.Root>
        </li>
      ))}
    </ul>
  );
});

function standing(short: number, open: number, all: number): string {
  if (short) return `${short} of ${all} short`;
  return open ? `met, ${open} open` : 'all met';
}
