// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Workbench } from '../../model/workbench';
import { entriesOn, keepEntry, tick } from '../../model/workshop';
import { nookBench } from '../../testing/nook';
import { plan, sheetProps, step } from '../../testing/plan';
import { LogSheet } from './LogSheet';

let kept: () => Promise<string> = async () => 'ab12';
let chosen: File | null = null;
vi.mock('../../api/photos', () => ({
  keepPhoto: () => kept(),
  photoAt: (hash: string) => `/photos/${hash}`,
}));
vi.mock('../../ui/file', () => ({ chooseFile: async () => chosen }));

let bench: Workbench;
const draw = () => {
  const of = plan({ steps: [step({ id: 'glue.dry', title: 'Dry fit' })], hours: 20, cost: 180 });
  return <LogSheet {...sheetProps(bench, of, () => undefined)} />;
};
function open() {
  const view = render(draw());
  bench.subscribe(() => view.rerender(draw()));
}
const entry = (id: string, change: object) =>
  keepEntry(bench, { id, entry: { at: '2026-04-02T18:30:00', text: '', ...change } });
const first = () => entriesOn(bench.snapshot())[0]?.entry;
function type(label: string, text: string) {
  const input = screen.getByRole('textbox', { name: label });
  fireEvent.change(input, { target: { value: text } });
  fireEvent.blur(input);
}

beforeEach(() => {
  bench = nookBench();
  chosen = new File(['x'], 'leak.jpg', { type: 'image/jpeg' });
  kept = async () => 'ab12';
});
afterEach(cleanup);

describe('the log', () => {
  it('says how to begin while it is empty, and begins with one press', () => {
    open();
    expect(screen.getByText(/Nothing yet/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'New entry' }));
    expect(screen.queryByText(/Nothing yet/)).toBeNull();
    type('What was done', 'Glued the sides.');
    type('Hours', '2.5 h');
    type('Cost', '12');
    expect(first()).toMatchObject({ text: 'Glued the sides.', hours: '2.5 h', cost: 12 });
    type('Cost', '');
    expect(first()).not.toHaveProperty('cost');
  });

  it('adds up hours, money and mistakes against the plan', () => {
    entry('a', { hours: '90 min', cost: 40, mistake: 'Cut 3 mm short.' });
    entry('b', { hours: '2 h', cost: 15 });
    tick(bench, 'glue.dry', 'done', new Date(2026, 3, 2));
    open();
    const line = screen.getByText(/spent of/).textContent;
    expect(line).toBe('3.5 h of 20 h planned · 55 spent of 180 · 1 of 1 steps · 1 mistake put down');
  });

  it('is searched in what went wrong and in the name of the step', () => {
    entry('a', { at: '2026-04-02T18:30:00', text: 'Sides on', step: 'glue.dry' });
    entry('b', { at: '2026-04-03T10:00:00', text: 'Painted', cause: 'Damp cellar' });
    open();
    const found = () =>
      screen.getAllByRole('textbox', { name: 'What was done' }).map((one) => (one as HTMLInputElement).value);
    expect(found()).toEqual(['Painted', 'Sides on']);
    fireEvent.change(screen.getByRole('searchbox'), { target: { value: 'dry FIT' } });
    expect(found()).toEqual(['Sides on']);
    fireEvent.change(screen.getByRole('searchbox'), { target: { value: 'cellar' } });
    expect(found()).toEqual(['Painted']);
  });

  it('keeps a picture once, and lets it go', async () => {
    entry('a', { text: 'A leak' });
    open();
    const add = () => fireEvent.click(screen.getByRole('button', { name: 'Add a photo…' }));
    add();
    const picture = await screen.findByRole('img');
    expect(picture.getAttribute('src')).toBe('/photos/ab12');
    add();
    await waitFor(() => expect(first()?.photos).toEqual(['ab12']));
    fireEvent.click(screen.getByRole('button', { name: 'Remove photo 1' }));
    expect(first()?.photos ?? []).toEqual([]);
  });

  it('says why a picture was refused, and keeps the entry', async () => {
    entry('a', { text: 'A leak' });
    kept = () => Promise.reject(new Error('file: a picture of 40 MB is too large; at most 20 MB'));
    open();
    fireEvent.click(screen.getByRole('button', { name: 'Add a photo…' }));
    expect((await screen.findByText(/too large/)).textContent).toContain('at most 20 MB');
    expect(first()).toMatchObject({ text: 'A leak' });
  });

  it('puts an entry away, and undo brings it back', () => {
    entry('a', { text: 'Sides on' });
    open();
    fireEvent.click(within(screen.getByRole('article')).getByRole('button', { name: 'Archive' }));
    expect(screen.queryByRole('article')).toBeNull();
    bench.undo();
    expect(screen.getByRole('article')).toBeTruthy();
  });
});
