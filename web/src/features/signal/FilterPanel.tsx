import { inWords } from '../../model/preferences';
import { fieldAt, readTyped, significant } from '../../model/units';
import type { RawAlignment, RawFilter } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Icon } from '../../ui/Icon';
import { QuantityInput } from '../../ui/QuantityInput';
import { Select } from '../../ui/Select';
import { type BlockProps, Titled, Values } from './block';
import { asKind, FILTER_KINDS, filtersOf, hasGain, moved, valuesOf, withFilters, withItem } from './filters';

const ALIGNMENTS: readonly (readonly [RawAlignment, string])[] = [
  ['butterworth', 'Butterworth'],
  ['linkwitz_riley', 'Linkwitz-Riley'],
  ['bessel', 'Bessel'],
  ['bessel_phase', 'Bessel (phase)'],
];

const ORDERS = [1, 2, 3, 4, 5, 6, 7, 8];

/** One filter. */
export function FilterPanel({ at, ...props }: BlockProps & { at: number }) {
  const { variant, workbench, signal, errors, onEdit, onSelect } = props;
  const { design } = variant;
  const filters = filtersOf(design);
  const filter = filters[at];
  if (!filter) return null;
  const put = (next: RawFilter, label = 'filter') =>
    onEdit(withFilters(design, withItem(filters, at, next)), label);
  const pass = filter.kind === 'high_pass' || filter.kind === 'low_pass';
  const shelf = filter.kind === 'low_shelf' || filter.kind === 'high_shelf';
  const place = (name: string) => `signal.filters[${at}].${name}`;
  const error = errors.find(({ field }) => field === place('order') || field === place('trace'));
  const move = (by: -1 | 1) => {
    onEdit(withFilters(design, moved(filters, at, by)), 'order of the filters');
    onSelect(`filter-${Math.min(Math.max(at + by, 0), filters.length - 1)}`);
  };
  const said = signal?.filters[at];
  return (
    <Titled
      title={`Filter ${at + 1}`}
      tools={
        <>
          <Button look="quiet" disabled={at === 0} onClick={() => move(-1)}>
            Earlier
          </Button>
          <Button look="quiet" disabled={at === filters.length - 1} onClick={() => move(1)}>
            Later
          </Button>
          <Button
            aria-pressed={filter.bypassed ?? false}
            onClick={() => put({ ...filter, bypassed: !filter.bypassed }, 'bypass')}
          >
            {filter.bypassed ? 'Bypassed' : 'Bypass'}
          </Button>
          <Button
            aria-label="Remove this filter"
            onClick={() => {
              onEdit(withFilters(design, withItem(filters, at, null)), 'filter removed');
              onSelect(filters.length > 1 ? `filter-${Math.max(0, at - 1)}` : 'amplifier');
            }}
          >
            <Icon name="close" />
          </Button>
        </>
      }
    >
      <div className="flex flex-wrap items-center gap-1.5">
        <Select
          label="Kind of filter"
          className="max-w-48"
          value={filter.kind}
          options={filter.kind === 'measured' ? [['measured', 'As measured']] : FILTER_KINDS}
          onChange={(kind) => put(asKind(filter, kind, signal?.sealed ?? null))}
        />
        {pass && (
          <>
            <Select
              label="Alignment"
              className="max-w-40"
              value={filter.alignment ?? 'butterworth'}
              options={ALIGNMENTS}
              onChange={(alignment) =>
                put({
                  ...filter,
                  alignment,
                  // A Linkwitz-Riley filter has an even order.
                  order:
                    alignment === 'linkwitz_riley'
                      ? Math.max(2, 2 * Math.round(Number(filter.order ?? 2) / 2))
                      : (filter.order ?? 2),
                })
              }
            />
            <Select
              label="Slope"
              className="max-w-36"
              value={String(filter.order ?? 2)}
              options={ORDERS.filter((order) => filter.alignment !== 'linkwitz_riley' || order % 2 === 0).map(
                (order) => [String(order), `${6 * order} dB/octave`] as const,
              )}
              onChange={(order) => put({ ...filter, order: Number(order) })}
            />
          </>
        )}
        {shelf && (
          <Choice
            label="Order of the shelf"
            value={Number(filter.order ?? 2) < 2 ? '1' : '2'}
            options={[
              ['1', '1st order'],
              ['2', '2nd order'],
            ]}
            onChange={(order) => put({ ...filter, order: Number(order) })}
          />
        )}
      </div>
      <Values
        {...props}
        plain={false}
        rows={valuesOf(filter).map(({ name, field, optional }) => ({
          name,
          paths: [place(field)],
          ...(optional && { optional }),
        }))}
      />
      {hasGain(filter) && (
        <Gain
          filter={filter}
          error={errors.find(({ field }) => field === place('gain'))?.message}
          onPreview={(next) =>
            workbench.preview(variant.id, withFilters(design, withItem(filters, at, next)))
          }
          onCommit={() => workbench.commit('Gain')}
        />
      )}
      {filter.kind === 'linkwitz_transform' && signal?.sealed && (
        <p className="text-soft">
          This box has Fc {significant(signal.sealed[0] ?? 0, 4)} Hz, Qtc{' '}
          {significant(signal.sealed[1] ?? 0, 3)}.
        </p>
      )}
      {error && (
        <p role="alert" className="text-short">
          {error.message}
        </p>
      )}
      {said && !filter.bypassed && (
        <p>
          {inWords(said.name)}: {inWords(said.effect)}.
        </p>
      )}
      {said?.caution && (
        <p className="rounded-[3px] border border-short bg-short-wash px-2 py-1 text-short">
          {inWords(said.caution)}
        </p>
      )}
    </Titled>
  );
}

/** Step of the arrow keys, dB. */
const STEP = 0.5;

interface GainProps {
  filter: RawFilter;
  error: string | undefined;
  onPreview: (next: RawFilter) => void;
  onCommit: () => void;
}

function Gain({ filter, error, onPreview, onCommit }: GainProps) {
  const field = fieldAt('signal.filters[0].gain');
  const now = readTyped(filter.gain, 'level')?.si ?? 0;
  return (
    <div className="grid grid-cols-[5.6rem_7.6rem_1fr] items-center gap-2">
      <span aria-hidden="true">Gain</span>
      <QuantityInput
        label="Gain"
        fields={[field]}
        typed={filter.gain ?? null}
        error={error}
        className="font-mono text-[0.929rem]"
        onType={(_, gain) => {
          if (gain === null) return;
          onPreview({ ...filter, gain });
          onCommit();
        }}
        onArrow={(steps) => onPreview({ ...filter, gain: `${Number((now + STEP * steps).toFixed(1))} dB` })}
        onLeave={onCommit}
      />
      <span className="text-[0.929rem] text-soft">{now > 0 ? 'boosts' : now < 0 ? 'cuts' : ''}</span>
    </div>
  );
}
