import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answered, api, Refusal } from '../../api/client';
import { useChange } from '../../api/queries/shared';
import { driverFields, shown, unitsOf } from '../../model/units';
import type { ColumnChoice, ColumnReport, ImportReport, RawDriver } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';

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

function unitsFor(field: string) {
  const dimension = driverFields.find(({ path }) => path === `driver.${field}`)?.dimension;
  return dimension ? unitsOf(dimension) : [];
}

function Columns({
  report,
  onChoose,
}: {
  report: ImportReport;
  onChoose: (index: number, choice: ColumnChoice) => void;
}) {
  return (
    <Table
      className="text-[1rem]"
      rows={report.columns}
      keyOf={(_, at) => at}
      columns={[
        {
          name: 'Column',
          names: true,
          className: 'max-w-52 truncate py-0.5 font-semibold',
          cell: ({ header }) => header,
        },
        {
          name: 'First cells',
          className: 'max-w-80 truncate font-mono text-[0.929rem] text-soft',
          cell: ({ samples }) => samples.join('   '),
        },
        {
          name: 'Means',
          className: ({ field }) => (field ? '' : 'text-soft'),
          cell: ({ header, field }, at) => (
            <Select
              label={`What ${header} means`}
              className="w-40"
              value={field}
              options={FIELDS}
              onChange={(chosen) => onChoose(at, { field: chosen, unit: '' })}
            />
          ),
        },
        {
          name: 'In',
          cell: ({ header, field, unit }, at) => {
            const units = unitsFor(field);
            return (
              units.length > 1 && (
                <Select
                  label={`Unit of ${header}`}
                  className="w-24"
                  value={unit}
                  options={units.map(({ symbol }) => [symbol, shown(symbol)] as const)}
                  onChange={(chosen) => onChoose(at, { field, unit: chosen })}
                />
              )
            );
          },
        },
      ]}
    />
  );
}

const SHOWN = ['size', 're', 'fs', 'qms', 'qes', 'qts', 'vas', 'sd', 'xmax', 'pe'] as const;

function Preview({ report }: { report: ImportReport }) {
  return (
    <section aria-label="The first drivers as they will be">
      <p className="text-soft">The first as they will be:</p>
      <Table
        rows={report.preview}
        keyOf={(_, at) => at}
        columns={[
          {
            name: 'Name',
            names: true,
            className: 'max-w-52 truncate font-semibold',
            cell: ({ name }) => name,
          },
          ...SHOWN.map((field) => ({
            name: field,
            heading: <span className="capitalize">{field}</span>,
            kind: 'figure' as const,
            cell: (driver: RawDriver) => (driver[field] == null ? '–' : shown(driver[field])),
          })),
        ]}
      />
    </section>
  );
}

function Problems({ report }: { report: ImportReport }) {
  if (!report.problems.length) return null;
  return (
    <Table
      className="rounded-[3px] border border-short bg-short-wash text-[1rem]"
      caption={
        <b className="text-short">
          What is wrong
          {report.problem_count > report.problems.length &&
            `, the first ${report.problems.length} of ${report.problem_count}`}
        </b>
      }
      rows={report.problems.slice(0, 50)}
      keyOf={({ line, field, message }) => `${line}${field}${message}`}
      rowOf={() => ({ className: 'align-top' })}
      columns={[
        { name: 'Line', headingClass: 'pl-2', className: 'pr-3 pl-2', cell: ({ line }) => line },
        { name: 'Driver', className: 'pr-3', cell: ({ name }) => name },
        { name: 'Column', className: 'pr-3 font-mono text-[0.929rem]', cell: ({ field }) => field },
        { name: 'What is wrong', cell: ({ message }) => message },
      ]}
    />
  );
}

function Alike({ report }: { report: ImportReport }) {
  return (
    <details>
      <summary>
        {report.alike.length === 1
          ? '1 is there already, or looks like it. It is taken as well.'
          : `${report.alike.length} are there already, or look like it. They are taken as well.`}
      </summary>
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
