// A build opened on the workbench: what is on it, how it is kept, and what it computes to.

import { ask } from '../../api/ask';
import { remote } from '../../api/remote';
import { Simulator } from '../../api/simulator';
import type { BuildWithVariants, Variant } from '../../api/types';
import { Sync } from '../../model/sync';
import { type View, Workbench } from '../../model/workbench';

export class Session {
  readonly sync: Sync;
  readonly simulator = new Simulator(ask);
  readonly workbench: Workbench;
  private readonly viewKey: string;
  /** What was shown when the view was last remembered; every change of it is a new set. */
  private seen: ReadonlySet<string> | null = null;

  constructor(readonly build: BuildWithVariants) {
    this.viewKey = `oak-drum:view:${build.id}`;
    this.sync = new Sync(remote, localStorage, build.id);
    const variants = this.sync.arranged(build.variants).flatMap((one) => this.sync.open(one) ?? []);
    this.workbench = new Workbench(
      variants,
      this.view(),
      ({ id, design, archived }) => this.sync.want(id, { design, archived }),
      (ids) => this.sync.arrange(ids),
    );
  }

  /** Begins to compute and to remember what is looked at; returns how to stop. */
  start(): () => void {
    const commit = () => this.workbench.commit();
    const retry = () => this.sync.retry();
    const unwatch = this.workbench.subscribe(() => this.follow());
    window.addEventListener('pagehide', commit);
    window.addEventListener('online', retry);
    this.follow();
    return () => {
      commit();
      unwatch();
      window.removeEventListener('pagehide', commit);
      window.removeEventListener('online', retry);
      this.simulator.stop();
    };
  }

  /** A variant that the server has just made. */
  add(variant: Variant): void {
    this.sync.open(variant);
    this.workbench.add(variant);
  }

  resolveConflict(choice: 'mine' | 'theirs'): void {
    const id = this.sync.snapshot().conflict?.id;
    const design = this.sync.resolve(choice);
    if (id && design) this.workbench.replace(id, design);
  }

  private follow(): void {
    const bench = this.workbench.snapshot();
    for (const variant of bench.variants) {
      if (!variant.archived) this.simulator.show(variant.id, variant.design);
    }
    if (bench.shown === this.seen) return;
    this.seen = bench.shown;
    const view: View = { activeId: bench.activeId, shown: [...bench.shown] };
    localStorage.setItem(this.viewKey, JSON.stringify(view));
  }

  private view(): View | null {
    try {
      return JSON.parse(localStorage.getItem(this.viewKey) ?? 'null');
    } catch {
      return null;
    }
  }
}
