import { expect, it, vi } from 'vitest';
import type { StepsOnPhone } from '../schema/types';
import { type Answer, type Ask, Steps, standing } from './steps';

const step = (id: string) => ({ id, title: id }) as StepsOnPhone['steps'][number];
const page = (ticks: StepsOnPhone['ticks'] = []): StepsOnPhone => ({
  build: 'Organ',
  variant: 'Ported',
  steps: [step('cut'), step('glue')],
  parts: [],
  boards: [],
  ticks,
});
const ok = (json: unknown): Answer => ({ ok: true, status: 200, json });
const NOON = new Date('2026-12-01T12:00:00Z');

function storage() {
  const held = new Map<string, string>();
  return {
    held,
    getItem: (key: string) => held.get(key) ?? null,
    setItem: (key: string, value: string) => void held.set(key, value),
    removeItem: (key: string) => void held.delete(key),
  };
}

/** A server that can be away, and remembers what it heard. */
function server() {
  const heard: { path: string; body: unknown }[] = [];
  const state = { away: false, refusal: null as Answer | null, ticks: [] as StepsOnPhone['ticks'] };
  const ask: Ask = async (path, body) => {
    if (state.away) return null;
    heard.push({ path, body });
    if (state.refusal) return state.refusal;
    if (path === '/join') return { ok: true, status: 204, json: null };
    if (path === '/steps') return ok(page(state.ticks));
    const told = (body as { steps: { step: string; at: string; done: boolean }[] }).steps;
    for (const { step, at, done } of told) {
      state.ticks = state.ticks.filter((one) => one.step !== step);
      if (done) state.ticks.push({ step, at });
    }
    return ok(state.ticks);
  };
  return { heard, state, ask };
}

it('swaps the link first, then reads the steps', async () => {
  const { ask, heard } = server();
  await new Steps(ask, storage()).open('a'.repeat(32));
  expect(heard.map(({ path }) => path)).toEqual(['/join', '/steps']);
  expect(heard[0]?.body).toEqual({ token: 'a'.repeat(32) });
});

it('keeps what is ticked while the connection is gone, also over a reload, and sends the latest of each step', async () => {
  vi.useFakeTimers();
  const { ask, state, heard } = server();
  const kept = storage();
  const steps = new Steps(ask, kept);
  await steps.open(null);
  state.away = true;
  steps.tick('cut', true, NOON);
  steps.tick('glue', true, NOON);
  steps.tick('cut', false, NOON);
  steps.tick('cut', true, NOON);
  await vi.advanceTimersByTimeAsync(0);
  expect(standing(steps.snapshot(), 'cut')).toBe('done');
  expect(steps.snapshot()).toMatchObject({ away: true });
  expect(steps.snapshot().waiting).toHaveLength(2);

  const again = new Steps(ask, kept);
  expect(again.snapshot().waiting).toHaveLength(2);
  state.away = false;
  await again.open(null);
  expect(state.ticks.map(({ step }) => step).sort()).toEqual(['cut', 'glue']);
  expect(again.snapshot()).toMatchObject({ away: false, waiting: [] });
  expect(kept.held.size).toBe(0);
  expect(heard.filter(({ path }) => path === '/ticks')).toHaveLength(1);
  vi.useRealTimers();
});

it('tries again by itself when it was not heard, and says no more when the link is over', async () => {
  vi.useFakeTimers();
  const { ask, state } = server();
  const steps = new Steps(ask, storage());
  await steps.open(null);
  state.refusal = { ok: false, status: 503, json: null };
  steps.tick('cut', true, NOON);
  await vi.advanceTimersByTimeAsync(100);
  expect(steps.snapshot()).toMatchObject({ away: true, ended: null });
  state.refusal = null;
  await vi.advanceTimersByTimeAsync(1100);
  expect(steps.snapshot().waiting).toEqual([]);
  state.refusal = { ok: false, status: 403, json: { detail: 'ask for a new one' } };
  steps.tick('glue', true, NOON);
  await vi.advanceTimersByTimeAsync(100);
  expect(steps.snapshot().ended).toBe('ask for a new one');
  expect(steps.snapshot().waiting).toHaveLength(1);
  vi.useRealTimers();
});

it('throws away what cannot be read of an earlier visit', () => {
  const kept = storage();
  kept.setItem('oak-drum:steps', '{broken');
  expect(new Steps(server().ask, kept).snapshot().waiting).toEqual([]);
});
