// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { same } from './design';
import { Drafts } from './drafts';
import { type DocumentKind, Outbox, type Outcome, type Saved } from './outbox';

interface Note {
  text: string;
  motor?: string;
}

const note = (text: string): Note => ({ text });
const A = { kind: 'note', id: 'a' };
const B = { kind: 'note', id: 'b' };

/** A server that keeps every revision and can be away, full or of another mind. */
class FakeServer {
  here = true;
  readable = true;
  refuse: string | null = null;
  history = new Map<string, Saved<Note>[]>([
    ['a', [{ content: note('first'), revision: 1 }]],
    ['b', [{ content: note('second'), revision: 1 }]],
  ]);

  now(id: string): Saved<Note> {
    return this.history.get(id)?.at(-1) as Saved<Note>;
  }

  texts(id: string): string[] {
    return (this.history.get(id) ?? []).map(({ content }) => content.text);
  }

  save(id: string, content: Note): Saved<Note> {
    const saved = { content, revision: this.now(id).revision + 1 };
    this.history.get(id)?.push(saved);
    return saved;
  }

  readonly kind: DocumentKind<Note> = {
    id: 'note',
    name: 'This note',
    send: async (id, wanted, saved): Promise<Outcome<Note>> => {
      await Promise.resolve();
      if (!this.here) return { kind: 'unreachable' };
      if (this.refuse) return { kind: 'refused', reason: this.refuse };
      if (saved.revision !== this.now(id).revision) return { kind: 'stale' };
      return { kind: 'saved', saved: this.save(id, wanted) };
    },
    read: async (id) => (this.here && this.readable ? this.now(id) : null),
    same,
    restore: ({ motor, text }) => ({ text: motor ?? text }),
  };
}

let server: FakeServer;
let outbox: Outbox;
let taken: string[];
const settle = () => vi.advanceTimersByTimeAsync(0);

/** A page of a tab that opens both notes as the server has them. */
function page(tab: string, storage: Storage = localStorage): Outbox {
  const next = new Outbox([server.kind], new Drafts(storage, tab, 'build'), (_, content) =>
    taken.push((content as Note).text),
  );
  for (const document of [A, B]) next.open(document, server.now(document.id));
  return next;
}

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  server = new FakeServer();
  taken = [];
  outbox = page('one');
});
afterEach(() => vi.useRealTimers());

describe('sending', () => {
  it('is one at a time, and only the latest of those that wait', async () => {
    for (const text of ['x', 'y', 'z']) outbox.want(A, note(text));
    await settle();
    expect(server.texts('a')).toEqual(['first', 'x', 'z']);
    expect(outbox.snapshot().state).toBe('saved');
    expect(outbox.settled).toBe(true);
    expect(localStorage.length).toBe(0);
  });

  it('goes on trying while the server is away, and at once when the network is back', async () => {
    server.here = false;
    outbox.want(A, note('x'));
    await settle();
    expect(outbox.snapshot().state).toBe('unreachable');
    await vi.advanceTimersByTimeAsync(3000);
    server.here = true;
    outbox.retry();
    await settle();
    expect(server.texts('a')).toEqual(['first', 'x']);
    expect(outbox.snapshot().state).toBe('saved');
  });

  it('says why a document was refused until that one is saved, whatever happens to others', async () => {
    server.refuse = 'too long';
    outbox.want(A, note('x'));
    await settle();
    server.refuse = null;
    outbox.want(B, note('y'));
    await settle();
    expect(server.texts('b')).toEqual(['second', 'y']);
    expect(outbox.snapshot()).toMatchObject({ state: 'refused', reason: 'too long' });
    outbox.want(A, note('z'));
    await settle();
    expect(outbox.snapshot()).toMatchObject({ state: 'saved', reason: null });
    expect(server.texts('a')).toEqual(['first', 'z']);
  });

  it('tells when everything is saved', async () => {
    const told = vi.fn();
    outbox.want(A, note('x'));
    void outbox.whenSettled().then(told);
    expect(told).not.toHaveBeenCalled();
    await settle();
    expect(told).toHaveBeenCalledOnce();
  });

  it('goes on with no room to remember, says that it would not outlive a reload, and saves', async () => {
    const full = { ...localStorage, length: 0, key: () => null, getItem: () => null, removeItem: () => {} };
    const storage = {
      ...full,
      setItem: () => {
        throw new DOMException('full', 'QuotaExceededError');
      },
    } as unknown as Storage;
    const crowded = page('two', storage);
    server.here = false;
    crowded.want(A, note('x'));
    await settle();
    expect(crowded.snapshot()).toMatchObject({ state: 'unreachable', stored: false });
    server.here = true;
    crowded.retry();
    await settle();
    expect(server.texts('a')).toEqual(['first', 'x']);
    expect(crowded.snapshot()).toMatchObject({ state: 'saved', stored: true });
  });
});

