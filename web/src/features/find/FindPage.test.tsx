// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { DriverMatch, DriverMatchRow, Found, OpenBuild } from '../../schema/types';
import { FindPage } from './FindPage';

let opened: OpenBuild | undefined;
/** What the server has: the newest match of the build, and the rows of each. */
let newest: DriverMatch | null;
let rows: Map<string, DriverMatchRow[]>;
/** Requests, and those that wait to be let through. */
let asked: string[];
let held: { wanted: RegExp; gone: Promise<void> } | null;

vi.mock('../../api/queries/builds', () => ({ useBuildNow: () => ({ data: opened, error: null }) }));
vi.mock('../../api/queries/design', () => ({ useJudgement: () => ({ data: [] }) }));
vi.mock('../../api/queries/library', () => ({
  useDrivers: () => ({ data: undefined }),
  askDrivers: async () => ({ drivers: [{ id: 'lost', document: { name: 'Mole 130/8' } }] }),
}));
vi.mock('../shell/Shell', () => ({
  Shell: ({ title, children }: { title: string; children: ReactNode }) => (
    <main aria-label={title}>{children}</main>
  ),
}));
vi.mock('../shell/StageBar', () => ({ StageBar: () => null }));
vi.mock('../../api/client', () => ({
  Refusal: class extends Error {},
  answered: (request: Promise<unknown>) => request,
  api: {
    GET: (path: string, { params }: { params: { path: Record<string, string> } }) => get(path, params.path),
    POST: (path: string, ask: { params: { path: Record<string, string> }; body?: object }) =>
      post(path, ask.params.path, ask.body),
  },
}));
vi.mock('../../api/documents', async (actual) => ({
  ...(await actual<object>()),
  createVariant: async (build: string, content: { name: string }) => {
    asked.push(`create ${content.name} in ${build}`);
    return { id: 'fresh' };
  },
}));

/** A request that was held back is answered once it is let through. */
async function passed(request: string): Promise<void> {
  asked.push(request);
  if (held?.wanted.test(request)) await held.gone;
}

function hold(wanted: RegExp): () => void {
  let go: (() => void) | undefined;
  const gone = new Promise<void>((resolve) => {
    go = resolve;
  });
  held = { wanted, gone };
  return () => go?.();
}

async function get(path: string, at: Record<string, string>): Promise<unknown> {
  await passed(`GET ${path} ${at.id}`);
  if (path.endsWith('/driver-match')) return newest;
  const list = rows.get(at.id ?? '');
  if (!list) throw new Error('there is no such driver match');
  if (path.endsWith('/points')) return [];
  if (path.endsWith('{family}')) return { name: `${at.driver} as ${at.family}` };
  if (path.endsWith('{driver}')) {
    return list
      .filter(({ driver }) => driver === at.driver)
      .map(({ family, found }) => ({ family, found, refused: found ? null : 'The box would be too large.' }));
  }
  return { job: { ...newest, id: at.id }, rows: list.filter(({ found }) => found) };
}

async function post(path: string, at: Record<string, string>, body?: object): Promise<unknown> {
  await passed(`POST ${path} ${at.id} ${JSON.stringify(body ?? null)}`);
  if (path.endsWith('/cancel')) {
    newest = { ...(newest as DriverMatch), state: 'cancelled' };
    return newest;
  }
  const { drivers } = body as { drivers: number };
  newest = match({ id: `begun${drivers}`, drivers });
  rows = new Map([[`begun${drivers}`, [row({ driver: 'd9', name: 'Badger 380/8' })]]]);
  return newest;
}

function match(change: Partial<DriverMatch>): DriverMatch {
  return {
    id: 'm1',
    state: 'done',
    total: 26,
    done: 26,
    found: 60,
    complete: 3,
    failure: null,
    drivers: 1,
    brief: { lowest: '30 Hz' },
    ...change,
  } as DriverMatch;
}

