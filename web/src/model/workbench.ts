// What is on the workbench, and how it got there. Framework-free; see `outbox.ts` for how it is saved.

import type { RawBrief, RawDesign, RawTitle } from '../schema/types';
import { same, unordered } from './design';
import {
  briefKey,
  briefOf,
  type Held,
  type HeldBrief,
  type HeldTitle,
  type HeldVariant,
  held,
  heldBrief,
  type Order,
  orderKey,
  titleKey,
  variantKey,
} from './documents';
import { type DocumentKey, keyOf } from './drafts';
import { Observable } from './observable';

export interface OnBench {
  id: string;
  design: RawDesign;
  /** Which of the marks it has; it stays when others go or the shelf is put in another order. */
  place: number;
  archived: boolean;
}

/** What is said of a build besides its variants. */
export interface BuildText extends RawTitle {
  brief: RawBrief | null;
}

/** One step of history: a document before and after it. */
export interface Change {
  label: string;
  document: DocumentKey;
  before: unknown;
  after: unknown;
}

/** What can be undone and done again. */
export interface Past {
  past: Change[];
  future: Change[];
}

/** A document beside name, brief and variants: a preset, a place, how it is made, what is done, an entry of the log, a measurement. */
export interface Kept {
  kind: KeptKind;
  id: string;
  content: unknown;
  archived: boolean;
}

export const KEPT_KINDS = ['preset', 'place', 'workshop', 'progress', 'entry', 'measurement'] as const;
export type KeptKind = (typeof KEPT_KINDS)[number];

/** Of these one at a time is listened to. */
const HEARD_KINDS = ['preset', 'place'] as const;
export type HeardKind = (typeof HEARD_KINDS)[number];
const isHeard = (kind: KeptKind): kind is HeardKind => HEARD_KINDS.some((one) => one === kind);

export const isKept = (document: DocumentKey): document is { kind: KeptKind; id: string } =>
  KEPT_KINDS.some((kind) => kind === document.kind);

/** Which preset it is played through and in which place it is heard, by key; null where none. */
export type Listening = Record<HeardKind, string | null>;

export interface Bench {
  variants: readonly OnBench[];
  kept: readonly Kept[];
  listening: Listening;
  text: BuildText;
  activeId: string | null;
  shown: ReadonlySet<string>;
  /** What undo and redo would do, in words; null where there is nothing. */
  undo: string | null;
  redo: string | null;
}

export interface View {
  activeId: string | null;
  shown: string[];
  listening?: Listening;
}

/** Told whenever a document is to be as it says from now on. */
export type OnWanted = (document: DocumentKey, content: unknown) => void;

export interface Opened {
  build: string;
  /** Keys of the documents of name and brief. */
  title: string;
  brief: string;
  text: BuildText;
  variants: readonly Omit<OnBench, 'archived'>[];
  kept?: readonly Kept[];
  /** The place of the next variant. */
  next: number;
  /** Keys of the documents that a build has one of, by their kind. */
  sole?: Partial<Record<KeptKind, string>>;
  view: View | null;
  past?: Past | null;
}

const MOST_CHANGES = 200;
/** More lines than this in one lane cannot be told apart or read off. */
const MOST_SHOWN = 4;

export class Workbench extends Observable<Bench> {
  private past: Change[] = [];
  private future: Change[] = [];
  /** The variant being changed and how it was before the gesture began. */
  private gesture: { id: string; design: RawDesign } | null = null;
  /** The same of a document beside the variants. */
  private pulled: Kept | null = null;

  private readonly order: DocumentKey;
  private readonly title: DocumentKey;
  readonly brief: DocumentKey;
  private next: number;
  private readonly sole: Partial<Record<KeptKind, string>>;

  constructor(
    { build, title, brief, text, variants, kept = [], next, sole = {}, view, past }: Opened,
    private readonly onWanted: OnWanted,
  ) {
    const onBench = variants.map((variant) => ({ ...variant, archived: false }));
    const known = (id: string) => onBench.some((variant) => variant.id === id);
    const activeId = view?.activeId && known(view.activeId) ? view.activeId : (onBench[0]?.id ?? null);
    const shown = new Set(view ? view.shown.filter(known) : onBench.slice(0, 2).map((variant) => variant.id));
    super({
      variants: onBench,
      kept,
      // The first place is where it is heard until another is chosen, or none.
      listening: view?.listening ?? {
        preset: null,
        place: kept.find(({ kind, archived }) => kind === 'place' && !archived)?.id ?? null,
      },
      text,
      activeId,
      shown: withShown(shown, activeId, activeId),
      undo: null,
      redo: null,
    });
    this.order = orderKey(build);
    this.title = titleKey(title);
    this.brief = briefKey(brief);
    this.next = next;
    this.sole = sole;
    if (past) this.remember(past);
  }

