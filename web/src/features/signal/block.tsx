import type { ReactNode } from 'react';
import { inWords } from '../../model/preferences';
import type { OnBench, Workbench } from '../../model/workbench';
import type { FieldError, RawDesign, Report, SignalReport } from '../../schema/types';
import { HelpText } from '../../ui/HelpText';
import type { Row } from '../workbench/groups';
import { Value } from '../workbench/ValueTapes';

/** What every panel of a block is given. */
export interface BlockProps {
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  signal: SignalReport | undefined;
  errors: FieldError[];
  onEdit: (design: RawDesign, label: string) => void;
  onSelect: (block: string) => void;
}

/** A block by its name, with what can be done to it as a whole. */
export function Titled({
  title,
  tools,
  children,
}: {
  title: string;
  tools?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="flex flex-col gap-2">
      <div className="flex items-center gap-1.5">
        <h2 className="flex-1 text-[1.071rem]">{title}</h2>
        {tools}
      </div>
      {children}
    </section>
  );
}

interface ValuesProps extends Pick<BlockProps, 'variant' | 'workbench' | 'report' | 'errors'> {
  rows: readonly Row[];
  plain?: boolean;
}

/** Some values of a design. */
export function Values({ rows, plain = true, variant, workbench, report, errors }: ValuesProps) {
  const props = { variant, workbench, report, errors };
  return (
    <HelpText otherwise="">
      {(explain) => (
        <div className={plain ? 'flex flex-wrap gap-x-3 gap-y-[3px]' : 'flex flex-col gap-[3px]'}>
          {rows.map((row) => (
            <Value key={row.paths[0]} row={row} plain={plain} explain={explain} {...props} />
          ))}
        </div>
      )}
    </HelpText>
  );
}

/** One thing about an amplifier after another. */
export function Verdicts({ verdicts }: { verdicts: SignalReport['amplifier']['verdicts'] }) {
  return (
    <ul className="flex flex-col gap-1.5">
      {verdicts.map(({ name, met, words }) => (
        <li
          key={name}
          className={`rounded-[3px] border px-2 py-1 ${met === false ? 'border-short bg-short-wash' : 'border-line bg-card'}`}
        >
          <b className={met === false ? 'text-short' : met ? 'text-met' : ''}>
            {name}: {met === false ? 'does not suit' : met ? 'suits' : 'look'}
          </b>{' '}
          {inWords(words)}
        </li>
      ))}
    </ul>
  );
}