describe('what was never sent', () => {
  beforeEach(async () => {
    server.here = false;
    outbox.want(A, note('x'));
    await settle();
    outbox.stop();
    server.here = true;
  });

  it('is taken up by the next page of its tab and sent', async () => {
    const next = page('one');
    await settle();
    expect(server.texts('a')).toEqual(['first', 'x']);
    expect(next.settled).toBe(true);
  });

  it('is left alone by another tab while its own is open, and taken over when that is closed', async () => {
    const other = page('two');
    other.adopt(new Set(['one', 'two']));
    other.want(A, note('y'));
    await settle();
    expect(server.texts('a')).toEqual(['first', 'y']);
    // The first tab has not lost anything by it.
    const first = page('one');
    expect(first.snapshot().conflict).toMatchObject({ mine: note('x'), theirs: note('y') });
    other.adopt(new Set(['two']));
    await settle();
    expect(taken).toContain('x');
    expect(other.snapshot().conflict).toMatchObject({ mine: note('x'), theirs: note('y') });
  });

  it('is left of a document that is not open here, to be asked for', () => {
    const next = new Outbox([server.kind], new Drafts(localStorage, 'two', 'build'));
    expect(next.left(new Set(['two'])).map(({ document }) => document)).toEqual([A]);
    expect(next.left(new Set(['one', 'two']))).toEqual([]);
    expect(next.left(null)).toEqual([]);
  });

  it('is left to the next page of its tab, whatever was on its way', async () => {
    outbox.want(A, note('y'));
    const next = page('one');
    next.want(A, note('z'));
    server.here = false;
    await settle();
    expect(new Drafts(localStorage, 'one', 'build').own(A)?.wanted).toEqual(note('z'));
  });

  it('by a program that knew no tabs is taken over', async () => {
    localStorage.clear();
    localStorage.setItem('oak-drum:unsent:a', JSON.stringify({ base: 3, wanted: { design: 1 } }));
    localStorage.setItem('oak-drum:unsent:b', '{broken');
    const drafts = new Drafts(localStorage, 'one', 'build');
    drafts.takeEarlier(['a', 'b', 'c'], 't', 'r');
    expect(drafts.all()).toEqual([
      { tab: 'one', document: { kind: 'variant', id: 'a' }, base: 3, wanted: { design: 1 } },
    ]);
    expect(localStorage.length).toBe(1);
  });

  it('by a program that had name and brief in one document is taken over as two', () => {
    const left = { name: 'Nook', notes: '', brief: { lowest: '30 Hz' } };
    const drafts = new Drafts(localStorage, 'one', 'build');
    localStorage.clear();
    drafts.put({ kind: 'text', id: 'build' }, 7, left);
    drafts.takeEarlier([], 't', 'r');
    const found = drafts
      .all()
      .map(({ document, base, wanted }) => [document.kind, document.id, base, wanted]);
    expect(found.sort()).toEqual([
      ['brief', 'r', 1, { content: { lowest: '30 Hz' }, archived: false }],
      ['title', 't', 1, { content: { name: 'Nook', notes: '' }, archived: false }],
    ]);
  });

  it('is lifted to today’s names, and dropped where it cannot be read', async () => {
    const key = localStorage.key(0) ?? '';
    localStorage.setItem(key, JSON.stringify({ base: 1, wanted: { motor: 'old' } }));
    page('one');
    await settle();
    expect(server.texts('a')).toEqual(['first', 'old']);
    localStorage.setItem(key, '{broken');
    expect(page('one').settled).toBe(true);
  });
});

