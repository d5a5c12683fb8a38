import { type ReactNode, useDeferredValue, useState } from 'react';
import { Refusal } from '../../api/client';
import { useCompletion, useSheet } from '../../api/queries/library';
import { driverFields, fieldAt, shown, usualUnit, writeTyped } from '../../model/units';
import type { RawDriver, SheetReading, SheetValue, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { QuantityInput } from '../../ui/QuantityInput';
import { Table } from '../../ui/Table';
import { Term } from '../../ui/Term';
import { TextInput } from '../../ui/TextInput';

interface Props {
  text: string;
  onText: (text: string) => void;
  onUse: (driver: RawDriver) => void;
}

const EXAMPLE = 'Fs 28 Hz\nRe 3.6 ohm\nQms 5.4   Qes 0.38\nVas 63 l\nSd 346 cm²\nXmax 11.5 mm';

/** A data sheet as text, with what is found in it beside where it stands. */
export function Sheet({ text, onText, onUse }: Props) {
  const reading = useSheet(useDeferredValue(text));
  return (
    <div className="flex flex-col gap-2">
      <label className="block">
        <span className="text-soft">
          Paste or type its data sheet as it is: any order, any units, decimal point or comma.
        </span>
        <textarea
          className="field mt-1 h-36 w-full resize-y font-mono text-[0.929rem]"
          aria-label="Data sheet"
          placeholder={EXAMPLE}
          maxLength={20_000}
          value={text}
          spellCheck={false}
          // biome-ignore lint/a11y/noAutofocus: the page was opened to paste
          autoFocus
          onChange={(event) => onText(event.target.value)}
        />
      </label>
      <Message error={reading.error} />
      {reading.data && text.trim() && <Found key={reading.data.text} {...reading.data} onUse={onUse} />}
    </div>
  );
}

function Found({ text, reading, onUse }: { text: string; reading: SheetReading; onUse: Props['onUse'] }) {
  const [driver, setDriver] = useState<RawDriver>({
    ...reading.driver,
    name: reading.driver.name || 'My woofer',
  });
  const completion = useCompletion(driver);
  if (!reading.found.length)
    return (
      <p className="text-soft">
        No values of a woofer were found in this. A data sheet has at least three of Fs, Re, Qts, Vas, Sd and
        the like.
      </p>
    );
  const refusal = completion.error instanceof Refusal ? completion.error : null;
  const put = (field: string, typed: Typed | null) =>
    setDriver(({ [field as 'fs']: _, ...rest }) =>
      typed === null ? (rest as RawDriver) : ({ ...rest, [field]: typed } as RawDriver),
    );
  const typedOf = (field: string) => (driver[field as keyof RawDriver] as Typed | undefined) ?? null;
  const missing = (refusal?.document.errors ?? []).filter(({ field }) => field && typedOf(field) === null);
  const report = refusal ? undefined : completion.data;
  const input = (name: string) => {
    const field = fieldAt(`driver.${name}`);
    return (
      <QuantityInput
        label={field.symbol}
        fields={[field]}
        typed={typedOf(name)}
        error={typedOf(name) === null ? undefined : refusal?.errorOf(name)}
        optional
        className="w-[7rem] font-mono text-[0.929rem]"
        onType={(_, typed) => put(name, typed)}
      />
    );
  };
  return (
    <>
      <Table
        caption="Found in the text; correct what is wrong"
        rows={reading.found}
        keyOf={({ field }) => field}
        columns={[
          {
            name: 'Value',
            names: true,
            cell: ({ field }) => <Term name={fieldAt(`driver.${field}`).symbol} />,
          },
          {
            name: 'Stands as',
            className: 'max-w-48 truncate',
            cell: (value) => <Stands text={text} value={value} />,
          },
          { name: 'Taken as', cell: ({ field }) => input(field) },
          { name: 'Note', className: 'text-soft', cell: ({ note }) => note },
        ]}
      />
      {reading.left.map((words) => (
        <p key={words} className="text-short">
          Not taken: {words}.
        </p>
      ))}
      {missing.length > 0 && (
        <fieldset className="rounded-[3px] border border-short px-3 py-2">
          <legend className="px-1 font-semibold text-short">Still needed</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1.5">
            {missing
              .filter(({ field }) => driverFields.some(({ path }) => path === `driver.${field}`))
              .map(({ field }) => (
                <span key={field} className="flex items-center gap-1.5">
                  <span aria-hidden="true">{fieldAt(`driver.${field}`).symbol}</span> {input(field)}
                </span>
              ))}
          </div>
          {missing.map(({ field, message }) => (
            <p key={field + message} className="text-[0.929rem] text-soft">
              {message}
            </p>
          ))}
        </fieldset>
      )}
      {report && (
        <p className="text-[0.929rem] text-soft">
          Worked out from these:{' '}
          {(['qts', 'vas', 'mms', 'bl', 'cms'] as const)
            .filter((name) => typedOf(name) === null)
            .map((name) => {
              const field = fieldAt(`driver.${name}`);
              return `${field.symbol} ${shown(writeTyped(report[name], usualUnit(field), 3))}`;
            })
            .join(', ')}
          .
        </p>
      )}
      {[...(report?.doubts ?? []), ...(report?.hints ?? [])].map(({ field, message }) => (
        <p key={field + message} className="text-short">
          {message}
        </p>
      ))}
      <div className="flex flex-wrap items-center gap-2">
        <TextInput
          label="Name of the woofer"
          value={driver.name ?? ''}
          longest={120}
          className="w-56"
          onChange={(name) => setDriver({ ...driver, name })}
        />
        <Button look="strong" disabled={!report} onClick={() => onUse(driver)}>
          Use this woofer
        </Button>
      </div>
    </>
  );
}

/** The piece of the text that a value was read from, within its line. */
function Stands({ text, value }: { text: string; value: SheetValue }): ReactNode {
  const [from, to] = [value.at[0] ?? 0, value.at[1] ?? 0];
  const start = text.lastIndexOf('\n', from - 1) + 1;
  const line = text.indexOf('\n', to);
  const end = line < 0 ? text.length : line;
  const before = text.slice(Math.max(start, from - 24), from).trimStart();
  return (
    <span className="font-mono text-[0.893rem]">
      <span className="text-soft">{before}</span>
      <mark className="bg-rule text-ink">{text.slice(from, to)}</mark>
      <span className="text-soft">{text.slice(to, Math.min(end, to + 12))}</span>
    </span>
  );
}
