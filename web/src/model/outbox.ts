// Sends what is wanted of every document until the server has it, one request a document at a time. What is not sent yet
// lies in `drafts.ts`, where a reload finds it. A kind of document is one registration.

import { type DocumentKey, type Draft, type Drafts, keyOf } from './drafts';
import { Observable } from './observable';

/** How a document stands on the server. */
export interface Saved<Content> {
  content: Content;
  revision: number;
}

export type Outcome<Content> =
  | { kind: 'saved'; saved: Saved<Content> }
  | { kind: 'unreachable' }
  | { kind: 'stale' }
  | { kind: 'refused'; reason: string };

/** What the outbox must know of a kind of document. */
export interface DocumentKind<Content> {
  id: string;
  /** What it is called where two windows changed it. */
  name: string;
  send(id: string, wanted: Content, saved: Saved<Content>): Promise<Outcome<Content>>;
  /** As it stands on the server now; null where the server does not answer. */
  read(id: string): Promise<Saved<Content> | null>;
  same(a: Content, b: Content): boolean;
  /** Whether what somebody else made of it may give way to a change without a question. */
  gives?(theirs: Content, base: Content): boolean;
  /** What was changed here on top of what somebody else saved, where both can stand. */
  merge?(mine: Content, theirs: Content, base: Content): Content;
  /** Lifts what an earlier program wrote. */
  restore(content: Content): Content;
}

/** Somebody else saved a document while it was changed here. */
export interface Conflict {
  document: DocumentKey;
  name: string;
  mine: unknown;
  theirs: unknown;
}

export interface OutboxState {
  state: 'saved' | 'sending' | 'unreachable' | 'conflict' | 'refused';
  /** Why something was refused. */
  reason: string | null;
  conflict: Conflict | null;
  savedAt: Date | null;
  /** Whether what waits would outlive a reload. */
  stored: boolean;
}

interface Item {
  document: DocumentKey;
  kind: DocumentKind<unknown>;
  saved: Saved<unknown>;
  wanted: unknown;
  /** Sent before what is wanted, so that it is in the history too. */
  first: { content: unknown } | null;
  sending: boolean;
  refused: string | null;
  theirs: Saved<unknown> | null;
  stored: boolean;
}

const WAITS = [500, 1000, 2000, 4000, 8000];

/** Told of a document that changed by another way than `want`: what another tab left, or what was taken over. */
export type OnTaken = (document: DocumentKey, content: unknown) => void;

