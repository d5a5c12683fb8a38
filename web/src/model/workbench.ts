// What is on the workbench, and how it got there. Framework-free; see `sync.ts` for how it is kept.

import type { RawDesign, Variant } from '../api/types';
import { same, unordered } from './design';
import { Observable } from './observable';

export interface OnBench {
  id: string;
  design: RawDesign;
  /** Which of the marks it has; it stays when others go or the shelf is put in another order. */
  place: number;
  archived: boolean;
}

interface Change {
  label: string;
  id: string;
  before: { design: RawDesign; archived: boolean };
  after: { design: RawDesign; archived: boolean };
}

export interface Bench {
  variants: readonly OnBench[];
  activeId: string | null;
  shown: ReadonlySet<string>;
  /** What undo and redo would do, in words; null where there is nothing. */
  undo: string | null;
  redo: string | null;
}

export interface View {
  activeId: string | null;
  shown: string[];
}

/** Told whenever a change is finished and should be kept. */
export type OnSettled = (variant: OnBench) => void;

const MOST_CHANGES = 200;
/** More lines than this in one lane cannot be told apart or read off. */
const MOST_SHOWN = 4;

export class Workbench extends Observable<Bench> {
  private past: Change[] = [];
  private future: Change[] = [];
  /** The variant being changed and how it was before the gesture began. */
  private gesture: { id: string; design: RawDesign } | null = null;

  constructor(
    variants: readonly Variant[],
    view: View | null,
    private readonly onSettled: OnSettled,
    private readonly onArranged: (ids: string[]) => void = () => undefined,
  ) {
    const onBench = variants.map((variant) => ({
      id: variant.id,
      design: variant.document,
      place: variant.mark,
      archived: false,
    }));
    const known = (id: string) => onBench.some((variant) => variant.id === id);
    const activeId = view?.activeId && known(view.activeId) ? view.activeId : (onBench[0]?.id ?? null);
    const shown = new Set(view ? view.shown.filter(known) : onBench.slice(0, 2).map((variant) => variant.id));
    super({
      variants: onBench,
      activeId,
      shown: withShown(shown, activeId, activeId),
      undo: null,
      redo: null,
    });
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
    const begun = this.gesture;
    this.gesture = null;
    const variant = begun && this.find(begun.id);
    if (!begun || !variant || same(begun.design, variant.design)) return;
    this.record({
      label,
      id: variant.id,
      before: { design: begun.design, archived: false },
      after: { design: variant.design, archived: false },
    });
    this.onSettled(variant);
  }

  /** A change all at once. */
  edit(id: string, design: RawDesign, label: string): void {
    this.commit();
    this.preview(id, design);
    this.end(label);
  }

  /** A variant that the server has just made, or brought back. */
  add(variant: Variant): void {
    this.commit();
    const added = { id: variant.id, design: variant.document, place: variant.mark, archived: false };
    // One that was put away here comes back to where it stood.
    if (this.find(variant.id)) this.put(added);
    else this.update({ variants: [...this.state.variants, added] });
    const design = variant.document;
    this.record({
      label: 'new variant',
      id: variant.id,
      before: { design, archived: true },
      after: { design, archived: false },
    });
    this.activate(variant.id);
  }

  archive(id: string): void {
    this.commit();
    const variant = this.find(id);
    if (!variant) return;
    const { design } = variant;
    this.record({
      label: 'archive',
      id,
      before: { design, archived: false },
      after: { design, archived: true },
    });
    this.become(id, design, true);
  }

  /** Puts a variant one place further on the shelf, or back, past those that are put away. */
  move(id: string, by: 1 | -1): void {
    const present = this.state.variants.filter((variant) => !variant.archived);
    const at = present.findIndex((variant) => variant.id === id);
    const [moved, other] = [present[at], present[at + by]];
    if (!moved || !other) return;
    [present[at], present[at + by]] = [other, moved];
    this.update({ variants: [...present, ...this.state.variants.filter((variant) => variant.archived)] });
    this.onArranged(present.map((variant) => variant.id));
  }

  /** What somebody else kept takes the place of what is here; no step of history. */
  replace(id: string, design: RawDesign): void {
    const variant = this.find(id);
    if (variant) this.put({ ...variant, design });
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
    this.become(change.id, change.before.design, change.before.archived);
    this.tellHistory();
  }

  redo(): void {
    this.commit();
    const change = this.future.pop();
    if (!change) return;
    this.past.push(change);
    this.become(change.id, change.after.design, change.after.archived);
    this.tellHistory();
  }

  private become(id: string, design: RawDesign, archived: boolean): void {
    const variant = this.find(id);
    if (!variant) return;
    const next = { ...variant, design, archived };
    this.put(next);
    this.onSettled(next);
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

  private put(next: OnBench): void {
    this.update({
      variants: this.state.variants.map((variant) => (variant.id === next.id ? next : variant)),
    });
  }

  private record(change: Change): void {
    this.past = [...this.past, change].slice(-MOST_CHANGES);
    this.future = [];
    this.tellHistory();
  }

  private tellHistory(): void {
    this.update({ undo: this.past.at(-1)?.label ?? null, redo: this.future.at(-1)?.label ?? null });
  }
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
