import { describe, expect, it, vi } from 'vitest';
import type { RawConditions, RawDesign, Report } from '../schema/types';
import { slot as design } from '../testing/nook';
import { type Result, Simulator } from './simulator';

const named = (name: string): RawDesign => ({ ...design, name });
const report = (name: string) => ({ name }) as unknown as Report;

/** Answers when told to. */
function desk() {
  const asked: {
    name: string;
    conditions: RawConditions;
    answer: (result: Result) => void;
    signal: AbortSignal;
  }[] = [];
  const simulator = new Simulator(
    (one, { conditions }, signal) =>
      new Promise((answer) => asked.push({ name: one.name ?? '', conditions, answer, signal })),
  );
  const answer = async (result?: Result) => {
    const last = asked.at(-1);
    last?.answer(result ?? { ok: true, report: report(last.name) });
    await Promise.resolve();
    await Promise.resolve();
  };
  return { asked, simulator, answer };
}

describe('the simulator', () => {
  it('asks for one at a time, then for the latest', async () => {
    const { asked, simulator, answer } = desk();
    for (const name of ['a', 'b', 'c', 'd']) simulator.show('v', named(name));
    expect(asked.map((one) => one.name)).toEqual(['a']);
    await answer();
    expect(asked.map((one) => one.name)).toEqual(['a', 'd']);
    await answer();
    expect(simulator.snapshot().reports.get('v')).toEqual(report('d'));
  });

  it('asks for the same design once', async () => {
    const { asked, simulator, answer } = desk();
    simulator.show('v', design);
    await answer();
    simulator.show('v', design);
    expect(asked).toHaveLength(1);
  });

  it('asks for everything again in other conditions, after what is under way', async () => {
    const { asked, simulator, answer } = desk();
    simulator.show('v', named('a'));
    await answer();
    simulator.show('w', named('b'));
    const bench = { brief: null, conditions: { basis: 'bench' } } as const;
    simulator.condition(bench);
    simulator.condition(bench);
    await answer();
    expect(asked.map(({ name, conditions }) => [name, conditions])).toEqual([
      ['a', { basis: 'in_use' }],
      ['b', { basis: 'in_use' }],
      ['a', { basis: 'bench' }],
    ]);
  });

  it('keeps the last curves beside a problem, and clears it', async () => {
    const { simulator, answer } = desk();
    simulator.show('v', named('a'));
    await answer();
    simulator.show('v', named('b'));
    const problem = { type: '', title: '', status: 422, detail: 'too high' };
    await answer({ ok: false, problem });
    expect(simulator.snapshot().problems.get('v')).toEqual(problem);
    expect(simulator.snapshot().reports.get('v')).toEqual(report('a'));
    simulator.show('v', named('c'));
    await answer();
    expect(simulator.snapshot().problems.has('v')).toBe(false);
  });

  it('asks again when the server was away', async () => {
    vi.useFakeTimers();
    const { asked, simulator, answer } = desk();
    simulator.show('v', named('a'));
    await answer({ ok: false, problem: null });
    expect(simulator.snapshot().problems.get('v')).toBeNull();
    await vi.advanceTimersByTimeAsync(2500);
    expect(asked.map((one) => one.name)).toEqual(['a', 'a']);
    vi.useRealTimers();
  });

  it('aborts what is under way when it stops, and takes no late answer', async () => {
    const { asked, simulator, answer } = desk();
    simulator.show('v', design);
    simulator.stop();
    expect(asked[0]?.signal.aborted).toBe(true);
    await answer();
    expect(simulator.snapshot().reports.size).toBe(0);
  });
});