export class Outbox extends Observable<OutboxState> {
  private items = new Map<string, Item>();
  private failures = 0;
  private away = false;
  private stopped = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly kinds: readonly DocumentKind<unknown>[],
    private readonly drafts: Drafts,
    private readonly onTaken: OnTaken = () => undefined,
  ) {
    super({ state: 'saved', reason: null, conflict: null, savedAt: null, stored: true });
  }

  /** Takes up a document as the server has it. Returns it as it should be, with what was never sent. */
  open<Content>(document: DocumentKey, saved: Saved<Content>, savedAt?: Date): Content {
    const item: Item = {
      document,
      kind: this.kindOf(document),
      saved,
      wanted: saved.content,
      first: null,
      sending: false,
      refused: null,
      theirs: null,
      stored: true,
    };
    this.items.set(keyOf(document), item);
    if (savedAt && (!this.state.savedAt || savedAt > this.state.savedAt)) this.update({ savedAt });
    const draft = this.drafts.own(document);
    if (draft) this.take(item, draft);
    return item.wanted as Content;
  }

  /** Takes over what tabs that are closed never sent, as soon as nothing of this one waits. */
  adopt(open: ReadonlySet<string> | null): void {
    if (!open) return;
    for (const draft of this.drafts.all()) {
      const item = this.items.get(keyOf(draft.document));
      if (!item || draft.tab === this.drafts.tab || open.has(draft.tab) || !isSaved(item)) continue;
      this.take(item, draft);
      // It is this tab's own now, where there was room for it.
      if (item.stored) this.drafts.drop(draft.document, draft.tab);
      this.onTaken(item.document, item.wanted);
    }
  }

  /** What this tab, and tabs that are closed, left of documents that are not open here. */
  left(open: ReadonlySet<string> | null): Draft[] {
    const closed = (tab: string) => tab === this.drafts.tab || (open !== null && !open.has(tab));
    return this.drafts.all().filter(({ tab, document }) => closed(tab) && !this.knows(document));
  }

  knows(document: DocumentKey): boolean {
    return this.items.has(keyOf(document));
  }

  /** Takes over what somebody else has saved, where nothing of a document waits here. */
  async refresh(document: DocumentKey): Promise<void> {
    const item = this.items.get(keyOf(document));
    const idle = () => item && !item.sending && !item.theirs && isSaved(item);
    if (!item || !idle()) return;
    const theirs = await item.kind.read(document.id);
    if (!theirs || theirs.revision <= item.saved.revision || !idle() || this.stopped) return;
    item.saved = theirs;
    item.wanted = theirs.content;
    this.onTaken(document, item.wanted);
  }

  /** Says how a document should be from now on. */
  want(document: DocumentKey, wanted: unknown): void {
    const item = this.items.get(keyOf(document));
    if (!item) return;
    item.wanted = wanted;
    item.refused = null;
    item.stored = this.drafts.put(document, item.saved.revision, wanted);
    void this.send(item);
  }

  /** Tries again at once whatever could not be sent. */
  retry(): void {
    clearTimeout(this.timer);
    for (const item of this.items.values()) {
      item.refused = null;
      void this.send(item);
    }
  }

  /** Ends the conflict that is shown: what is here goes on top of what somebody else saved, or below it. Both stay in the history. */
  resolve(choice: 'mine' | 'theirs'): void {
    const item = [...this.items.values()].find(({ theirs }) => theirs);
    if (!item?.theirs) return;
    const { theirs, wanted: mine } = item;
    item.saved = theirs;
    item.theirs = null;
    if (choice === 'theirs') {
      item.first = { content: mine };
      item.wanted = theirs.content;
      this.onTaken(item.document, item.wanted);
    }
    // Until it is sent, what was made here is what a reload must find.
    item.stored = this.drafts.put(item.document, theirs.revision, mine);
    void this.send(item);
  }

  /** Comes when everything is with the server. */
  whenSettled(): Promise<void> {
    return new Promise((tell) => {
      const look = () => {
        if (!this.settled) return;
        unwatch();
        tell();
      };
      const unwatch = this.subscribe(look);
      look();
    });
  }

  /** Whether everything is with the server. */
  get settled(): boolean {
    return [...this.items.values()].every((item) => !item.sending && isSaved(item));
  }

  /** Sends nothing more and leaves what is stored to whoever opens the documents again in this tab. */
  stop(): void {
    this.stopped = true;
    clearTimeout(this.timer);
  }

  private kindOf({ kind }: DocumentKey): DocumentKind<unknown> {
    const found = this.kinds.find(({ id }) => id === kind);
    if (!found) throw new Error(`no kind of document is called ${kind}`);
    return found;
  }

  private take(item: Item, draft: Draft): void {
    const wanted = item.kind.restore(draft.wanted);
    if (item.kind.same(wanted, item.saved.content)) {
      this.drafts.drop(item.document);
      return;
    }
    item.wanted = wanted;
    item.stored = this.drafts.put(item.document, draft.base, wanted);
    if (draft.base === item.saved.revision) void this.send(item);
    else this.disagree(item, item.saved);
  }

  private async send(item: Item): Promise<void> {
    if (this.stopped) return;
    if (item.sending || item.theirs) {
      this.tell();
      return;
    }
    if (isSaved(item)) {
      this.drafts.drop(item.document);
      item.stored = true;
      this.tell();
      return;
    }
    item.sending = true;
    this.tell();
    const wanted = item.first ? item.first.content : item.wanted;
    const outcome = await item.kind.send(item.document.id, wanted, item.saved);
    item.sending = false;
    if (!this.stopped) await this.after(item, outcome);
  }

  private async after(item: Item, outcome: Outcome<unknown>): Promise<void> {
    if (outcome.kind === 'saved') {
      this.failures = 0;
      this.away = false;
      item.saved = outcome.saved;
      if (item.first && item.kind.same(item.first.content, outcome.saved.content)) item.first = null;
      if (!isSaved(item)) {
        const waits = item.first ? item.first.content : item.wanted;
        item.stored = this.drafts.put(item.document, outcome.saved.revision, waits);
      }
      this.update({ savedAt: new Date() });
      await this.send(item);
    } else if (outcome.kind === 'unreachable') {
      this.later();
    } else if (outcome.kind === 'stale') {
      const theirs = await item.kind.read(item.document.id);
      if (theirs) this.disagree(item, theirs);
      else this.later();
    } else {
      item.refused = outcome.reason;
      this.tell();
    }
  }

  private disagree(item: Item, theirs: Saved<unknown>): void {
    if (item.first) [item.wanted, item.first] = [item.first.content, null];
    const { kind, saved, wanted } = item;
    // Nobody disagrees where both say the same, or where theirs is again what this was made from.
    const agreed =
      kind.same(theirs.content, wanted) ||
      kind.same(theirs.content, saved.content) ||
      kind.gives?.(theirs.content, saved.content);
    if (agreed && theirs !== saved) {
      item.saved = theirs;
      void this.send(item);
      return;
    }
    if (kind.merge && theirs !== saved) {
      item.wanted = kind.merge(wanted, theirs.content, saved.content);
      item.saved = theirs;
      item.stored = this.drafts.put(item.document, theirs.revision, item.wanted);
      this.onTaken(item.document, item.wanted);
      void this.send(item);
      return;
    }
    item.theirs = theirs;
    this.tell();
  }

  /** Tries again after a while. */
  private later(): void {
    this.away = true;
    const wait = WAITS[Math.min(this.failures, WAITS.length - 1)];
    this.failures += 1;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.again(), wait);
    this.tell();
  }

  private again(): void {
    for (const item of this.items.values()) if (item.refused === null) void this.send(item);
  }

  /** What is said of all documents together: the gravest first. */
  private tell(): void {
    const items = [...this.items.values()];
    const disputed = items.find(({ theirs }) => theirs);
    const refused = items.find((item) => item.refused !== null);
    const waits = items.some((item) => !isSaved(item));
    const conflict = disputed?.theirs
      ? {
          document: disputed.document,
          name: disputed.kind.name,
          mine: disputed.wanted,
          theirs: disputed.theirs.content,
        }
      : null;
    const state = conflict
      ? 'conflict'
      : refused
        ? 'refused'
        : !waits
          ? 'saved'
          : this.away
            ? 'unreachable'
            : 'sending';
    const stored = items.every((item) => item.stored);
    this.update({ state, reason: refused?.refused ?? null, conflict, stored });
  }
}

function isSaved({ kind, saved, wanted, first }: Item): boolean {
  return first === null && kind.same(saved.content, wanted);
}
