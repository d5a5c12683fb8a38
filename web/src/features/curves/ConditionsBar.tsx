import { useConditions } from '../../api/conditions';
import type { Shown } from '../../lanes/shown';
import { conditions, conditionsOf } from '../../model/conditions';
import { Choice } from '../../ui/Choice';

/** In which conditions everything on the page stands, and the switch between them. */
export function ConditionsBar({ shown }: { shown: readonly Pick<Shown, 'name' | 'report'>[] }) {
  const asked = useConditions();
  const words = conditionsOf(shown);
  return (
    <div className="flex min-w-0 items-center gap-2 pb-1">
      <div className="sm:shrink-0">
        <Choice
          label="Conditions"
          value={asked.conditions}
          options={[
            ['in_use', asked.brief ? 'As the brief uses it' : 'As set here'],
            ['bench', 'On the bench'],
          ]}
          onChange={(wanted) => conditions.set({ conditions: wanted })}
        />
      </div>
      <p className="min-w-0 sm:truncate" title={words} data-conditions="">
        {words}
      </p>
    </div>
  );
}
