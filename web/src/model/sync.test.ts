// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { RawDesign, Variant } from '../api/types';
import { slot as design, variants } from '../testing/nook';
import { withValue } from './design';
import { type Outcome, type Remote, Sync } from './sync';

const sized = (litres: number) => withValue(design, 'enclosure.volume', `${litres} l`);
const variant: Variant = { ...(variants[0] as Variant), id: 'v', revision: 3 };

/** A server that counts revisions and can be away. */
class FakeServer implements Remote {
  here = true;
  revision = 3;
  design = design;
  archived = false;
  puts: string[] = [];
  refuse: string | null = null;

  async put(_: string, revision: number, next: RawDesign): Promise<Outcome> {
    await Promise.resolve();
    if (!this.here) return { kind: 'unreachable' };
    if (this.refuse) return { kind: 'refused', reason: this.refuse };
    if (revision !== this.revision) return { kind: 'stale' };
    this.revision += 1;
    this.design = next;
    this.puts.push(String(next.enclosure.volume));
    return { kind: 'kept', revision: this.revision };
  }

  async archive(): Promise<Outcome> {
    this.archived = true;
    return { kind: 'kept', revision: this.revision };
  }

  async restore(): Promise<Outcome> {
    this.archived = false;
    return { kind: 'kept', revision: this.revision };
  }

  orders: string[][] = [];

  async arrange(_: string, ids: string[]): Promise<Outcome> {
    await Promise.resolve();
    if (!this.here) return { kind: 'unreachable' };
    if (this.refuse) return { kind: 'refused', reason: this.refuse };
    this.orders.push(ids);
    return { kind: 'kept', revision: 0 };
  }

  async read(): Promise<Variant> {
    return { ...variant, revision: this.revision, document: this.design };
  }
}

let server: FakeServer;
let sync: Sync;
const settle = () => vi.advanceTimersByTimeAsync(0);

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  server = new FakeServer();
  sync = new Sync(server, localStorage, 'b');
  sync.open(variant);
});
afterEach(() => vi.useRealTimers());

describe('keeping', () => {
  it('sends one at a time and only the latest of those that wait', async () => {
    for (const litres of [50, 51, 52]) sync.want('v', { design: sized(litres), archived: false });
    await settle();
    expect(server.puts).toEqual(['50 l', '52 l']);
    expect(sync.snapshot().state).toBe('kept');
    expect(sync.settled).toBe(true);
    expect(localStorage.length).toBe(0);
  });

  it('goes on trying while the server is away', async () => {
    server.here = false;
    sync.want('v', { design: sized(50), archived: false });
    await settle();
    expect(sync.snapshot().state).toBe('unreachable');
    await vi.advanceTimersByTimeAsync(3000);
    server.here = true;
    await vi.advanceTimersByTimeAsync(8000);
    expect(server.puts).toEqual(['50 l']);
    expect(sync.snapshot().state).toBe('kept');
  });

  it('says why something was refused and keeps it here', async () => {
    server.refuse = 'enclosure.volume: is missing';
    sync.want('v', { design: sized(50), archived: false });
    await settle();
    expect(sync.snapshot()).toMatchObject({ state: 'refused', reason: 'enclosure.volume: is missing' });
    server.refuse = null;
    sync.want('v', { design: sized(51), archived: false });
    await settle();
    expect(server.puts).toEqual(['51 l']);
    expect(sync.snapshot().state).toBe('kept');
  });

  it('archives, brings back and then sends what changed meanwhile', async () => {
    sync.want('v', { design, archived: true });
    await settle();
    expect(server.archived).toBe(true);
    sync.want('v', { design: sized(50), archived: false });
    await settle();
    expect(server.archived).toBe(false);
    expect(server.puts).toEqual(['50 l']);
  });
});

describe('what was never sent', () => {
  it('is taken up by the next page and sent', async () => {
    server.here = false;
    sync.want('v', { design: sized(50), archived: false });
    await settle();
    server.here = true;
    const next = new Sync(server, localStorage, 'b');
    expect(next.open(variant)?.document.enclosure.volume).toBe('50 l');
    await settle();
    expect(server.puts).toEqual(['50 l']);
  });

  it('is shown beside what somebody else kept meanwhile', async () => {
    server.here = false;
    sync.want('v', { design: sized(50), archived: false });
    await settle();
    const next = new Sync(server, localStorage, 'b');
    next.open({ ...variant, revision: 4, document: sized(60) });
    expect(next.snapshot().conflict?.theirs.enclosure.volume).toBe('60 l');
    expect(next.snapshot().conflict?.mine.enclosure.volume).toBe('50 l');
  });

  it('lifts what an earlier program never sent to today’s names', async () => {
    const old = { ...design, motor: { series: 2 } };
    localStorage.setItem(
      'oak-drum:unsent:v',
      JSON.stringify({ base: 1, wanted: { design: old, archived: false } }),
    );
    const opened = new Sync(server, localStorage, 'b').open(variant);
    expect(opened?.document.driver_array).toEqual({ series: 2 });
    expect(opened?.document).not.toHaveProperty('motor');
  });

  it('is dropped where it cannot be read', () => {
    localStorage.setItem('oak-drum:unsent:v', '{broken');
    expect(new Sync(server, localStorage, 'b').open(variant)).toBe(variant);
  });
});

