import { useConditions } from '../../api/conditions';
import type { Shown } from '../../lanes/shown';
import { conditions, conditionsOf } from '../../model/conditions';
import type { Bench, HeardKind, Kept, Workbench } from '../../model/workbench';
import { Choice } from '../../ui/Choice';
import { Select } from '../../ui/Select';

interface Props {
  shown: readonly Pick<Shown, 'name' | 'report'>[];
  bench: Bench;
  workbench: Workbench;
}

/** In which conditions everything on the page stands, and the switches between them. */
export function ConditionsBar({ shown, bench, workbench }: Props) {
  const asked = useConditions();
  const words = conditionsOf(shown);
  const basis = asked.conditions.basis ?? 'in_use';
  return (
    <div className="flex min-w-0 items-center gap-2 pb-1 max-sm:flex-wrap">
      <div className="shrink-0">
        <Choice
          label="Conditions"
          value={basis}
          options={[
            ['in_use', asked.brief ? 'As the brief uses it' : 'As set here'],
            ['bench', 'On the bench'],
          ]}
          onChange={(wanted) => conditions.set({ basis: wanted })}
        />
      </div>
      {basis === 'in_use' && (
        <>
          <Chosen kind="preset" label="Preset" none="no preset" bench={bench} workbench={workbench} />
          <Chosen kind="place" label="Heard in" none="no place" bench={bench} workbench={workbench} />
        </>
      )}
      <p className="min-w-0 sm:truncate" title={words} data-conditions="">
        {words}
      </p>
    </div>
  );
}

interface ChosenProps {
  kind: HeardKind;
  label: string;
  none: string;
  bench: Bench;
  workbench: Workbench;
}

/** What it is played through, or where it is heard; nothing where the build keeps none. */
function Chosen({ kind, label, none, bench, workbench }: ChosenProps) {
  const all = bench.kept.filter((one) => one.kind === kind && !one.archived);
  if (!all.length) return null;
  const nameOf = ({ content }: Kept) => (content as { name: string }).name;
  return (
    <span className="flex shrink-0">
      <Select
        label={label}
        value={bench.listening[kind] ?? ''}
        options={[['', none] as const, ...all.map((one) => [one.id, nameOf(one)] as const)]}
        className="max-w-44"
        onChange={(id) => workbench.listen({ [kind]: id || null })}
      />
    </span>
  );
}
