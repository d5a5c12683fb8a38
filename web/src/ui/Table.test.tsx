// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { type Column, Table } from './Table';

afterEach(cleanup);

interface Board {
  name: string;
  mass: number | null;
  problem?: string;
}

const BOARDS: Board[] = [
  { name: 'front', mass: 2.5 },
  { name: 'back', mass: null, problem: 'has no thickness' },
];

const COLUMNS: Column<Board>[] = [
  { name: 'Board', names: true, cell: ({ name }, at) => `${at + 1} ${name}` },
  { name: 'Weighs', kind: 'figure', sorted: 'ascending', cell: ({ mass }) => `${mass} kg` },
  { name: 'Remove', kind: 'action', cell: ({ name }) => <button type="button">Remove {name}</button> },
];

const keyOf = ({ name }: Board) => name;

describe('a table', () => {
  it('names its columns and each of its rows, and says what it is sorted by', () => {
    render(<Table columns={COLUMNS} rows={BOARDS} keyOf={keyOf} caption="Boards" />);
    expect(screen.getByRole('table', { name: 'Boards' })).toBeTruthy();
    expect(screen.getAllByRole('columnheader').map((one) => one.textContent)).toEqual([
      'Board',
      'Weighs',
      'Remove',
    ]);
    expect(screen.getByRole('columnheader', { name: 'Weighs' }).getAttribute('aria-sort')).toBe('ascending');
    expect(screen.getAllByRole('rowheader').map((one) => one.textContent)).toEqual(['1 front', '2 back']);
    const row = screen.getByRole('row', { name: /front/ });
    expect(within(row).getByRole('button', { name: 'Remove front' })).toBeTruthy();
    expect(within(row).getByText('2.5 kg')).toBeTruthy();
  });

  it('says across a row what stands instead of its cells', () => {
    render(<Table columns={COLUMNS} rows={BOARDS} keyOf={keyOf} instead={({ problem }) => problem} />);
    const row = screen.getByRole('row', { name: /back/ });
    const cells = within(row).getAllByRole('cell');
    expect(cells.map((one) => [one.textContent, one.getAttribute('colspan')])).toEqual([
      ['has no thickness', '2'],
    ]);
    expect(within(row).getByRole('rowheader').textContent).toBe('2 back');
    expect(screen.queryByText('null kg')).toBeNull();
  });

  it('may stand without headings, with rows at its end, and with looks of its rows and cells', () => {
    render(
      <Table
        headless
        columns={[
          { ...COLUMNS[0], className: 'wide' } as Column<Board>,
          { ...COLUMNS[1], className: ({ mass }: Board) => (mass ? 'bold' : 'soft') } as Column<Board>,
        ]}
        rows={BOARDS}
        keyOf={keyOf}
        rowOf={({ name }) => ({
          className: name === 'front' ? 'chosen' : '',
          title: name,
          'data-board': name,
        })}
      >
        <tr>
          <td colSpan={2}>5 kg in all</td>
        </tr>
      </Table>,
    );
    expect(screen.queryAllByRole('columnheader')).toEqual([]);
    const front = screen.getByRole('row', { name: /front/ });
    expect(front.className).toContain('chosen');
    expect(front.dataset.board).toBe('front');
    expect(front.getAttribute('title')).toBe('front');
    expect(within(front).getByRole('rowheader').className).toContain('wide');
    expect(screen.getByText('2.5 kg').className).toContain('bold');
    expect(screen.getByText('null kg').className).toContain('soft');
    expect(screen.getByText('5 kg in all')).toBeTruthy();
  });
});
