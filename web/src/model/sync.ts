// Keeps variants and the order they stand in: sends what is wanted until the server has it, one request a variant
// at a time, and writes what is not yet sent where a reload finds it.

import type { RawDesign, Variant } from '../api/types';
import { same } from './design';
import { Observable } from './observable';
import { restoreDesign } from './restore';

export type Outcome =
  | { kind: 'kept'; revision: number }
  | { kind: 'unreachable' }
  | { kind: 'stale' }
  | { kind: 'refused'; reason: string };

export interface Remote {
  put(id: string, revision: number, design: RawDesign): Promise<Outcome>;
  archive(id: string, revision: number): Promise<Outcome>;
  restore(id: string): Promise<Outcome>;
  read(id: string): Promise<Variant | null>;
  arrange(build: string, ids: string[]): Promise<Outcome>;
}

interface Wanted {
  design: RawDesign;
  archived: boolean;
}

interface Item {
  kept: Wanted & { revision: number };
  wanted: Wanted;
  sending: boolean;
}

export interface Conflict {
  id: string;
  mine: RawDesign;
  theirs: RawDesign;
  revision: number;
}

export interface SyncState {
  state: 'kept' | 'sending' | 'unreachable' | 'conflict' | 'refused';
  /** Why something was refused. */
  reason: string | null;
  conflict: Conflict | null;
  keptAt: Date | null;
}

const PREFIX = 'oak-drum:unsent:';
const ORDER = 'oak-drum:order:';
const WAITS = [500, 1000, 2000, 4000, 8000];

