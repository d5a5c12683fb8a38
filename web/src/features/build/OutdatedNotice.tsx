import { dayOf } from '../../model/moment';
import { inWords } from '../../model/preferences';
import type { Workbench } from '../../model/workbench';
import { printedNow } from '../../model/workshop';
import type { BuildPlan } from '../../schema/types';
import { Button } from '../../ui/Button';

const SHOWN = 6;

/** Which printed pages say something else than the design does now, and what keeps it from being built as planned. */
export function OutdatedNotice({ plan, workbench }: { plan: BuildPlan; workbench: Workbench }) {
  const { outdated, faults } = plan;
  if (!outdated.length && !faults.length) return null;
  return (
    <div role="status" className="rounded-[3px] border border-short bg-card px-3 py-1.5 text-[0.929rem]">
      {faults.length > 0 && (
        <ul className="text-short">
          {faults.map((fault) => (
            <li key={fault}>{inWords(fault[0]?.toUpperCase() + fault.slice(1))}.</li>
          ))}
        </ul>
      )}
      {outdated.map(({ page, at, changed }) => (
        <div key={page} className="flex flex-wrap items-baseline gap-x-3">
          <p>
            <b>
              The {page} printed on {dayOf(at)} is out of date.
            </b>{' '}
            {changed
              .slice(0, SHOWN)
              .map(([what, then, now]) => inWords(`${what}: ${then} → ${now}`))
              .join('; ')}
            {changed.length > SHOWN ? `; and ${changed.length - SHOWN} more` : ''}
          </p>
          <Button onClick={() => printedNow(workbench, page, plan.says, new Date())}>Printed again</Button>
        </div>
      ))}
    </div>
  );
}