describe('a stale write', () => {
  beforeEach(async () => {
    server.revision = 4;
    server.design = sized(60);
    sync.want('v', { design: sized(50), archived: false });
    await settle();
  });

  it('stops and shows both', () => {
    expect(sync.snapshot().state).toBe('conflict');
    expect(server.puts).toEqual([]);
  });

  it('can go on top', async () => {
    expect(sync.resolve('mine')?.enclosure.volume).toBe('50 l');
    await settle();
    expect(server.puts).toEqual(['50 l']);
    expect(server.revision).toBe(5);
  });

  it('can give way', async () => {
    expect(sync.resolve('theirs')?.enclosure.volume).toBe('60 l');
    await settle();
    expect(server.puts).toEqual([]);
    expect(sync.settled).toBe(true);
  });
});

describe('the order of the shelf', () => {
  const [a, b, c] = ['a', 'b', 'c'].map((id) => ({ ...variant, id })) as [Variant, Variant, Variant];
  const ids = (arranged: readonly Variant[]) => arranged.map(({ id }) => id).join('');

  it('is sent, the latest only of those that wait', async () => {
    for (const order of ['abc', 'bac', 'cab']) sync.arrange([...order]);
    expect(sync.settled).toBe(false);
    await settle();
    expect(server.orders).toEqual([
      ['a', 'b', 'c'],
      ['c', 'a', 'b'],
    ]);
    expect(sync.snapshot().state).toBe('kept');
    expect(localStorage.length).toBe(0);
  });

  it('is said to wait while the server is away, outlives a reload and is sent then', async () => {
    server.here = false;
    sync.arrange(['c', 'a', 'b']);
    await settle();
    expect(sync.snapshot().state).toBe('unreachable');
    server.here = true;
    const next = new Sync(server, localStorage, 'b');
    // One was put away in the meantime, another made.
    expect(ids(next.arranged([a, c, { ...variant, id: 'new' }]))).toBe('canew');
    await settle();
    expect(server.orders).toEqual([['c', 'a']]);
    expect(ids(new Sync(server, localStorage, 'b').arranged([a, b]))).toBe('ab');
  });

  it('goes on trying, and is sent at once when the network is back', async () => {
    server.here = false;
    sync.arrange(['b', 'a']);
    await settle();
    server.here = true;
    sync.retry();
    await settle();
    expect(server.orders).toEqual([['b', 'a']]);
    expect(sync.snapshot().state).toBe('kept');
  });

  it('waits no longer the next time because it waited before', async () => {
    for (let time = 0; time < 2; time += 1) {
      server.here = false;
      sync.arrange(['b', 'a']);
      await vi.advanceTimersByTimeAsync(3600);
      server.here = true;
      await vi.advanceTimersByTimeAsync(4000);
      expect(server.orders).toHaveLength(time + 1);
    }
    server.here = false;
    sync.arrange(['a', 'b']);
    await settle();
    server.here = true;
    await vi.advanceTimersByTimeAsync(500);
    expect(server.orders).toHaveLength(3);
  });

  it('is given up where the server refuses it, and that is said', async () => {
    server.refuse = 'there is no such variant';
    sync.arrange(['x']);
    await settle();
    expect(sync.snapshot()).toMatchObject({ state: 'refused', reason: 'there is no such variant' });
    expect(localStorage.length).toBe(0);
    // The next one that is taken is all that counts.
    server.refuse = null;
    sync.arrange(['a', 'b']);
    await settle();
    expect(sync.snapshot()).toMatchObject({ state: 'kept', reason: null });
  });

  it('does not say kept while a design still waits', async () => {
    sync.arrange(['a', 'b']);
    sync.want('v', { design: sized(60), archived: false });
    expect(sync.snapshot().state).toBe('sending');
    await settle();
    expect(sync.snapshot().state).toBe('kept');
    expect([server.orders.length, server.puts]).toEqual([1, ['60 l']]);
  });
});
