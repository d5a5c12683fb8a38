import { siAt, valueAt, withValue } from '../../model/design';
import { type Field, fieldAt } from '../../model/units';
import type { OnBench, Workbench } from '../../model/workbench';
import type { FieldError, RawDesign, Report, Typed } from '../../schema/types';
import { type HelpProps, HelpText } from '../../ui/HelpText';
import { Tape } from '../../ui/Tape';
import type { Group, Kind, Row } from './groups';
import { KindChoices } from './Kinds';

interface Props {
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  errors: FieldError[];
}

interface GroupProps extends Props {
  group: Group;
  onChoose: (next: RawDesign, label: string) => void;
}

/** The values of one group. */
export function ValueTapes({ group, onChoose, ...props }: GroupProps) {
  return (
    <HelpText otherwise="Drag a rule, press the arrow keys (Shift for ten steps), or type a value with its unit.">
      {(explain) => (
        <div className="mb-1 flex flex-col gap-[3px]">
          {group.ruled.map((row) => (
            <Value key={row.paths[0]} row={row} explain={explain} {...props} />
          ))}
          <div className="flex flex-wrap gap-x-3 gap-y-[3px]">
            {group.plain
              .filter(({ advanced }) => !advanced)
              .map((row) => (
                <Value key={row.paths[0]} row={row} plain explain={explain} {...props} />
              ))}
          </div>
          <Advanced
            rows={group.plain.filter(({ advanced }) => advanced)}
            ends={group.kinds.filter(({ of }) => of === 'inner_end')}
            onChoose={onChoose}
            explain={explain}
            {...props}
          />
        </div>
      )}
    </HelpText>
  );
}

interface AdvancedProps extends Props, Pick<GroupProps, 'onChoose'> {
  rows: Row[];
  ends: Kind[];
  explain: (field: Field) => HelpProps;
}

/** What stays as it usually is, until it is wanted or refused. */
function Advanced({ rows, ends, onChoose, explain, ...props }: AdvancedProps) {
  const names = [...rows.map(({ name }) => midSentence(name)), ...ends.map(() => 'inner end of the port')];
  if (!names.length) return null;
  const refused = props.errors.some(({ field }) => rows.some(({ paths }) => paths.includes(field)));
  return (
    <details open={refused || undefined}>
      <summary className="text-[0.929rem] text-soft">Advanced: {names.join(', ')}</summary>
      <div className="flex flex-wrap gap-x-3 gap-y-[3px] pt-[3px]">
        {rows.map((row) => (
          <Value key={row.paths[0]} row={row} plain explain={explain} {...props} />
        ))}
        {ends.map((kind) => (
          <KindChoices
            key={JSON.stringify(kind)}
            design={props.variant.design}
            kind={kind}
            onChange={onChoose}
          />
        ))}
      </div>
    </details>
  );
}

/** A name within a line; one word alone is a symbol, and stays. */
function midSentence(name: string): string {
  return name.includes(' ') ? name.charAt(0).toLowerCase() + name.slice(1) : name;
}

export interface ValueProps extends Props {
  row: Row;
  plain?: boolean;
  explain: (field: Field) => HelpProps;
}

/** One value of a design, wherever it stands. */
export function Value({ row, plain, explain, variant, workbench, report, errors }: ValueProps) {
  const { design, id } = variant;
  if (report && row.hidden?.(report)) return null;
  const led = report && row.led?.(report);
  const typedAt = led ? undefined : row.paths.find((path) => valueAt(design, path) !== null);
  const place = typedAt ?? row.paths[0];
  const given = typedAt ? valueAt(design, place) : null;
  const fields = [place, ...row.paths.filter((path) => path !== place)].map(fieldAt) as [Field, ...Field[]];
  const si = given === null ? report && row.follows?.(report) : siAt(design, place);
  const targetOf = (field: Field) => place.replace(/\w+$/, field.path.split('.').at(-1) ?? '');
  const set = (field: Field, typed: Typed | null) =>
    workbench.preview(id, withValue(design, targetOf(field), typed));
  return (
    <div data-path={place} {...explain(fields[0])}>
      <Tape
        key={id}
        name={row.name}
        fields={fields}
        typed={given}
        si={si ?? null}
        plain={plain}
        optional={row.optional}
        error={errors.find((error) => row.paths.includes(error.field))?.message}
        onPreview={set}
        onType={(field, typed) => {
          set(field, typed);
          workbench.commit(row.name);
        }}
        onCommit={() => workbench.commit(row.name)}
      />
    </div>
  );
}
