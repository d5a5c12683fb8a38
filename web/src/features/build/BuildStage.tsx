import { type ComponentType, useState } from 'react';
import { usePlan, usePlanQuestion } from '../../api/queries/plan';
import { localDay } from '../../model/moment';
import { progressOn } from '../../model/workshop';
import { useInAddress } from '../../ui/address';
import { Choice } from '../../ui/Choice';
import { Message } from '../../ui/Message';
import { usePreferences } from '../../ui/observed';
import { FOLLOWED, useThrottled } from '../../ui/throttle';
import type { StageProps } from '../shell/stages';
import { CalendarSheet } from './CalendarSheet';
import { HolesSheet } from './HolesSheet';
import { LayoutSheet } from './LayoutSheet';
import { LogSheet } from './LogSheet';
import { OutdatedNotice } from './OutdatedNotice';
import { PanelsSheet } from './PanelsSheet';
import { PartsSheet } from './PartsSheet';
import { PlanSummary } from './PlanSummary';
import { PrintMenu } from './PrintMenu';
import { StepsSheet } from './StepsSheet';
import type { SheetProps } from './sheet';
import { WorkshopSheet } from './WorkshopSheet';

const SHEETS: readonly { id: string; name: string; Sheet: ComponentType<SheetProps> }[] = [
  { id: 'parts', name: 'Parts', Sheet: PartsSheet },
  { id: 'panels', name: 'Panels', Sheet: PanelsSheet },
  { id: 'sheets', name: 'Sheets', Sheet: LayoutSheet },
  { id: 'holes', name: 'Holes', Sheet: HolesSheet },
  { id: 'steps', name: 'Steps', Sheet: StepsSheet },
  { id: 'calendar', name: 'Calendar', Sheet: CalendarSheet },
  { id: 'log', name: 'Log', Sheet: LogSheet },
  { id: 'workshop', name: 'Workshop', Sheet: WorkshopSheet },
];

/** What is bought, cut and done to build the active variant. */
export function BuildStage({ variant, workbench, bench, brief, build, onRefresh }: StageProps) {
  usePreferences();
  const design = useThrottled(variant.design, FOLLOWED);
  const [today] = useState(() => localDay(new Date()));
  const question = usePlanQuestion(design, progressOn(bench), today);
  const answer = usePlan(question);
  const [shown, show] = useInAddress(
    'show',
    SHEETS.map(({ id }) => id),
  );
  const plan = answer.data;
  const Sheet = SHEETS.find(({ id }) => id === shown)?.Sheet ?? PartsSheet;
  return (
    <section
      aria-label="Build"
      className="mx-auto flex min-h-0 w-full max-w-[104rem] flex-1 flex-col gap-1.5 px-4 pt-2 pb-1"
    >
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <Choice
          label="Sheet"
          value={shown}
          options={SHEETS.map(({ id, name }) => [id, name] as const)}
          onChange={show}
        />
        {plan && <PlanSummary plan={plan} />}
        {plan && (
          <PrintMenu plan={plan} question={question} workbench={workbench} variant={variant} shown={shown} />
        )}
      </div>
      <Message error={answer.error} />
      {plan === null && <p>A baffle has no box: there is nothing to build but its board.</p>}
      <h2 className="sr-only">{SHEETS.find(({ id }) => id === shown)?.name}</h2>
      {plan && (
        <>
          <OutdatedNotice plan={plan} workbench={workbench} />
          <Sheet
            plan={plan}
            question={question}
            variant={variant}
            workbench={workbench}
            bench={bench}
            brief={brief}
            build={build}
            onShow={show}
            onRefresh={onRefresh}
            error={answer.error}
          />
        </>
      )}
    </section>
  );
}