function found(change: Partial<Found>): Found {
  return {
    score: 100,
    spare: 1.17,
    volume: 0.061,
    f3: 29.4,
    loudness: 104.2,
    cost: 180,
    box_checked: true,
    holds_back: '',
    starting_point: 'To the brief',
    reason: 'Tuned to the brief.',
    parts: [
      { id: 'lowest', name: 'Lowest note', part: 1, reached: '29.4 Hz', words: '0.6 Hz to spare' },
      { id: 'size', name: 'Size outside', part: 0.82, reached: '70 l', words: '12 l too large' },
    ],
    ...change,
  } as Found;
}

function row(change: Partial<DriverMatchRow>): DriverMatchRow {
  return {
    driver: 'd1',
    name: 'Heron 250/4',
    family: 'ported',
    on_hand: 0,
    stale: false,
    found: found({}),
    ...change,
  } as DriverMatchRow;
}

function Where() {
  const { pathname, search } = useLocation();
  return <output>{pathname + search}</output>;
}

function open(address = '/builds/b/find') {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[address]}>
        <Routes>
          <Route path="/builds/:id/find" element={<FindPage />} />
          <Route path="*" element={null} />
        </Routes>
        <Where />
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

const take = (driver: string) =>
  screen.findByRole<HTMLButtonElement>('button', { name: new RegExp(`^Try this design: ${driver}`) });

beforeEach(() => {
  asked = [];
  held = null;
  newest = match({});
  rows = new Map([['m1', [row({})]]]);
  opened = {
    id: 'b',
    documents: [
      { id: 'b', kind: 'build', content: { name: 'Barn dance', notes: '' }, archived: false },
      { id: 'b', kind: 'brief', content: { lowest: '30 Hz' }, archived: false },
    ],
    unreadable: [],
    next: {},
  } as unknown as OpenBuild;
});
afterEach(cleanup);