  /** What can be undone and done again, to be remembered. */
  get history(): Past {
    return { past: this.past, future: this.future };
  }

  /** The document of a kind that a build has one of, whether or not there is one yet. */
  soleOf(kind: KeptKind): DocumentKey {
    const known = this.state.kept.find((one) => one.kind === kind && !one.archived)?.id;
    return { kind, id: known ?? this.sole[kind] ?? crypto.randomUUID() };
  }

  find(id: string): OnBench | undefined {
    return this.state.variants.find((variant) => variant.id === id);
  }

  /** Shows a change that is still going on, as in a drag. */
  preview(id: string, design: RawDesign): void {
    const variant = this.find(id);
    if (!variant) return;
    if (this.gesture?.id !== id) {
      this.commit();
      this.gesture = { id, design: variant.design };
    }
    this.put({ ...variant, design });
  }

  /** Ends the change going on: one step of history, one revision. */
  commit(label = 'change'): void {
    const begun = this.gesture;
    const variant = begun && this.find(begun.id);
    // A value that was moved and moved back has not been set.
    if (variant && same(unordered(begun.design), unordered(variant.design))) {
      this.put({ ...variant, design: begun.design });
    }
    this.end(label);
  }

  private end(label: string): void {
    this.endKept(label);
    const begun = this.gesture;
    this.gesture = null;
    const variant = begun && this.find(begun.id);
    if (!begun || !variant || same(begun.design, variant.design)) return;
    this.record(label, variantKey(variant.id), held(begun.design), held(variant.design));
    this.wanted(variant);
  }

  /** A change all at once. */
  edit(id: string, design: RawDesign, label: string): void {
    this.commit();
    this.preview(id, design);
    this.end(label);
  }

  /** A document beside the variants. */
  findKept(kind: KeptKind, id: string): Kept | undefined {
    return this.state.kept.find((one) => one.kind === kind && one.id === id);
  }

  /** Those of a kind that are not archived. */
  keptOf(kind: KeptKind): Kept[] {
    return this.state.kept.filter((one) => one.kind === kind && !one.archived);
  }

  /** Shows a change of a document that is still going on, as in a drag. */
  previewKept(kind: KeptKind, id: string, content: unknown): void {
    const there = this.findKept(kind, id);
    if (!there) return;
    if (this.pulled?.id !== id) {
      this.commit();
      this.pulled = there;
    }
    this.putKept({ ...there, content });
  }

  private endKept(label: string): void {
    const before = this.pulled;
    this.pulled = null;
    const after = before && this.findKept(before.kind, before.id);
    if (!before || !after || same(before.content, after.content)) return;
    this.recordKept(label, before, after);
  }

  /** Makes or changes a document, or archives it and brings it back: one step of history, one revision. */
  keep(next: Kept, label: string): void {
    this.commit();
    const before = this.findKept(next.kind, next.id) ?? { ...next, archived: true };
    if (same(before, next)) return;
    this.putKept(next);
    this.recordKept(label, before, next);
  }

  private recordKept(label: string, before: Kept, after: Kept): void {
    const document = { kind: after.kind, id: after.id };
    this.record(label, document, heldKept(before), heldKept(after));
    this.onWanted(document, heldKept(after));
  }

  private putKept(next: Kept): void {
    const { kept, listening } = this.state;
    const is = (one: Kept) => one.kind === next.kind && one.id === next.id;
    this.update({
      kept: kept.some(is) ? kept.map((one) => (is(one) ? next : one)) : [...kept, next],
    });
    const { kind, id, archived } = next;
    if (archived && isHeard(kind) && listening[kind] === id) this.listen({ [kind]: null });
  }

  /** Chooses what it is played through and where it is heard. */
  listen(change: Partial<Listening>): void {
    this.update({ listening: { ...this.state.listening, ...change } });
  }

  /** A new variant. Returns its key. */
  create(design: RawDesign): string {
    const id = crypto.randomUUID();
    this.add({ id, design, place: this.next }, 'new variant');
    return id;
  }

