import type { ReactNode } from 'react';
import { useAmplifierKinds } from '../../api/queries/signal';
import type {
  AmplifierKind,
  FieldError,
  RawAlignment,
  RawDesign,
  RawFilter,
  RawPart,
  RawPartWiring,
  Report,
  SignalReport,
} from '../../api/types';
import { inWords } from '../../model/preferences';
import { fieldAt, readTyped, significant } from '../../model/units';
import type { OnBench, Workbench } from '../../model/workbench';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { HelpText } from '../../ui/HelpText';
import { Icon } from '../../ui/Icon';
import { QuantityInput } from '../../ui/QuantityInput';
import { Select } from '../../ui/Select';
import type { Row } from '../workbench/groups';
import { Value } from '../workbench/ValueTapes';
import {
  asKind,
  FILTER_KINDS,
  filtersOf,
  hasGain,
  moved,
  partsOf,
  valuesOf,
  withFilters,
  withItem,
  withParts,
} from './filters';

interface Props {
  block: string;
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  signal: SignalReport | undefined;
  errors: FieldError[];
  onEdit: (design: RawDesign, label: string) => void;
  onSelect: (block: string) => void;
}

/** The chosen block: its values, what it does, and what is to be minded. */
export function BlockPanel(props: Props) {
  const [kind, index] = props.block.split('-');
  const at = Number(index);
  switch (kind) {
    case 'filter':
      return <FilterPanel key={at} at={at} {...props} />;
    case 'part':
      return <PartPanel key={at} at={at} {...props} />;
    case 'amplifier':
      return <AmplifierPanel {...props} />;
    case 'cable':
      return (
        <Titled title="Cable">
          <Values
            {...props}
            rows={[
              { name: 'Cable length', paths: ['driver_array.cable_length'], optional: true },
              {
                name: 'Cable core',
                paths: ['driver_array.cable_area'],
                follows: () => 2.5e-6,
                optional: true,
              },
              { name: 'Series resistance', paths: ['driver_array.series_resistance'], optional: true },
            ]}
          />
          {props.signal && (
            <p>
              {significant(props.signal.cable, 2)} Ω in all cost {props.signal.cable_loss.toFixed(1)} dB and
              raise Qes by as much. Length is one way; the current takes it twice.
            </p>
          )}
        </Titled>
      );
    case 'source':
      return <SourcePanel {...props} />;
    default:
      return <DriversPanel {...props} />;
  }
}

function Titled({ title, tools, children }: { title: string; tools?: ReactNode; children: ReactNode }) {
  return (
    <section aria-label={title} className="flex flex-col gap-2">
      <div className="flex items-center gap-1.5">
        <h2 className="flex-1 text-[1.071rem]">{title}</h2>
        {tools}
      </div>
      {children}
    </section>
  );
}

function Values({ rows, plain = true, ...props }: Props & { rows: Row[]; plain?: boolean }) {
  return (
    <HelpText otherwise="">
      {(explain) => (
        <div className={plain ? 'flex flex-wrap gap-x-3 gap-y-[3px]' : 'flex flex-col gap-[3px]'}>
          {rows.map((row) => (
            <Value key={row.paths[0]} row={row} plain={plain} explain={explain} {...props} />
          ))}
        </div>
      )}
    </HelpText>
  );
}

function SourcePanel(props: Props) {
  return (
    <Titled title="Signal">
      <Values {...props} plain={false} rows={[DRIVE]} />
      <p>
        What is played at where no filter changes it: all that the amplifier gives, unless it is set here. The
        Drive lane shows what the filters make of it.
      </p>
      {props.signal && (
        <p className="text-soft">
          The cone begins to beam at {significant(props.signal.beams, 2)} Hz (ka = 1): cross over well below.
        </p>
      )}
    </Titled>
  );
}

const DRIVE: Row = {
  name: 'Drive',
  paths: ['signal.drive.power', 'signal.drive.voltage'],
  follows: (report) => report.volts,
  optional: true,
};

function DriversPanel({ report, signal }: Props) {
  if (!report || !signal) return null;
  const { impedance_minimum: lowest } = report.figures;
  return (
    <Titled title="Drivers">
      <p>
        {report.used.count === 1 ? 'One driver' : `${report.used.count} drivers`},{' '}
        {significant(signal.amplifier.load, 3)} Ω nominal; the lowest impedance is{' '}
        {significant(lowest.value, 3)} Ω at {significant(lowest.frequency, 2)} Hz. The Impedance lane shows it
        at every frequency, passive parts included. Wire coils and drivers under Curves, Drivers.
      </p>
    </Titled>
  );
}

const ALIGNMENTS: readonly (readonly [RawAlignment, string])[] = [
  ['butterworth', 'Butterworth'],
  ['linkwitz_riley', 'Linkwitz-Riley'],
  ['bessel', 'Bessel'],
  ['bessel_phase', 'Bessel (phase)'],
];

const ORDERS = [1, 2, 3, 4, 5, 6, 7, 8];

