import { askPlanFile } from '../../api/queries/plan';
import { clockOf, dayOf, localDay } from '../../model/moment';
import { inWords } from '../../model/preferences';
import { AS_USUAL, editWorkshop, workshopOn } from '../../model/workshop';
import { Button } from '../../ui/Button';
import { save } from '../../ui/download';
import { Scroll } from '../../ui/Scroll';
import type { SheetProps } from './sheet';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const USUAL = [2, 2, 2, 2, 2, 6, 6];

/** The steps in the hours that are free, with what dries in between. */
export function CalendarSheet({ plan, question, workbench, variant, bench }: SheetProps) {
  const workshop = workshopOn(bench) ?? AS_USUAL;
  const { start, hours = USUAL } = workshop as { start?: string | null; hours?: number[] };
  const days = [...new Set(plan.calendar.map(({ from }) => from.slice(0, 10)))];
  const exported = () =>
    askPlanFile(question, 'calendar').then((text) =>
      save(`${variant.design.name}.ics`, new Blob([text], { type: 'text/calendar' })),
    );
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-1">
        <label className="flex flex-col text-[0.857rem] text-soft">
          Begin
          <input
            type="date"
            className="field font-mono text-ink"
            value={start ?? question.today}
            min="2000-01-01"
            max="2199-12-31"
            onChange={(event) => editWorkshop(workbench, { start: event.target.value || null }, 'calendar')}
          />
        </label>
        <fieldset className="flex flex-wrap gap-1.5">
          <legend className="text-[0.857rem] text-soft">Free hours</legend>
          {DAYS.map((day, at) => (
            <label key={day} className="flex flex-col items-center text-[0.857rem]">
              <input
                type="number"
                min={0}
                max={24}
                step={0.5}
                aria-label={`Free hours on ${day}`}
                className="field w-14 text-right font-mono"
                value={hours[at] ?? 0}
                onChange={(event) => {
                  const next = [...hours];
                  next[at] = Math.min(24, Math.max(0, event.target.valueAsNumber || 0));
                  if (next.some((one) => one > 0)) editWorkshop(workbench, { hours: next }, 'calendar');
                }}
              />
              {day}
            </label>
          ))}
        </fieldset>
        <p className="min-w-40 flex-1 text-[0.929rem] text-soft">
          Evenings begin at six, long days at nine. Steps that are ticked are left out; the rest moves.
        </p>
        <Button onClick={() => void exported()}>Calendar (.ics)</Button>
      </div>
      <Scroll label="Calendar" className="min-h-0 flex-1 overflow-y-auto pr-1 pb-2">
        {!days.length && <p>Everything is done.</p>}
        <ol className="columns-1 gap-8 lg:columns-2">
          {days.map((day) => (
            <li key={day} className="break-inside-avoid pb-2">
              <h3 className="border-line border-b font-semibold">
                {dayOf(`${day}T12:00:00`)}
                {day === localDay(new Date()) ? ', today' : ''}
              </h3>
              <ul>
                {plan.calendar
                  .filter(({ from }) => from.startsWith(day))
                  .map(({ step, title, from, to, goes_on, waits }) => (
                    <li key={`${step} ${from}`} className="flex gap-2.5 text-[0.929rem]">
                      <span className="whitespace-nowrap font-mono text-soft">
                        {clockOf(from)}–{clockOf(to)}
                      </span>
                      <span>
                        {inWords(title)}
                        {goes_on ? ' (goes on)' : ''}
                        {waits && (
                          <span className="block text-[0.857rem] text-soft">
                            {inWords(String(waits[0]))} until {dayOf(String(waits[1]))},{' '}
                            {clockOf(String(waits[1]))}
                          </span>
                        )}
                      </span>
                    </li>
                  ))}
              </ul>
            </li>
          ))}
        </ol>
      </Scroll>
    </>
  );
}
