import { fieldAt } from '../../model/units';
import type { FieldError, RawAmplifier, RawFilter, SignalReport } from '../../schema/types';
import { Button } from '../../ui/Button';
import { QuantityInput } from '../../ui/QuantityInput';
import { kindName, withItem } from './filters';

interface Props {
  amplifier: RawAmplifier | null | undefined;
  said: SignalReport['built_in'];
  errors: FieldError[];
  onEdit: (amplifier: RawAmplifier, label: string) => void;
}

/** What amplifiers have built in: a low-pass, a subsonic filter, one band. */
const USUAL: readonly (readonly [string, RawFilter])[] = [
  ['Low-pass', { kind: 'low_pass', frequency: '120 Hz', order: 4 }],
  ['Subsonic filter', { kind: 'high_pass', frequency: '20 Hz', order: 4 }],
  ['One band', { kind: 'parametric', frequency: '40 Hz', gain: '-3 dB', q: 1.4 }],
];
const MOST = 4;

/** Filters that the amplifier has built in: they always play, and no processor can take them out. */
export function BuiltInFilters({ amplifier, said, errors, onEdit }: Props) {
  const filters = amplifier?.filters ?? [];
  const put = (next: RawFilter[]) => {
    const { filters: _, ...rest } = amplifier ?? {};
    onEdit(next.length ? { ...rest, filters: next } : rest, 'built-in filter');
  };
  return (
    <details open={filters.length > 0 || undefined}>
      <summary>Built-in filters</summary>
      <ul aria-label="Built-in filters" className="flex flex-col gap-1.5 py-1">
        {filters.map((filter, at) => {
          const value = (name: 'frequency' | 'gain' | 'q' | 'order') => {
            const field = fieldAt(`signal.filters.${name}`);
            return (
              <QuantityInput
                key={name}
                label={`${kindName(filter.kind)}, ${field.symbol}`}
                fields={[field]}
                typed={filter[name] ?? null}
                error={
                  errors.find((error) => error.field === `signal.amplifier.filters[${at}].${name}`)?.message
                }
                className="w-24 font-mono text-[0.929rem]"
                onType={(_, typed) => put(withItem(filters, at, { ...filter, [name]: typed }))}
              />
            );
          };
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: filters have no other name
            <li key={at} className="flex flex-wrap items-center gap-1.5">
              <b className="w-28">{kindName(filter.kind)}</b>
              {value('frequency')}
              {filter.kind === 'parametric' ? [value('gain'), value('q')] : value('order')}
              <Button
                aria-label={`Remove the built-in ${kindName(filter.kind)}`}
                onClick={() => put(withItem(filters, at, null))}
              >
                Remove
              </Button>
              {said[at]?.effect && (
                <span className="w-full text-[0.929rem] text-soft">{said[at].effect}</span>
              )}
              {said[at]?.caution && <span className="w-full text-short">{said[at].caution}</span>}
            </li>
          );
        })}
      </ul>
      {filters.length < MOST && (
        <p className="flex flex-wrap gap-1.5">
          {USUAL.map(([name, filter]) => (
            <Button key={name} onClick={() => put([...filters, filter])}>
              {name}
            </Button>
          ))}
        </p>
      )}
    </details>
  );
}