  /** A variant that comes back from the archive of the server. */
  addBack(variant: Omit<OnBench, 'archived'>, label = 'bring back'): void {
    this.add(variant, label);
  }

  private add(variant: Omit<OnBench, 'archived'>, label: string): void {
    this.commit();
    const { id, design } = variant;
    // One that was archived here comes back to where it stood.
    const place = this.find(id)?.place ?? variant.place;
    this.next = Math.max(this.next, place + 1);
    this.put({ id, design, place, archived: true });
    this.record(label, variantKey(id), { content: design, archived: true }, held(design));
    this.become(id, held(design));
  }

  archive(id: string): void {
    this.commit();
    const variant = this.find(id);
    if (!variant) return;
    const before = held(variant.design);
    const after = { ...before, archived: true };
    this.record('archive', variantKey(id), before, after);
    this.become(id, after);
  }

  /** Brings back a variant that was archived here. */
  bringBack(id: string): void {
    this.commit();
    const variant = this.find(id);
    if (!variant?.archived) return;
    const after = held(variant.design);
    this.record('bring back', variantKey(id), { ...after, archived: true }, after);
    this.become(id, after);
  }

  /** Puts a variant one place further on the shelf, or back, past those that are put away. */
  move(id: string, by: 1 | -1): void {
    this.commit();
    const before = this.present;
    const at = before.indexOf(id);
    const [moved, other] = [before[at], before[at + by]];
    if (!moved || !other) return;
    const after = [...before];
    [after[at], after[at + by]] = [other, moved];
    this.record('order', this.order, before, after);
    this.arrange(after);
  }

  /** Changes name, notes or brief of the build. */
  write(change: Partial<BuildText>, label: string): void {
    this.commit();
    const before = this.state.text;
    const after = { ...before, ...change };
    if (same(before, after)) return;
    this.update({ text: after });
    const changed: [DocumentKey, unknown, unknown][] = [
      [this.title, titleIn(before), titleIn(after)],
      [this.brief, heldBrief(before.brief), heldBrief(after.brief)],
    ];
    for (const [document, was, is] of changed) {
      if (same(was, is)) continue;
      this.record(label, document, was, is);
      this.onWanted(document, is);
    }
  }

  /** What somebody else saved takes the place of what is here. No step of history, and none leads back before it. */
  replace(document: DocumentKey, content: unknown): void {
    const other = (change: Change) => keyOf(change.document) !== keyOf(document);
    this.past = this.past.filter(other);
    this.future = this.future.filter(other);
    this.show(document, content);
    this.tellHistory();
  }

  activate(id: string): void {
    this.commit();
    this.update({ activeId: id, shown: withShown(this.state.shown, id, id) });
  }

  /** Shows or hides a variant beside the active one; what was shown first goes when there are too many. */
  overlay(id: string, show: boolean): void {
    const { activeId, shown } = this.state;
    if (show) this.update({ shown: withShown(shown, id, activeId) });
    else if (id !== activeId) this.update({ shown: new Set([...shown].filter((other) => other !== id)) });
  }

  undo(): void {
    this.commit();
    const change = this.past.pop();
    if (!change) return;
    this.future.push(change);
    this.apply(change.document, change.before);
    this.tellHistory();
  }

  redo(): void {
    this.commit();
    const change = this.future.pop();
    if (!change) return;
    this.past.push(change);
    this.apply(change.document, change.after);
    this.tellHistory();
  }

  private apply(document: DocumentKey, content: unknown): void {
    if (document.kind === 'variant') {
      this.become(document.id, content as HeldVariant);
    } else if (document.kind === 'order') {
      // Those that came or went since keep their places behind the others.
      const present = this.present;
      const wanted = (content as Order).filter((id) => present.includes(id));
      this.arrange([...wanted, ...present.filter((id) => !wanted.includes(id))]);
    } else {
      this.show(document, content);
      this.onWanted(document, content);
    }
  }

  private show(document: DocumentKey, content: unknown): void {
    const { text } = this.state;
    if (document.kind === 'title') this.update({ text: { ...text, ...(content as HeldTitle).content } });
    if (document.kind === 'brief') this.update({ text: { ...text, brief: briefOf(content as HeldBrief) } });
    if (isKept(document)) this.putKept({ ...document, ...(content as Held<unknown>) });
    if (document.kind !== 'variant') return;
    const { content: design, archived } = content as HeldVariant;
    const next = { ...this.whereabouts(document.id), design, archived };
    this.put(next);
    if (next.archived && this.state.activeId === next.id) this.activateNeighbour(next);
  }