export class Sync extends Observable<SyncState> {
  private items = new Map<string, Item>();
  /** The order that the server does not have yet. Nobody's work is lost by it: whoever arranges last has their way. */
  private order: { wanted: string[] | null; sending: boolean } = { wanted: null, sending: false };
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly remote: Remote,
    private readonly storage: Storage,
    private readonly build: string,
  ) {
    super({ state: 'kept', reason: null, conflict: null, keptAt: null });
  }

  /**
   * Takes up a variant as the server has it. Returns it as it should be, with what was never sent; null
   * where it was to be archived.
   */
  open(variant: Variant): Variant | null {
    const kept = { design: variant.document, archived: false, revision: variant.revision };
    const item: Item = { kept, wanted: kept, sending: false };
    this.items.set(variant.id, item);
    const keptAt = new Date(variant.kept_at);
    if (!this.state.keptAt || keptAt > this.state.keptAt) this.update({ keptAt });
    const unsent = this.stored<{ base: number; wanted: Wanted }>(PREFIX + variant.id);
    if (!unsent || same(unsent.wanted, { design: kept.design, archived: false })) return variant;
    const design = restoreDesign(unsent.wanted.design);
    item.wanted = { ...unsent.wanted, design };
    if (unsent.base === variant.revision) void this.send(variant.id);
    else this.conflictWith(variant, design);
    return unsent.wanted.archived ? null : { ...variant, document: design };
  }

  /** Variants of the build in the order that was never sent, if there is one; those it does not name come after. */
  arranged(variants: readonly Variant[]): readonly Variant[] {
    const order = this.stored<string[]>(ORDER + this.build);
    if (!order) return variants;
    this.arrange(order.filter((id) => variants.some((variant) => variant.id === id)));
    const place = ({ id }: Variant) => (order.includes(id) ? order.indexOf(id) : order.length);
    return [...variants].sort((a, b) => place(a) - place(b));
  }

  /** Says in which order the variants should stand. */
  arrange(ids: string[]): void {
    this.order.wanted = ids;
    this.storage.setItem(ORDER + this.build, JSON.stringify(ids));
    void this.sendOrder();
  }

  /** Says how a variant should be from now on. */
  want(id: string, wanted: Wanted): void {
    const item = this.items.get(id);
    if (!item) return;
    item.wanted = wanted;
    this.storage.setItem(PREFIX + id, JSON.stringify({ base: item.kept.revision, wanted }));
    void this.send(id);
  }

  /** Tries again at once whatever could not be sent. */
  retry(): void {
    clearTimeout(this.timer);
    for (const id of this.items.keys()) void this.send(id);
    void this.sendOrder();
  }

  /** Ends a conflict: what is here goes on top of what somebody else kept, or gives way to it. */
  resolve(choice: 'mine' | 'theirs'): RawDesign | null {
    const conflict = this.state.conflict;
    const item = conflict && this.items.get(conflict.id);
    if (!conflict || !item) return null;
    item.kept = { design: conflict.theirs, archived: false, revision: conflict.revision };
    const design = choice === 'mine' ? conflict.mine : conflict.theirs;
    this.update({ conflict: null, state: 'kept' });
    this.want(conflict.id, { design, archived: false });
    return design;
  }

  /** Whether everything is with the server. */
  get settled(): boolean {
    return !this.order.wanted && [...this.items.values()].every((item) => !item.sending && isKept(item));
  }

  private async send(id: string): Promise<void> {
    const item = this.items.get(id);
    if (!item || item.sending || this.state.conflict?.id === id) return;
    if (isKept(item)) {
      this.storage.removeItem(PREFIX + id);
      this.rest();
      return;
    }
    item.sending = true;
    this.begin();
    const wanted = item.wanted;
    const outcome = await this.ask(id, item);
    item.sending = false;
    await this.take(id, item, wanted, outcome);
  }

  private async sendOrder(): Promise<void> {
    const { wanted, sending } = this.order;
    if (!wanted || sending) return;
    this.order.sending = true;
    this.begin();
    const outcome = await this.remote.arrange(this.build, wanted);
    this.order.sending = false;
    if (outcome.kind === 'unreachable') {
      this.later();
      return;
    }
    this.failures = 0;
    if (this.order.wanted !== wanted) {
      await this.sendOrder();
    } else {
      this.order.wanted = null;
      this.storage.removeItem(ORDER + this.build);
      if (outcome.kind === 'refused') this.update({ state: 'refused', reason: outcome.reason });
      else this.rest();
    }
  }

  /** Says that something is on its way. */
  private begin(): void {
    if (this.state.state !== 'unreachable') this.update({ state: 'sending', reason: null });
  }

  /** Says that everything is kept where it is. */
  private rest(): void {
    if (this.settled && this.state.state !== 'refused') this.update({ state: 'kept', reason: null });
  }

  /** Tries again after a while. */
  private later(): void {
    this.update({ state: 'unreachable' });
    const wait = WAITS[Math.min(this.failures, WAITS.length - 1)];
    this.failures += 1;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.retry(), wait);
  }

  private ask(id: string, item: Item): Promise<Outcome> {
    if (item.wanted.archived && !item.kept.archived) return this.remote.archive(id, item.kept.revision);
    if (!item.wanted.archived && item.kept.archived) return this.remote.restore(id);
    return this.remote.put(id, item.kept.revision, item.wanted.design);
  }

  private async take(id: string, item: Item, wanted: Wanted, outcome: Outcome): Promise<void> {
    if (outcome.kind === 'kept') {
      this.failures = 0;
      const onlyMoved = wanted.archived !== item.kept.archived;
      const design = onlyMoved ? item.kept.design : wanted.design;
      item.kept = { design, archived: wanted.archived, revision: outcome.revision };
      this.update({ state: 'sending', reason: null, keptAt: new Date() });
      await this.send(id);
    } else if (outcome.kind === 'unreachable') {
      this.later();
    } else if (outcome.kind === 'stale') {
      const theirs = await this.remote.read(id);
      if (theirs) this.conflictWith(theirs, item.wanted.design);
      else this.update({ state: 'refused', reason: 'it was archived in another window' });
    } else {
      this.update({ state: 'refused', reason: outcome.reason });
    }
  }

  private conflictWith(theirs: Variant, mine: RawDesign): void {
    const item = this.items.get(theirs.id);
    if (item && same(theirs.document, mine)) {
      item.kept = { design: theirs.document, archived: false, revision: theirs.revision };
      void this.send(theirs.id);
      return;
    }
    const conflict = { id: theirs.id, mine, theirs: theirs.document, revision: theirs.revision };
    this.update({ state: 'conflict', conflict });
  }

  private stored<Value>(key: string): Value | null {
    try {
      return JSON.parse(this.storage.getItem(key) ?? 'null');
    } catch {
      return null;
    }
  }
}

function isKept(item: Item): boolean {
  const { kept, wanted } = item;
  // An archived variant needs no newer design until it is brought back.
  return kept.archived === wanted.archived && (wanted.archived || same(kept.design, wanted.design));
}