function FilterPanel({ at, ...props }: Props & { at: number }) {
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

function AmplifierPanel(props: Props) {
  const { variant, signal, onEdit } = props;
  const { design } = variant;
  const kinds = useAmplifierKinds();
  const choose = (kind: AmplifierKind | undefined) => {
    if (!kind) return;
    const [eight, four, two] = kind.power;
    const amplifier = {
      ...(eight != null && { power_8: `${eight} W` }),
      ...(four != null && { power_4: `${four} W` }),
      ...(two != null && { power_2: `${two} W` }),
      minimum_load: `${kind.minimum_load} ohm`,
      output_resistance: `${kind.output_resistance} ohm`,
    };
    onEdit({ ...design, signal: { ...design.signal, amplifier } }, 'amplifier');
  };
  const own = design.signal?.amplifier;
  return (
    <Titled
      title="Amplifier"
      tools={
        own && (
          <Button
            onClick={() => {
              const { amplifier: _, ...signal } = design.signal ?? {};
              onEdit({ ...design, signal }, 'amplifier of the brief');
            }}
          >
            As in the brief
          </Button>
        )
      }
    >
      <Select
        label="Kind of amplifier"
        value=""
        options={[
          [
            '',
            own ? 'Values from another kind …' : 'The amplifier of the brief; choose another kind …',
          ] as const,
          ...(kinds.data ?? []).map(({ id, name }) => [id, name] as const),
        ]}
        onChange={(id) => choose(kinds.data?.find((kind) => kind.id === id))}
      />
      <Values
        {...props}
        rows={[
          { name: 'Into 8 Ω', paths: ['signal.amplifier.power_8'], optional: true },
          { name: 'Into 4 Ω', paths: ['signal.amplifier.power_4'], optional: true },
          { name: 'Into 2 Ω', paths: ['signal.amplifier.power_2'], optional: true },
          {
            name: 'Into this load',
            paths: ['signal.amplifier.power', 'signal.amplifier.voltage'],
            optional: true,
          },
          { name: 'Current', paths: ['signal.amplifier.current'], optional: true },
          { name: 'Minimum load', paths: ['signal.amplifier.minimum_load'], optional: true },
          { name: 'Output resistance', paths: ['signal.amplifier.output_resistance'], optional: true },
        ]}
      />
      <ul className="flex flex-col gap-1.5">
        {signal?.amplifier.verdicts.map(({ name, met, words }) => (
          <li
            key={name}
            className={`rounded-[3px] border px-2 py-1 ${met === false ? 'border-short bg-short-wash' : 'border-line bg-card'}`}
          >
            <b className={met === false ? 'text-short' : met ? 'text-met' : ''}>
              {name}: {met === false ? 'not enough' : met ? 'suits' : 'look'}
            </b>{' '}
            {inWords(words)}
          </li>
        ))}
      </ul>
      <p className="text-[0.929rem] text-soft">
        Mains inside a plate amplifier: follow the maker's instructions and local codes, and leave mains
        wiring to a licensed electrician.
      </p>
    </Titled>
  );
}

const WIRINGS: readonly (readonly [RawPartWiring, string])[] = [
  ['series', 'In series'],
  ['across', 'Across'],
  ['trap', 'Trap'],
];

function PartPanel({ at, ...props }: Props & { at: number }) {
  const { variant, signal, errors, onEdit, onSelect } = props;
  const { design } = variant;
  const parts = partsOf(design);
  const part = parts[at];
  if (!part) return null;
  const put = (next: RawPart, label = 'passive part') =>
    onEdit(withParts(design, withItem(parts, at, next)), label);
  const place = (name: string) => `signal.parts[${at}].${name}`;
  const error = errors.find(({ field }) => field === `signal.parts[${at}]`);
  const said = signal?.parts[at];
  return (
    <Titled
      title={`Part ${at + 1}`}
      tools={
        <>
          <Button
            aria-pressed={part.bypassed ?? false}
            onClick={() => put({ ...part, bypassed: !part.bypassed }, 'bypass')}
          >
            {part.bypassed ? 'Bypassed' : 'Bypass'}
          </Button>
          <Button
            aria-label="Remove this part"
            onClick={() => {
              onEdit(withParts(design, withItem(parts, at, null)), 'part removed');
              onSelect(parts.length > 1 ? `part-${Math.max(0, at - 1)}` : 'amplifier');
            }}
          >
            <Icon name="close" />
          </Button>
        </>
      }
    >
      <Choice
        label="Wiring of the part"
        value={part.wiring}
        options={WIRINGS}
        onChange={(wiring) => put({ ...part, wiring })}
      />
      <Values
        {...props}
        rows={[
          { name: 'R', paths: [place('resistance')], optional: true },
          { name: 'L', paths: [place('inductance')], optional: true },
          { name: 'DCR', paths: [place('coil_resistance')], optional: true },
          { name: 'C', paths: [place('capacitance')], optional: true },
          { name: 'ESR', paths: [place('capacitor_resistance')], optional: true },
        ]}
      />
      {error && (
        <p role="alert" className="text-short">
          {error.message}
        </p>
      )}
      {said && !part.bypassed && (
        <p>
          {inWords(said.name)}: up to {significant(said.heat, 2)} W of heat at {significant(said.heat_at, 2)}{' '}
          Hz with a sine of this drive, {significant(said.programme_heat, 2)} W with the programme;{' '}
          {significant(said.current, 2)} A peak.
        </p>
      )}
      {said && said.sold.length > 0 && (
        <div className="flex flex-wrap items-center gap-1.5">
          <span className="text-soft">Sold:</span>
          {said.sold.map(({ field, e12, e24 }) => (
            <span key={field} className="inline-flex gap-1">
              <Button aria-label={`${e12} (E12)`} onClick={() => put({ ...part, [field]: e12 })}>
                {e12} <span className="text-soft">E12</span>
              </Button>
              {e24 !== e12 && (
                <Button aria-label={`${e24} (E24)`} onClick={() => put({ ...part, [field]: e24 })}>
                  {e24} <span className="text-soft">E24</span>
                </Button>
              )}
            </span>
          ))}
        </div>
      )}
    </Titled>
  );
}
