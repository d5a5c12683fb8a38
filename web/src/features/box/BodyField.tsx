import { valueAt, withValue } from '../../model/design';
import { measure, preferredUnit } from '../../model/preferences';
import { fieldAt, usualUnit } from '../../model/units';
import type { FieldError, RawDesign, Typed } from '../../schema/types';
import { QuantityInput } from '../../ui/QuantityInput';
import { Term } from '../../ui/Term';

export interface Editing {
  design: RawDesign;
  errors: FieldError[];
  edit: (design: RawDesign, label: string) => void;
}

interface Props extends Editing {
  name: string;
  path: string;
  optional?: boolean;
  /** What it comes to where nothing is written, SI. */
  follows?: number | null | undefined;
  /** Whether it follows although a value is written. */
  led?: boolean;
  /** How a value is written; as any other place unless said. */
  write?: (typed: Typed | null) => RawDesign;
}

/** A value of the box with its name before it. */
export function BodyField({ design, errors, edit, name, path, optional = true, follows, led, write }: Props) {
  const field = fieldAt(path);
  const found =
    follows === null || follows === undefined
      ? undefined
      : measure(follows, preferredUnit(field) ?? usualUnit(field));
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-2">
      <span className="truncate">
        <Term name={name} />
      </span>
      <QuantityInput
        label={name}
        fields={[field]}
        typed={led ? null : valueAt(design, path)}
        follows={found}
        optional={optional}
        error={errors.find((error) => error.field === path)?.message}
        className="font-mono text-[0.929rem]"
        onType={(_, typed) => edit(write ? write(typed) : withValue(design, path, typed), name.toLowerCase())}
      />
    </div>
  );
}