describe('what somebody else saved meanwhile', () => {
  beforeEach(async () => {
    server.save('a', note('theirs'));
    outbox.want(A, note('mine'));
    await settle();
  });

  it('stops that document alone and shows both', async () => {
    expect(outbox.snapshot()).toMatchObject({ state: 'conflict' });
    outbox.want(B, note('y'));
    await settle();
    expect(server.texts('b')).toEqual(['second', 'y']);
    expect(server.texts('a')).toEqual(['first', 'theirs']);
  });

  it('takes the edits made before a choice with it', async () => {
    outbox.want(A, note('mine, further'));
    expect(outbox.snapshot().conflict?.mine).toEqual(note('mine, further'));
    outbox.resolve('mine');
    await settle();
    expect(server.texts('a')).toEqual(['first', 'theirs', 'mine, further']);
  });

  it('comes back on top, with what was made here in the history below it', async () => {
    outbox.resolve('theirs');
    await settle();
    expect(server.texts('a')).toEqual(['first', 'theirs', 'mine', 'theirs']);
    expect(taken).toEqual(['theirs']);
    expect(outbox.settled).toBe(true);
    expect(localStorage.length).toBe(0);
  });

  it('again, while the choice is sent, is shown again with nothing lost', async () => {
    outbox.resolve('theirs');
    server.save('a', note('third'));
    await settle();
    expect(outbox.snapshot().conflict).toMatchObject({ mine: note('mine'), theirs: note('third') });
    outbox.resolve('mine');
    await settle();
    expect(server.texts('a')).toEqual(['first', 'theirs', 'third', 'mine']);
  });

  it('in two documents is asked about one after the other', async () => {
    server.save('b', note('theirs too'));
    outbox.want(B, note('mine too'));
    await settle();
    expect(outbox.snapshot().conflict?.document).toEqual(A);
    outbox.resolve('mine');
    await settle();
    expect(outbox.snapshot().conflict).toMatchObject({ document: B, theirs: note('theirs too') });
    outbox.resolve('mine');
    await settle();
    expect([server.texts('a').at(-1), server.texts('b').at(-1)]).toEqual(['mine', 'mine too']);
  });

  it('is asked for again where the server went away before it could be read', async () => {
    outbox.resolve('mine');
    server.save('a', note('later'));
    server.readable = false;
    await settle();
    expect(outbox.snapshot().state).toBe('unreachable');
    server.readable = true;
    await vi.advanceTimersByTimeAsync(600);
    expect(outbox.snapshot().conflict).toMatchObject({ mine: note('mine'), theirs: note('later') });
  });

  it('is no conflict where it is again what this was made from', async () => {
    server.save('b', note('other'));
    server.save('b', note('second'));
    outbox.want(B, note('mine'));
    await settle();
    expect(server.texts('b').at(-1)).toBe('mine');
  });

  it('is no conflict where it says the same', async () => {
    server.save('b', note('same'));
    outbox.want(B, note('same'));
    await settle();
    expect(server.texts('b')).toEqual(['second', 'same']);
    expect(outbox.snapshot().conflict?.document).toEqual(A);
  });
});

describe('what somebody else saved', () => {
  it('is taken over where nothing waits here, and not while something does', async () => {
    server.save('a', note('from a phone'));
    await outbox.refresh(A);
    expect(taken).toEqual(['from a phone']);
    outbox.want(A, note('here'));
    await settle();
    // It was based on what was taken over.
    expect(server.texts('a')).toEqual(['first', 'from a phone', 'here']);
    server.here = false;
    outbox.want(A, note('unsent'));
    await settle();
    server.here = true;
    server.save('a', note('once more'));
    await outbox.refresh(A);
    expect(taken).toEqual(['from a phone']);
  });

  it('is put together with what was changed here, without a question, where its kind can', async () => {
    const both: DocumentKind<Note> = {
      ...server.kind,
      merge: (mine, theirs) => note(`${theirs.text} and ${mine.text}`),
    };
    const merging = new Outbox([both], new Drafts(localStorage, 'two', 'build'), (_, content) =>
      taken.push((content as Note).text),
    );
    merging.open(A, server.now('a'));
    server.save('a', note('theirs'));
    merging.want(A, note('mine'));
    await settle();
    expect(merging.snapshot().conflict).toBeNull();
    expect(server.texts('a')).toEqual(['first', 'theirs', 'theirs and mine']);
    expect(taken).toEqual(['theirs and mine']);
  });
});
