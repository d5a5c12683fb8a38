import { useEffect, useState } from 'react';
import { Refusal } from '../../api/client';
import { useAlike, useCompletion } from '../../api/queries/library';
import { same } from '../../model/design';
import { driverFields, type Field, fieldAt, shown, usualUnit, writeTyped } from '../../model/units';
import type { DriverReport, RawDriver, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { type HelpProps, HelpText } from '../../ui/HelpText';
import { Message } from '../../ui/Message';
import { QuantityInput } from '../../ui/QuantityInput';
import { Select } from '../../ui/Select';
import { TextInput } from '../../ui/TextInput';
import { SourceMark } from './SourceMark';
import { adopted, takenBack, withValue } from './source';

interface Props {
  initial: RawDriver;
  submit: string;
  busy: boolean;
  error: unknown;
  onSubmit: (driver: RawDriver) => void;
  onCancel: () => void;
  /** Told whether something was changed. */
  onTouched?: (touched: boolean) => void;
}

const COILS = [
  ['single', 'one coil'],
  ['dual_series', 'two, values for both in series'],
  ['dual_parallel', 'two, values for both in parallel'],
  ['dual_each', 'two, Re, Le, Z and Bl of each coil'],
] as const;

/** What is kept about a driver and has no source. */
const RECORD = new Set(['price', 'on_hand']);

/** Values that nothing else determines. */
const NEEDED = new Set(['re', 'fs', 'sd']);

/** Of the coil's impedance beyond Le: few sheets have it, and few boxes need it. */
const ADVANCED = new Set(['l2', 'r2', 'inductance_exponent']);
const [ADVANCED_FIELDS, FIELDS] = [true, false].map((advanced) =>
  driverFields.filter(({ path }) => ADVANCED.has(path.slice('driver.'.length)) === advanced),
) as [Field[], Field[]];

type Name = keyof DriverReport & keyof RawDriver;

/** A driver from its data sheet. What is left out is worked out from the rest as one types. */
export function DriverForm({ initial, submit, busy, error, onSubmit, onCancel, onTouched }: Props) {
  const [driver, setDriver] = useState(initial);
  const completion = useCompletion(driver);
  const refusal = completion.error instanceof Refusal ? completion.error : null;
  const touched = !same(driver, initial);
  useEffect(() => onTouched?.(touched), [touched, onTouched]);
  const settled = !completion.isFetching;
  const [wanted, setWanted] = useState(false);
  const report = refusal ? undefined : completion.data;

  // Leaving the last field for the button begins a completion; what is sent waits for it.
  useEffect(() => {
    if (!wanted || !settled) return;
    setWanted(false);
    if (report) onSubmit(driver);
  }, [wanted, settled, report, driver, onSubmit]);

  const set = (name: string, typed: Typed | string | null) => setDriver(withValue(driver, name, typed));
  const toldAs = (name: string) => {
    const given = driver[name as keyof RawDriver] !== undefined;
    return given ? refusal?.errorOf(name) : undefined;
  };

  const alike = useAlike(driver, Boolean(report && driver.name && settled && touched));
  const others = alike.data?.filter(({ name }) => name !== initial.name) ?? [];

  const text = (name: 'name' | 'maker' | 'notes' | 'frequency_range', label: string, longest: number) => (
    <div>
      <span aria-hidden="true" className="block text-soft">
        {label}
      </span>
      <TextInput
        label={label}
        value={driver[name] ?? ''}
        longest={longest}
        optional
        className="w-full"
        onChange={(written) => set(name, written)}
      />
    </div>
  );

  const value = (field: Field, explain: (field: Field) => HelpProps) => {
    const name = field.path.slice('driver.'.length);
    return (
      <div key={name} className="grid grid-cols-[6.5rem_1fr_3.4rem] items-center gap-1.5" {...explain(field)}>
        <span aria-hidden="true">
          {field.symbol}
          {NEEDED.has(name) && <b className="text-oak"> *</b>}
        </span>
        <QuantityInput
          label={field.symbol}
          fields={[field]}
          typed={(driver[name as keyof RawDriver] as Typed | null | undefined) ?? null}
          follows={report ? following(report, name as Name, field) : undefined}
          error={toldAs(name)}
          optional
          onType={(_, typed) => set(name, typed)}
        />
        {driver[name as keyof RawDriver] !== undefined && !RECORD.has(name) && (
          <SourceMark driver={driver} name={name} symbol={field.symbol} onChange={setDriver} />
        )}
      </div>
    );
  };

  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        // What is refused in a field stands nowhere but there.
        const refused = event.currentTarget.querySelector<HTMLElement>('[aria-invalid="true"]');
        refused?.closest('details')?.setAttribute('open', '');
        if (refused) refused.focus();
        else setWanted(true);
      }}
    >
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        {text('name', 'Name', 120)}
        {text('maker', 'Maker', 120)}
      </div>
      <p className="text-soft">
        Needed: Re, Fs, Sd (marked *), two of Qms, Qes, Qts, and one of Vas, Cms, Mms, Bl. Write units as the
        sheet does, such as 1.5 cuft, 11 in or 350 cm²; a bare number takes the unit shown.
      </p>
      <HelpText otherwise="Go into a field to read what it means.">
        {(explain) => (
          <div className="mb-2 grid grid-cols-[minmax(0,1fr)] sm:grid-cols-[repeat(3,minmax(0,1fr))] gap-x-5 gap-y-2">
            {FIELDS.map((field) => value(field, explain))}
            <details
              className="col-span-full"
              open={ADVANCED_FIELDS.some(({ path }) => isSet(initial, path)) || undefined}
            >
              <summary className="text-soft">Advanced: semi-inductance (L2, R2, n)</summary>
              <div className="grid grid-cols-[minmax(0,1fr)] gap-x-5 gap-y-2 pt-2 sm:grid-cols-[repeat(3,minmax(0,1fr))]">
                {ADVANCED_FIELDS.map((field) => value(field, explain))}
              </div>
            </details>
          </div>
        )}
      </HelpText>
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-[14rem_1fr]">
        <div>
          <span aria-hidden="true" className="block text-soft">
            Coils
          </span>
          <Select
            label="Coils"
            className="w-full"
            value={driver.coils ?? 'single'}
            options={COILS}
            onChange={(coils) => set('coils', coils)}
          />
        </div>
        {text('notes', 'Notes', 10_000)}
      </div>
      <div className="grid grid-cols-1 gap-3 sm:grid-cols-2">
        <div>
          <span aria-hidden="true" className="block text-soft">
            Tags, separated by commas
          </span>
          <TextInput
            label="Tags, separated by commas"
            value={driver.tags?.join(', ') ?? ''}
            longest={500}
            optional
            className="w-full"
            onChange={(written) => {
              const tags = written.split(',').map((tag) => tag.trim());
              setDriver({ ...driver, tags: [...new Set(tags.filter(Boolean))] });
            }}
          />
        </div>
        {text('frequency_range', 'Printed frequency range (noted, never used: the box decides)', 120)}
      </div>
      <div aria-live="polite" className="min-h-12">
        {report && <Derived report={report} driver={driver} onChange={setDriver} />}
        {others.length > 0 && (
          <p>
            Very similar to{' '}
            {others
              .map(({ name, by }) => `${name} (${by === 'name' ? 'same name' : 'same values'})`)
              .join(', ')}{' '}
            in the library.
          </p>
        )}
        {refusal && touched && <StillWanted refusal={refusal} driver={driver} />}
        <Message error={completion.error && !refusal ? completion.error : null} />
      </div>
      <Message error={error} />
      <div className="flex justify-end gap-2">
        <Button onClick={onCancel}>Back</Button>
        <Button look="strong" type="submit" disabled={(settled && !report) || busy}>
          {submit}
        </Button>
      </div>
    </form>
  );
}

