// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ImportReport } from '../../schema/types';
import { ImportDialog } from './ImportDialog';

interface Sent {
  query: { take: string; columns?: string };
  type: string;
}
const sent: Sent[] = [];
let answer: (ask: Sent) => ImportReport = () => report({});
vi.mock('../../api/client', async (original) => ({
  ...(await original<object>()),
  api: {
    POST: async (
      _: string,
      { params, headers }: { params: { query: Sent['query'] }; headers: Record<string, string> },
    ) => {
      const ask = { query: params.query, type: headers['Content-Type'] ?? '' };
      sent.push(ask);
      return answer(ask);
    },
  },
  answered: (promise: Promise<ImportReport>) => promise,
}));

const report = (change: Partial<ImportReport>): ImportReport => ({
  rows: 3,
  imported: 0,
  good: 3,
  problems: [],
  problem_count: 0,
  columns: [
    { header: 'Model', field: 'name', unit: '', samples: ['Heron', 'Otter'] },
    { header: 'Vas', field: 'vas', unit: 'l', samples: ['63.3', '16.9'] },
    { header: 'Colour', field: '', unit: '', samples: ['grey'] },
  ],
  preview: [],
  alike: [],
  ...change,
});

const csv = new File(['Model,Vas'], 'mine.csv');
async function open(file: File = csv) {
  const onImported = vi.fn();
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ImportDialog file={file} onClose={() => undefined} onImported={onImported} />
    </QueryClientProvider>,
  );
  await screen.findByText(/can be taken/);
  return onImported;
}
const columnsOf = (ask: Sent | undefined) => JSON.parse(ask?.query.columns ?? '[]');

beforeEach(() => {
  sent.splice(0);
  answer = () => report({});
});
afterEach(cleanup);

describe('a file of drivers', () => {
  it('is looked at first, and taken only when that is confirmed', async () => {
    const onImported = await open();
    expect(sent.map(({ query }) => query.take)).toEqual(['look']);
    fireEvent.click(screen.getByRole('button', { name: 'Import all 3' }));
    await waitFor(() => expect(onImported).toHaveBeenCalled());
    expect(sent.map(({ query }) => query.take)).toEqual(['look', 'all']);
  });

  it('is sent as what its name says it is', async () => {
    await open();
    expect(sent[0]?.type).toBe('text/csv');
    cleanup();
    await open(new File(['[]'], 'MINE.JSON'));
    expect(sent[1]?.type).toBe('application/json');
  });

  it('says what each column means, and is looked at again as one puts that right', async () => {
    await open();
    fireEvent.change(screen.getByRole('combobox', { name: 'Unit of Vas' }), { target: { value: 'cuft' } });
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(columnsOf(sent[1])).toEqual([
      { field: 'name', unit: '' },
      { field: 'vas', unit: 'cuft' },
      { field: '', unit: '' },
    ]);
    fireEvent.change(screen.getByRole('combobox', { name: 'What Colour means' }), {
      target: { value: 'notes' },
    });
    await waitFor(() => expect(sent).toHaveLength(3));
    // What was put right before stays so.
    expect(columnsOf(sent[2])[1]).toEqual({ field: 'vas', unit: 'cuft' });
    fireEvent.click(screen.getByRole('button', { name: 'Import all 3' }));
    await waitFor(() => expect(sent).toHaveLength(4));
    expect(columnsOf(sent[3])).toEqual(columnsOf(sent[2]));
  });

  it('with bad rows is not taken whole, but its good rows can be', async () => {
    const problems = [
      { line: 3, name: 'Otter', field: 'vas', message: 'vas: "-4 l" is outside 0.1 to 5000 l' },
    ] as ImportReport['problems'];
    answer = () => report({ good: 2, problem_count: 120, problems });
    const onImported = await open();
    expect(screen.getByText(/3 rows, 2 can be taken/).textContent).toContain('1 cannot');
    expect((screen.getByRole('button', { name: 'Import all' }) as HTMLButtonElement).disabled).toBe(true);
    expect(screen.getByText(/What is wrong, the first 1 of 120/)).toBeTruthy();
    expect(
      within(screen.getByRole('row', { name: /outside 0.1/ })).getByText(/is outside 0.1 to 5000 l/),
    ).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Skip the bad rows and import 2' }));
    await waitFor(() => expect(onImported).toHaveBeenCalled());
    expect(sent.at(-1)?.query.take).toBe('good');
  });

  it('without a good row offers nothing to take', async () => {
    answer = () => report({ good: 0, problem_count: 3 });
    await open();
    expect(screen.queryByRole('button', { name: /Skip the bad rows/ })).toBeNull();
  });

  it('shows the first drivers as they will be, and which are there already', async () => {
    answer = () =>
      report({
        preview: [{ name: 'Heron', fs: '24 Hz', re: '3.4 ohm', vas: '2.2 cuft' }],
        alike: [{ name: 'Heron', like: 'Heron 250/4' }],
      } as Partial<ImportReport>);
    await open();
    const first = within(screen.getByRole('region', { name: 'The first drivers as they will be' }));
    expect(first.getByText('3.4 Ω')).toBeTruthy();
    expect(first.getByText('2.2 cuft')).toBeTruthy();
    expect(screen.getByText('1 is there already, or looks like it. It is taken as well.')).toBeTruthy();
  });

  it('that cannot be read says why, and is not taken', async () => {
    answer = () => {
      throw new Error('the file has no header row');
    };
    const onImported = vi.fn();
    render(
      <QueryClientProvider client={new QueryClient()}>
        <ImportDialog file={csv} onClose={() => undefined} onImported={onImported} />
      </QueryClientProvider>,
    );
    expect(await screen.findByText(/no header row/)).toBeTruthy();
    expect((screen.getByRole('button', { name: 'Import all' }) as HTMLButtonElement).disabled).toBe(true);
  });
});
