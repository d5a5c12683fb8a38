import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answered, api, Refusal } from '../../api/client';
import { useChange } from '../../api/queries';
import type { ColumnChoice, ColumnReport, ImportReport } from '../../api/types';
import { driverFields, shown, unitsOf } from '../../model/units';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { Select } from '../../ui/Select';

interface Props {
  file: File | null;
  onClose: () => void;
  onImported: (report: ImportReport) => void;
}

interface Ask {
  file: File;
  take: 'all' | 'good' | 'look';
  columns: ColumnChoice[] | null;
}

/** Sends a file to be looked at or taken. */
function send({ file, take, columns }: Ask): Promise<ImportReport> {
  const json = file.name.toLowerCase().endsWith('.json');
  return answered<ImportReport>(
    api.POST('/api/v1/drivers/import', {
      params: { query: { take, ...(columns ? { columns: JSON.stringify(columns) } : {}) } },
      body: file as unknown as string,
      bodySerializer: (body) => body,
      headers: { 'Content-Type': json ? 'application/json' : 'text/csv' },
    }),
  );
}

/** A file of drivers before it is taken: what each column means, what is wrong row by row, what is there already. */
export function ImportDialog({ file, onClose, onImported }: Props) {
  const [columns, setColumns] = useState<ColumnChoice[] | null>(null);
  const look = useMutation({ mutationFn: send });
  const take = useChange('drivers', send);
  const { mutate: lookAt, reset } = look;

  useEffect(() => {
    setColumns(null);
    if (file) lookAt({ file, take: 'look', columns: null });
    else reset();
  }, [file, lookAt, reset]);

  const report = look.data;
  const choose = (index: number, choice: ColumnChoice) => {
    if (!file || !report) return;
    const next = (columns ?? report.columns.map(asChoice)).map((old, at) => (at === index ? choice : old));
    setColumns(next);
    lookAt({ file, take: 'look', columns: next });
  };
  const taking = (how: 'all' | 'good') =>
    file && take.mutate({ file, take: how, columns }, { onSuccess: onImported });
  const refused = look.error instanceof Refusal ? look.error : null;
  return (
    <Dialog
      title={file ? `Import ${file.name}` : 'Import'}
      about="Nothing is imported until you confirm it."
      open={file !== null}
      onClose={onClose}
      wide
    >
      <div className="flex flex-col gap-3" aria-live="polite">
        {look.isPending && !report && <p className="text-soft">Reading …</p>}
        <Message error={refused ?? look.error ?? take.error} />
        {report && (
          <>
            <Verdict report={report} />
            {report.columns.length > 0 && <Columns report={report} onChoose={choose} />}
            {report.preview.length > 0 && <Preview report={report} />}
            <Problems report={report} />
            {report.alike.length > 0 && <Alike report={report} />}
          </>
        )}
        <div className="flex justify-end gap-2 border-line border-t pt-3">
          <Button onClick={onClose}>Back</Button>
          {report && report.problem_count > 0 && report.good > 0 && (
            <Button disabled={take.isPending} onClick={() => taking('good')}>
              Skip the bad rows and import {report.good}
            </Button>
          )}
          <Button
            look="strong"
            disabled={!report || report.problem_count > 0 || take.isPending}
            onClick={() => taking('all')}
          >
            {report && report.problem_count === 0 ? `Import all ${report.rows}` : 'Import all'}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}

function Verdict({ report }: { report: ImportReport }) {
  const bad = report.rows - report.good;
  return (
    <p className="font-semibold">
      {report.rows === 1 ? '1 row' : `${report.rows} rows`}, {report.good} can be taken
      {bad > 0 && <span className="text-short">, {bad} cannot</span>}.
    </p>
  );
}

function asChoice({ field, unit }: ColumnReport): ColumnChoice {
  return { field, unit };
}

const TEXTS = [
  ['name', 'Name'],
  ['maker', 'Maker'],
  ['coils', 'Coils'],
  ['frequency_range', 'Printed range'],
  ['tags', 'Tags'],
  ['notes', 'Notes'],
] as const;

const FIELDS: readonly (readonly [string, string])[] = [
  ['', 'leave out'],
  ...TEXTS,
  ...driverFields.map((field) => [field.path.slice('driver.'.length), field.symbol] as const),
];

function Columns({
  report,
  onChoose,
}: {
  report: ImportReport;
  onChoose: (index: number, choice: ColumnChoice) => void;
}) {
  return (
    <table className="w-full">
      <thead>
        <tr className="border-line border-b text-left">
          <th scope="col">Column</th>
          <th scope="col">First cells</th>
          <th scope="col">Means</th>
          <th scope="col">In</th>
        </tr>
      </thead>
      <tbody>
        {report.columns.map((column, index) => {
          const dimension = driverFields.find(({ path }) => path === `driver.${column.field}`)?.dimension;
          const units = dimension ? unitsOf(dimension) : [];
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns keep their places, and headers may repeat
            <tr key={index} className="border-grid border-b">
              <th scope="row" className="max-w-52 truncate py-0.5 text-left font-semibold">
                {column.header}
              </th>
              <td className="max-w-80 truncate font-mono text-[13px] text-soft">
                {column.samples.join('   ')}
              </td>
              <td className={column.field ? '' : 'text-soft'}>
                <Select
                  label={`What ${column.header} means`}
                  className="w-40"
                  value={column.field}
                  options={FIELDS}
                  onChange={(field) => onChoose(index, { field, unit: '' })}
                />
              </td>
              <td>
                {units.length > 1 && (
                  <Select
                    label={`Unit of ${column.header}`}
                    className="w-24"
                    value={column.unit}
                    options={units.map(({ symbol }) => [symbol, shown(symbol)] as const)}
                    onChange={(unit) => onChoose(index, { field: column.field, unit })}
                  />
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const SHOWN = ['size', 're', 'fs', 'qms', 'qes', 'qts', 'vas', 'sd', 'xmax', 'pe'] as const;

function Preview({ report }: { report: ImportReport }) {
  return (
    <section aria-label="The first drivers as they will be">
      <p className="text-soft">The first as they will be:</p>
      <table className="w-full text-[13px]">
        <thead>
          <tr className="border-line border-b text-left">
            <th scope="col">Name</th>
            {SHOWN.map((name) => (
              <th key={name} scope="col" className="text-right capitalize">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {report.preview.map((driver, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are only read, and names may repeat
            <tr key={index} className="border-grid border-b">
              <th scope="row" className="max-w-52 truncate text-left font-semibold">
                {driver.name}
              </th>
              {SHOWN.map((name) => (
                <td key={name} className="text-right font-mono">
                  {driver[name] == null ? '–' : shown(driver[name])}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Problems({ report }: { report: ImportReport }) {
  if (!report.problems.length) return null;
  return (
    <table className="w-full rounded-[3px] border border-short bg-short-wash">
      <caption className="text-left font-semibold text-short">
        What is wrong
        {report.problem_count > report.problems.length &&
          `, the first ${report.problems.length} of ${report.problem_count}`}
      </caption>
      <thead>
        <tr className="border-line border-b text-left">
          <th scope="col" className="pl-2">
            Line
          </th>
          <th scope="col">Driver</th>
          <th scope="col">Column</th>
          <th scope="col">What is wrong</th>
        </tr>
      </thead>
      <tbody>
        {report.problems.slice(0, 50).map((problem) => (
          <tr key={`${problem.line}${problem.field}${problem.message}`} className="align-top">
            <td className="pr-3 pl-2">{problem.line}</td>
            <td className="pr-3">{problem.name}</td>
            <td className="pr-3 font-mono text-[13px]">{problem.field}</td>
            <td>{problem.message}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Alike({ report }: { report: ImportReport }) {
  return (
    <details>
      <summary>{report.alike.length} are there already, or look like it. They are taken as well.</summary>
      <ul className="list-inside list-disc">
        {report.alike.map(({ name, like }, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows are only read, and names may repeat
          <li key={index}>
            <b>{name}</b> is like {like}
          </li>
        ))}
      </ul>
    </details>
  );
}