function isSet(driver: RawDriver, path: string): boolean {
  return driver[path.slice('driver.'.length) as keyof RawDriver] != null;
}

/** What a value comes to that was not typed. */
function following(report: DriverReport, name: Name, field: Field): string | undefined {
  const value = report[name];
  return typeof value === 'number' ? shown(writeTyped(value, usualUnit(field), 4)) : undefined;
}

interface DerivedProps {
  report: DriverReport;
  driver: RawDriver;
  onChange: (driver: RawDriver) => void;
}

function Derived({ report, driver, onChange }: DerivedProps) {
  const taken = Object.entries(driver.sources ?? {}).filter(([, source]) => source.was != null);
  return (
    <>
      <p>
        Qts <b>{report.qts.toFixed(3)}</b>, Vas <b>{(report.vas * 1e3).toFixed(1)} l</b>, Mms{' '}
        <b>{(report.mms * 1e3).toFixed(1)} g</b>, Bl <b>{report.bl.toFixed(2)} T m</b>,{' '}
        <b>{report.level_2v83.toFixed(1)} dB</b> for 2.83 V at 1 m, efficiency{' '}
        <b>{(report.eta0 * 100).toFixed(2)} %</b>, Fs/Qes <b>{report.ebp.toFixed(0)} Hz</b>. Values with a
        dashed frame follow from the rest.
      </p>
      {report.doubts.map((doubt) => (
        <p key={doubt.field} className="text-short">
          {doubt.message}
        </p>
      ))}
      {report.hints.map((hint) => (
        <p key={hint.field} className="text-short">
          {hint.message}
          {hint.value != null && (
            <Button
              onClick={() => onChange(adopted(driver, hint.field, written(hint.field, hint.value ?? 0)))}
            >
              Take {fieldAt(`driver.${hint.field}`).symbol} {shown(written(hint.field, hint.value))}
            </Button>
          )}
        </p>
      ))}
      {report.doubts.length > 0 && (
        <p className="flex flex-wrap items-center gap-2">
          {report.reconciling.length
            ? 'One value alone would put everything in agreement:'
            : 'No single value puts everything in agreement; at least two are off, or the sheet is of two drivers.'}
          {report.reconciling.map(({ field, value }) => {
            const typed = written(field, value);
            return (
              <Button key={field} onClick={() => onChange(adopted(driver, field, typed))}>
                Take {fieldAt(`driver.${field}`).symbol} {shown(typed)}
              </Button>
            );
          })}
        </p>
      )}
      {report.reconciling.map(
        ({ field, slip }) =>
          slip && (
            <p key={field} className="text-short">
              {fieldAt(`driver.${field}`).symbol}: {slip}.
            </p>
          ),
      )}
      {taken.map(([name, source]) => (
        <p key={name} className="flex items-center gap-2">
          {fieldAt(`driver.${name}`).symbol} was {shown(source.was ?? '')}.
          <Button onClick={() => onChange(takenBack(driver, name))}>Undo that</Button>
        </p>
      ))}
    </>
  );
}

function written(name: string, value: number): Typed {
  return writeTyped(value, usualUnit(fieldAt(`driver.${name}`)), 4);
}

/** Problems of fields that are empty or that stand between fields; the others are shown where they are. */
function StillWanted({ refusal, driver }: { refusal: Refusal; driver: RawDriver }) {
  const open = (refusal.document.errors ?? []).filter(
    ({ field }) => !field || driver[field as keyof RawDriver] === undefined || field === 'name',
  );
  if (!open.length) return null;
  return (
    <ul className="list-inside list-disc text-soft">
      {open.map(({ field, message }) => (
        <li key={field + message}>
          {field && <b className="capitalize">{field} </b>}
          {message}
        </li>
      ))}
    </ul>
  );
}
