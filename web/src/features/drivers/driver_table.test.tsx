// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { preferences } from '../../model/preferences';
import type { Driver, WantedDrivers } from '../../schema/types';
import { DriverTable } from './DriverTable';

const asked: WantedDrivers[] = [];
let total = 2;
vi.mock('../../api/queries/library', () => ({
  useDrivers: (wanted: WantedDrivers) => {
    asked.push(wanted);
    return { data: { drivers, total, tags: ['sub'], unreadable: [] }, isPending: false, error: null };
  },
}));
const driver = (name: string, change: object): Driver =>
  ({
    id: name,
    document: { name, tags: ['sub'], notes: 'Bought in spring.' },
    nominal: 4,
    fs: 24.4,
    qts: 0.356,
    vas: 0.0633,
    sd: 0.0346,
    xmax: 0.0115,
    pe: 300,
    level: 89.4,
    price: 98,
    on_hand: 1,
    ...change,
  }) as unknown as Driver;
const drivers = [driver('Heron 250/4', {}), driver('Otter 165/4', { xmax: null, vas: 0.0169 })];

beforeEach(() => {
  asked.splice(0);
  total = 2;
});
afterEach(() => {
  cleanup();
  preferences.reset();
});

const cells = (name: string) =>
  within(screen.getByText(name).closest('tr') as HTMLElement)
    .getAllByRole('cell')
    .map(({ textContent }) => textContent);
const heading = (name: RegExp) => screen.getByRole('columnheader', { name });

describe('the library as a table', () => {
  it('has what a woofer is known by, and a dash where its sheet is silent', () => {
    render(<DriverTable action="Open" onAct={() => undefined} />);
    expect(cells('Heron 250/4').slice(0, 8)).toEqual([
      '4',
      '24',
      '0.36',
      '63.3',
      '346',
      '11.5',
      '300',
      '89.4',
    ]);
    expect(cells('Otter 165/4')[5]).toBe('–');
    expect(heading(/^Vas/).textContent).toBe('Vas l');
  });

  it('is read in cubic feet and fractions of an inch by who measures so', () => {
    preferences.set({ units: { volume: 'cuft', area: 'in2', length: 'in' } });
    render(<DriverTable action="Open" onAct={() => undefined} />);
    expect(cells('Heron 250/4').slice(3, 6)).toEqual(['2.24', '53.6', '7/16']);
    expect([/^Vas/, /^Sd/, /^Xmax/].map((name) => heading(name).textContent)).toEqual([
      'Vas cuft',
      'Sd in²',
      'Xmax in',
    ]);
  });

  it('is sorted by a column, then the other way, and begins again at the first page', () => {
    total = 120;
    render(<DriverTable action="Open" onAct={() => undefined} />);
    fireEvent.click(screen.getByRole('button', { name: 'Next' }));
    expect(asked.at(-1)).toMatchObject({ offset: 50 });
    fireEvent.click(screen.getByRole('button', { name: /^Fs/ }));
    expect(asked.at(-1)).toMatchObject({ sort: 'fs', descending: false, offset: 0 });
    expect(heading(/^Fs/).getAttribute('aria-sort')).toBe('ascending');
    fireEvent.click(screen.getByRole('button', { name: /^Fs/ }));
    expect(asked.at(-1)).toMatchObject({ sort: 'fs', descending: true });
    expect(heading(/^Fs/).getAttribute('aria-sort')).toBe('descending');
  });

  it('is paged, and says which part is seen', () => {
    total = 120;
    render(<DriverTable action="Open" onAct={() => undefined} />);
    expect(screen.getByText('1 to 50 of 120 drivers')).toBeTruthy();
    expect((screen.getByRole('button', { name: 'Previous' }) as HTMLButtonElement).disabled).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: 'Next' }));
    fireEvent.click(screen.getByRole('button', { name: 'Next' }));
    expect(screen.getByText('101 to 120 of 120 drivers')).toBeTruthy();
    expect((screen.getByRole('button', { name: 'Next' }) as HTMLButtonElement).disabled).toBe(true);
  });

  it('is filtered by bounds that are told in the reader’s units, each taken back by itself', () => {
    preferences.set({ units: { volume: 'cuft' } });
    render(
      <DriverTable
        action="Open"
        onAct={() => undefined}
        sought={{ sort: 'sd', vas_max: 0.0283168, fs_min: 20 }}
      />,
    );
    expect(screen.getByRole('button', { name: 'Remove the filter on Vas' }).textContent).toBe(
      'Vas to 1 cuft ×',
    );
    fireEvent.click(screen.getByRole('button', { name: 'Remove the filter on Vas' }));
    expect(asked.at(-1)?.vas_max).toBeUndefined();
    expect(asked.at(-1)?.fs_min).toBe(20);
    fireEvent.click(screen.getByRole('button', { name: 'Show all' }));
    expect(asked.at(-1)).toMatchObject({ sort: 'sd' });
    expect(asked.at(-1)?.fs_min).toBeUndefined();
  });

  it('tells who is listening what is looked for, and acts on the row that is chosen', () => {
    const [onSeek, onAct, onChoose] = [vi.fn(), vi.fn(), vi.fn()];
    render(<DriverTable action="Open" onAct={onAct} onChoose={onChoose} onSeek={onSeek} />);
    fireEvent.change(screen.getByRole('searchbox'), { target: { value: '12 in' } });
    expect(onSeek).toHaveBeenLastCalledWith({ sort: 'sd', find: '12 in', offset: 0 });
    fireEvent.click(screen.getByRole('button', { name: 'Open Otter 165/4' }));
    expect(onAct.mock.calls[0]?.[0].id).toBe('Otter 165/4');
    fireEvent.click(screen.getByRole('checkbox', { name: 'Compare Heron 250/4' }));
    expect(onChoose.mock.calls[0]?.[1]).toBe(true);
  });
});
