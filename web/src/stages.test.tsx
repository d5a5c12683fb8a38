// @vitest-environment jsdom
import { cleanup, render, renderHook, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { CommandContext } from './actions/action';
import { StageBar } from './features/shell/StageBar';
import { StagesContext, useActions, type Work } from './features/shell/stages';
import type { Check } from './schema/types';
import { STAGES } from './stages';
import { slot } from './testing/nook';

afterEach(cleanup);

const within = ({ children }: { children: ReactNode }) => (
  <StagesContext value={STAGES}>
    <MemoryRouter>{children}</MemoryRouter>
  </StagesContext>
);
const check = (id: string, verdict: Check['verdict']): Check => ({
  id,
  verdict,
  name: 'Loudness, clean',
  reached: '90 dB',
  words: '5.0 dB short',
  ratio: 0.9,
  why: '',
});
const NOTHING: Work = { brief: null, design: null, checks: [], heard: false, measured: false };
const progress = (work: Work) => Object.fromEntries(STAGES.map((stage) => [stage.id, stage.progress(work)]));

describe('every stage', () => {
  it('has a name, an address or a window, and keys that no command has', () => {
    const { result } = renderHook(useActions, { wrapper: within });
    const keys = result.current.flatMap((action) => action.keys);
    expect(new Set(keys).size).toBe(keys.length);
    for (const { id, command } of STAGES) {
      expect(result.current.find((action) => action.id === `go-${id}`)?.name).toBe(command);
    }
  });

  it('is gone to by its command while a build is open', () => {
    const { result } = renderHook(useActions, { wrapper: within });
    const context = { build: 'b', go: vi.fn(), open: vi.fn() } as unknown as CommandContext;
    for (const { id, opens } of STAGES) {
      result.current.find((action) => action.id === `go-${id}`)?.run(context);
      if ('window' in opens) expect(context.open).toHaveBeenLastCalledWith(opens.window);
      else {
        const ending = 'path' in opens ? opens.path : opens.page;
        expect(context.go).toHaveBeenLastCalledWith(`/builds/b${ending && `/${ending}`}`);
      }
    }
    expect(context.go).toHaveBeenCalledWith('/builds/b/box');
    const nowhere = { ...context, build: null };
    for (const action of result.current.filter(({ id }) => STAGES.some((stage) => id === `go-${stage.id}`))) {
      expect(action.when(nowhere)).toBe(false);
    }
  });

  it('is untouched, in hand or done by what the build is', () => {
    expect(new Set(Object.values(progress(NOTHING)))).toEqual(new Set(['untouched']));
    const begun = {
      brief: { loudness: '90 dB' },
      design: slot,
      checks: [check('loudness', 'short')],
      heard: false,
      measured: false,
    };
    expect(progress(begun)).toMatchObject({ brief: 'in progress', driver: 'done', curves: 'in progress' });
    const { body: _, ...bare } = slot;
    expect(progress({ ...begun, design: bare })).toMatchObject({ box: 'untouched' });
    const body = { ...slot.body, width: '400 mm', height: '500 mm', depth: '300 mm' };
    const whole = {
      brief: { lowest: '30 Hz' },
      design: { ...slot, body },
      checks: [check('fits', 'met'), check('loudness', 'met')],
      heard: true,
      measured: false,
    };
    expect(progress(whole)).toMatchObject({
      brief: 'done',
      driver: 'done',
      curves: 'done',
      box: 'done',
      place: 'done',
    });
  });
});

describe('the bar of stages', () => {
  const bar = (work: Work) =>
    render(<StageBar build="b" stage="curves" work={work} onOpen={() => undefined} />, { wrapper: within });

  it('says where one is, how each stands, and what is best done next', () => {
    bar({
      brief: { lowest: '30 Hz' },
      design: slot,
      checks: [check('loudness', 'short')],
      heard: false,
      measured: false,
    });
    const here = screen.getByRole('link', { name: 'Curves, in progress' });
    expect(here.getAttribute('aria-current')).toBe('page');
    expect(here.title).toBe('Curves: in progress. Next: Loudness, clean: 5.0 dB short.');
    expect(screen.getByRole('button', { name: 'Brief, done' }).title).toBe('Brief: done.');
  });

  it('begins with the brief', () => {
    bar(NOTHING);
    expect(screen.getByRole('button', { name: 'Brief, untouched' }).title).toContain('Next: Say how low');
  });
});
