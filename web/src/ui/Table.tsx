import type { ReactNode } from 'react';

/** A column of a table: its heading, and what stands in it for a row. */
export interface Column<Row> {
  name: string;
  /** What is shown as the heading; the name where nothing else is. */
  heading?: ReactNode;
  /** Names the row: one column of a table does. */
  names?: boolean;
  /** Figures stand to the right, evenly spaced; what is done with a row stands last, its heading only for readers. */
  kind?: 'words' | 'figure' | 'action';
  cell: (row: Row, at: number) => ReactNode;
  /** Of its cells. */
  className?: string | ((row: Row, at: number) => string);
  /** Of its heading. */
  headingClass?: string;
  sorted?: 'ascending' | 'descending' | 'none';
}

interface Props<Row> {
  columns: readonly Column<Row>[];
  rows: readonly Row[];
  keyOf: (row: Row, at: number) => string | number;
  caption?: ReactNode;
  /** Whether the caption is only for readers. */
  captionHidden?: boolean;
  /** Of a row: what it looks like, and what is told on hover. */
  rowOf?: (row: Row, at: number) => { className?: string; title?: string; [data: `data-${string}`]: string };
  /** Said across a row instead of its cells. */
  instead?: (row: Row) => ReactNode;
  /** Whether rows without a heading of their own are enough. */
  headless?: boolean;
  /** Whether the headings stay in sight while the rows scroll. */
  sticky?: boolean;
  /** Rows at the end. */
  children?: ReactNode;
  className?: string;
}

const KINDS = {
  words: '',
  figure: 'whitespace-nowrap pl-2.5 text-right font-mono',
  action: 'pl-2 text-right',
};

/** The one table of the program. */
export function Table<Row>(props: Props<Row>) {
  const { columns, rows, keyOf, caption, captionHidden, rowOf, instead, headless, sticky, children } = props;
  const { className = 'text-[0.929rem]' } = props;
  const table = (
    <table className={`w-full ${className}`}>
      {caption && (
        <caption className={captionHidden ? 'sr-only' : 'pb-0.5 text-left text-soft'}>{caption}</caption>
      )}
      {!headless && (
        <thead className={sticky ? 'sticky top-0 bg-paper' : ''}>
          <tr className="border-line border-b text-left align-bottom">
            {columns.map(({ name, heading = name, kind = 'words', headingClass, sorted }) => (
              <th
                key={name}
                scope="col"
                {...(sorted ? { 'aria-sort': sorted } : {})}
                className={headingClass ?? (kind === 'figure' ? 'pl-2.5 text-right' : '')}
              >
                {kind === 'action' ? <span className="sr-only">{heading}</span> : heading}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map((row, at) => {
          const told = instead?.(row);
          const { className: look = '', ...of } = rowOf?.(row, at) ?? {};
          const shown = told ? columns.filter(({ names }) => names) : columns;
          return (
            <tr key={keyOf(row, at)} {...of} className={`border-grid border-b ${look}`}>
              {shown.map(({ name, names, kind = 'words', cell, className: own }) => {
                const looks = typeof own === 'function' ? own(row, at) : (own ?? '');
                return names ? (
                  <th key={name} scope="row" className={`text-left font-normal ${looks}`}>
                    {cell(row, at)}
                  </th>
                ) : (
                  <td key={name} className={`${KINDS[kind]} ${looks}`}>
                    {cell(row, at)}
                  </td>
                );
              })}
              {told && (
                <td colSpan={columns.length - shown.length} className="pl-2 text-left text-short">
                  {told}
                </td>
              )}
            </tr>
          );
        })}
        {children}
      </tbody>
    </table>
  );
  // Only tables may be wider than the page; what stays in sight while rows scroll has the page to scroll in.
  return sticky ? table : <div className="relative overflow-x-auto">{table}</div>;
}