  /** The variants that are not archived, in their order. */
  private get present(): string[] {
    return this.state.variants.filter(({ archived }) => !archived).map(({ id }) => id);
  }

  private arrange(ids: readonly string[]): void {
    const place = ({ id, archived }: OnBench) => (archived ? ids.length : ids.indexOf(id));
    this.update({ variants: [...this.state.variants].sort((a, b) => place(a) - place(b)) });
    this.onWanted(this.order, [...ids]);
  }

  private wanted({ id, design, archived }: OnBench): void {
    this.onWanted(variantKey(id), { content: design, archived });
  }

  private become(id: string, { content: design, archived }: HeldVariant): void {
    const next = { ...this.whereabouts(id), design, archived };
    this.put(next);
    this.wanted(next);
    if (!archived) this.activate(id);
    else if (this.state.activeId === id) this.activateNeighbour(next);
  }

  private activateNeighbour(gone: OnBench): void {
    const left = this.state.variants.filter((variant) => !variant.archived);
    const at = this.state.variants.findIndex((variant) => variant.id === gone.id);
    const neighbour = this.state.variants.slice(0, at).findLast((one) => !one.archived) ?? left[0];
    const shown = new Set([...this.state.shown].filter((id) => id !== gone.id));
    if (neighbour) shown.add(neighbour.id);
    this.update({ activeId: neighbour?.id ?? null, shown });
  }

  /** A variant as it is here; of one that an earlier page archived its place alone. */
  private whereabouts(id: string): Pick<OnBench, 'id' | 'place'> {
    return this.find(id) ?? { id, place: this.next++ };
  }

  private put(next: OnBench): void {
    const { variants } = this.state;
    const known = variants.some(({ id }) => id === next.id);
    this.update({
      variants: known ? variants.map((one) => (one.id === next.id ? next : one)) : [...variants, next],
    });
  }

  private record(label: string, document: DocumentKey, before: unknown, after: unknown): void {
    this.past = [...this.past, { label, document, before, after }].slice(-MOST_CHANGES);
    this.future = [];
    this.tellHistory();
  }

  /** Takes up what an earlier page could undo, but for documents that are no longer as it left them. */
  private remember({ past, future }: Past): void {
    // The last step of a document that was undone, or else done, says how it was left.
    const last = new Map<string, unknown>();
    for (const { document, after } of past) last.set(keyOf(document), after);
    for (const { document, before } of future) last.set(keyOf(document), before);
    const stands = (document: DocumentKey) => {
      const left = last.get(keyOf(document));
      if (document.kind === 'title') return same(left, titleIn(this.state.text));
      if (document.kind === 'brief') return same(left, heldBrief(this.state.text.brief));
      if (document.kind === 'order') return same(left, this.present);
      if (isKept(document)) {
        const there = this.findKept(document.kind, document.id);
        return there ? same(left, heldKept(there)) : (left as Held<unknown>).archived;
      }
      if (document.kind !== 'variant') return false;
      const variant = this.find(document.id);
      const { content, archived } = left as HeldVariant;
      // An earlier program called its content otherwise.
      if (!content) return false;
      return variant ? !archived && same(content, variant.design) : archived;
    };
    const held = ({ document }: Change) => stands(document);
    [this.past, this.future] = [past.filter(held), future.filter(held)];
    this.tellHistory();
  }

  private tellHistory(): void {
    this.update({ undo: this.past.at(-1)?.label ?? null, redo: this.future.at(-1)?.label ?? null });
  }
}

const heldKept = ({ content, archived }: Kept): Held<unknown> => ({ content, archived });

function titleIn({ name, notes }: BuildText): HeldTitle {
  return held({ name, notes });
}

/** The shown variants with one more, the latest last, never without the active one. */
function withShown(shown: ReadonlySet<string>, id: string | null, activeId: string | null): Set<string> {
  const next = new Set([...shown].filter((other) => other !== id));
  if (id) next.add(id);
  for (const oldest of next) {
    if (next.size <= MOST_SHOWN) break;
    if (oldest !== activeId && oldest !== id) next.delete(oldest);
  }
  return next;
}
