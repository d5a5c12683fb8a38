import { dayOf } from '../../model/moment';
import { inWords } from '../../model/preferences';
import type { BuildPlan } from '../../schema/types';
import { money } from './sheet';

/** What the plan comes to, in one line. */
export function PlanSummary({ plan }: { plan: BuildPlan }) {
  const { cost, budget, mass, hours, cabinets, ends } = plan;
  const over = cost != null && budget != null && cost > budget;
  return (
    <p className="flex flex-wrap gap-x-4 text-[0.929rem]">
      <span>
        Cost <b className="font-mono">{money(cost)}</b>
        {budget != null && (
          <span className={over ? 'text-short' : 'text-met'}>
            {' '}
            of {money(budget)}
            {over ? ', over budget' : ''}
          </span>
        )}
      </span>
      <span>
        {cabinets > 1 ? 'Each ' : ''}
        <b className="font-mono">{inWords(`${mass.toFixed(1)} kg`)}</b>
      </span>
      <span>
        Work <b className="font-mono">{hours.toFixed(0)} h</b>
        {cabinets > 1 ? ` for ${cabinets}` : ''}
      </span>
      {ends && (
        <span>
          Done <b>{dayOf(ends)}</b>
        </span>
      )}
    </p>
  );
}