describe('drivers for a brief', () => {
  it('makes a variant of the row that is pressed and goes there', async () => {
    open();
    fireEvent.click(await take('Heron 250/4'));
    await waitFor(() => expect(screen.getByRole('status').textContent).toBe('/builds/b?variant=fresh'));
    expect(asked).toContain('create d1 as ported in b');
  });

  it('gives nothing of the last search away while the next is begun', async () => {
    open();
    await take('Heron 250/4');
    const go = hold(/POST .*driver-matches/);
    fireEvent.change(screen.getByRole('combobox', { name: 'How many drivers in a cabinet' }), {
      target: { value: '2' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Search again' }));
    // The server may have thrown the old one away by now.
    await waitFor(async () => expect((await take('Heron 250/4')).disabled).toBe(true));
    fireEvent.click(await take('Heron 250/4'));
    go();
    const fresh = await take('Badger 380/8');
    await waitFor(() => expect(fresh.disabled).toBe(false));
    expect(screen.queryByRole('button', { name: /^Try this design: Heron/ })).toBeNull();
    expect(asked.filter((request) => request.startsWith('create'))).toEqual([]);
    expect(asked.some((request) => request.includes('"drivers":2'))).toBe(true);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('says why a row cannot be taken that another window has replaced, and shows the newest instead', async () => {
    open();
    const button = await take('Heron 250/4');
    rows = new Map([['m7', [row({ driver: 'd7', name: 'Stoat 300/8' })]]]);
    newest = match({ id: 'm7' });
    fireEvent.click(button);
    expect((await screen.findByRole('alert')).textContent).toContain('no such driver match');
    expect((await take('Stoat 300/8')).disabled).toBe(false);
  });

  it('begins by itself where nothing was searched, and stops what runs before it begins again', async () => {
    newest = null;
    rows = new Map();
    open();
    await take('Badger 380/8');
    expect(asked.filter((request) => request.startsWith('POST'))).toHaveLength(1);
    cleanup();
    newest = match({ state: 'running', done: 4 });
    rows = new Map([['m1', [row({})]]]);
    asked = [];
    open();
    await take('Heron 250/4');
    fireEvent.click(screen.getByRole('button', { name: 'Search again' }));
    await take('Badger 380/8');
    const posts = asked.filter((request) => request.startsWith('POST'));
    expect(posts[0]).toContain('/cancel m1');
    expect(posts[1]).toContain('driver-matches');
  });

  it('says that the brief was changed since, and that it needs one', async () => {
    newest = match({ brief: { lowest: '40 Hz' } });
    open();
    expect(await screen.findByText(/The brief was changed after this search/)).toBeTruthy();
    cleanup();
    const documents = opened?.documents.filter(({ kind }) => kind !== 'brief') ?? [];
    opened = { ...(opened as OpenBuild), documents };
    open();
    expect(screen.getByText(/A search needs a brief/)).toBeTruthy();
  });

  it('tells what holds each row back, what is stale, and what was not drawn', async () => {
    rows = new Map([
      [
        'm1',
        [
          row({ on_hand: 2 }),
          row({ driver: 'd2', name: 'Otter 165', stale: true }),
          row({
            driver: 'd3',
            name: 'Wren 130',
            family: 'sealed',
            found: found({
              score: 99.7,
              box_checked: false,
              holds_back: 'size: 12 l too large',
              f3: null as never,
            }),
          }),
        ],
      ],
    ]);
    open();
    const of = async (name: string) => {
      await take(name);
      const one = screen.getAllByRole('row').find((row) => row.textContent?.includes(name));
      return within(one as HTMLElement);
    };
    expect((await of('Heron')).getByText('meets everything, 17 % to spare')).toBeTruthy();
    expect((await of('Heron')).getByText(/2 on hand/)).toBeTruthy();
    expect((await of('Otter')).getByText(/Its sheet was changed since/)).toBeTruthy();
    const wren = await of('Wren');
    expect(wren.getByText('Box not checked.')).toBeTruthy();
    expect(wren.getByText('size: 12 l too large')).toBeTruthy();
    // What is not whole is never rounded up to it.
    expect(wren.getByText('99 %')).toBeTruthy();
    expect(wren.getByRole('img', { name: 'Lowest note 100 %, Size outside 82 %' })).toBeTruthy();
  });

  it('shows a driver in every kind of cabinet, also one that is not among the best', async () => {
    rows = new Map([
      [
        'm1',
        [
          row({}),
          row({ family: 'sealed', found: found({ score: 61, loudness: null, cost: null }) }),
          row({ family: 'line', found: null }),
        ],
      ],
    ]);
    open();
    fireEvent.click(await screen.findByRole('button', { name: /Heron 250\/4 Ported|Heron 250\/4Ported/ }));
    const every = within(await screen.findByRole('region', { name: 'Heron 250/4 in every cabinet' }));
    await waitFor(() => expect(every.getAllByRole('heading', { level: 3 })).toHaveLength(3));
    expect(every.getByText('The box would be too large.')).toBeTruthy();
    expect(every.getByRole('heading', { name: 'Sealed · 61 %' })).toBeTruthy();
    expect(every.getAllByText(/12 l too large/)).toHaveLength(2);
    const box = screen.getByRole('textbox', { name: 'Why not' });
    fireEvent.change(box, { target: { value: 'mole' } });
    fireEvent.keyDown(box, { key: 'Enter' });
    expect(await screen.findByText(/It has not been looked at/)).toBeTruthy();
    expect((box as HTMLInputElement).value).toBe('');
  });

  it('keeps the kind that is asked for in the address', async () => {
    open('/builds/b/find?kind=sealed');
    await take('Heron 250/4');
    const kind = screen.getByRole<HTMLSelectElement>('combobox', { name: 'Kind of cabinet' });
    expect(kind.value).toBe('sealed');
    fireEvent.change(kind, { target: { value: 'all' } });
    await waitFor(() => expect(kind.value).toBe('all'));
    expect(screen.getByRole('status').textContent).toBe('/builds/b/find');
  });
});
