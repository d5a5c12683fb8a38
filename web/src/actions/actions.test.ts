// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Workbench } from '../model/workbench';
import type { RawDesign } from '../schema/types';
import { nookBench, variants } from '../testing/nook';
import { ACTIONS } from '.';
import type { CommandContext } from './action';
import { pressed, spoken } from './keys';

let context: CommandContext & { workbench: Workbench };
const run = (id: string) => {
  const action = ACTIONS.find((one) => one.id === id);
  if (!action?.when(context)) throw new Error(`${id} is not to be had`);
  action.run(context);
};
const active = () => context.workbench.snapshot().activeId;
const design = () => context.workbench.find(active() ?? '')?.design;

beforeEach(() => {
  context = {
    workbench: nookBench(),
    build: 'b',
    addVariant: vi.fn(),
    follows: () => null,
    switchTheme: vi.fn(),
    open: vi.fn(),
    show: vi.fn(),
    go: vi.fn(),
  };
});

describe('the commands', () => {
  it('have names and keys that no other has', () => {
    const keys = ACTIONS.flatMap((action) => action.keys);
    expect(new Set(keys).size).toBe(keys.length);
    expect(new Set(ACTIONS.map((action) => action.id)).size).toBe(ACTIONS.length);
    for (const action of ACTIONS) expect(action.name).toMatch(/^[A-Z]/);
  });

  it('nudge volume and tuning by a step', () => {
    run('volume-up');
    expect(design()?.enclosure.volume).toBe('44.5 l');
    run('tuning-down');
    expect(design()?.enclosure.tuning).toBe('28.8 Hz');
    run('undo');
    run('undo');
    expect(design()?.enclosure).toEqual(variants[0]?.design.enclosure);
  });

  it('nudge a volume that follows from what it comes to, and it leads then', () => {
    context.follows = (_, path) => (path === 'enclosure.volume' ? 0.05 : null);
    run('volume-up');
    expect(design()?.enclosure.volume).toBe('50.5 l');
  });

  it('leave alone what is not there to nudge', () => {
    context.workbench.activate('v1');
    run('tuning-up');
    expect(context.workbench.snapshot().undo).toBeNull();
  });

  it('walk around the variants, past archived ones', () => {
    run('next-variant');
    expect(active()).toBe('v1');
    run('previous-variant');
    run('previous-variant');
    expect(active()).toBe('v2');
    context.workbench.archive('v0');
    context.workbench.activate('v2');
    run('next-variant');
    expect(active()).toBe('v1');
  });

  it('duplicate what is on screen under a name of its own', () => {
    context.workbench.edit('v0', { ...(design() as RawDesign), name: 'x'.repeat(119) }, 'name');
    run('duplicate');
    expect(vi.mocked(context.addVariant).mock.calls[0]?.[0].name).toMatch(/^x+ 2$/);
  });

  it('put the shelf in another order, past archived ones, and keep the marks', () => {
    const arranged = vi.fn();
    context.workbench = nookBench(arranged);
    context.workbench.archive('v1');
    context.workbench.activate('v0');
    run('move-on');
    expect(arranged).toHaveBeenLastCalledWith({ kind: 'order', id: 'b' }, ['v2', 'v0']);
    expect(context.workbench.snapshot().variants.map(({ id, place }) => [id, place])).toEqual([
      ['v2', 2],
      ['v0', 0],
      ['v1', 1],
    ]);
    const times = arranged.mock.calls.length;
    run('move-on');
    expect(arranged).toHaveBeenCalledTimes(times);
  });

  it('of the workbench are not to be had elsewhere', () => {
    const nowhere = { ...context, workbench: null, build: null };
    const left = ACTIONS.filter((action) => action.when(nowhere)).map((action) => action.id);
    // The pages of the guide are read anywhere.
    expect(left.filter((id) => id.startsWith('guide-')).length).toBeGreaterThan(4);
    expect(left.filter((id) => !id.startsWith('guide-'))).toEqual([
      'go-builds',
      'go-drivers',
      'go-jobs',
      'switch-theme',
      'show-palette',
      'show-units',
      'show-glossary',
      'show-keys',
    ]);
  });
});

describe('keys', () => {
  const press = (init: KeyboardEventInit) => pressed(new KeyboardEvent('keydown', init));

  it('go by the letter on the key', () => {
    expect(press({ code: 'KeyZ', key: 'Z', ctrlKey: true, shiftKey: true })).toBe('mod+shift+z');
    expect(press({ code: 'KeyT', key: '†', altKey: true })).toBe('alt+t');
    expect(press({ code: 'KeyD', key: 'd', metaKey: true })).toBe('mod+d');
    expect(press({ code: 'Backspace', key: 'Backspace', altKey: true })).toBe('alt+backspace');
  });

  it('are written as people say them', () => {
    expect(spoken('mod+shift+z')).toBe('Ctrl + Shift + Z');
  });
});
