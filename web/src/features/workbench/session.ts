// A build opened on the workbench: what is on it, how it is saved, and what it computes to.

import { ask } from '../../api/ask';
import { documentKinds, keptOf, saved, textsOf, type Variant, variantsOf } from '../../api/documents';
import { Simulator } from '../../api/simulator';
import {
  briefKey,
  briefOf,
  type Held,
  type HeldVariant,
  orderKey,
  titleKey,
  variantKey,
} from '../../model/documents';
import { type DocumentKey, Drafts } from '../../model/drafts';
import { Outbox } from '../../model/outbox';
import { restoreVariant } from '../../model/restore';
import { openTabs, tabName } from '../../model/tab';
import {
  isKept,
  KEPT_KINDS,
  type KeptKind,
  type Listening,
  type Past,
  type View,
  Workbench,
} from '../../model/workbench';
import type { OpenBuild } from '../../schema/types';

/** The outbox of each build in this tab: opened again, the one before leaves the sending to it. */
const sending = new Map<string, Outbox>();

/** Most that is remembered of what can be undone, characters. */
const MOST_REMEMBERED = 1_000_000;

export class Session {
  readonly outbox: Outbox;
  readonly simulator = new Simulator(ask);
  readonly workbench: Workbench;
  private readonly drafts: Drafts;
  private readonly viewKey: string;
  private readonly pastKey: string;
  /** What was shown when the view was last remembered; every change of it is a new set. */
  private seen: ReadonlySet<string> | null = null;
  private heard: Listening | null = null;

  constructor(readonly build: OpenBuild) {
    this.viewKey = `oak-drum:view:${build.id}`;
    this.pastKey = `oak-drum:past:${build.id}`;
    this.drafts = new Drafts(localStorage, tabName(), build.id);
    const all = variantsOf(build);
    const ids = all.map(({ id }) => id);
    const { title, brief } = textsOf(build);
    this.drafts.takeEarlier(ids, title.id, brief.id);
    sending.get(build.id)?.stop();
    this.outbox = new Outbox(documentKinds(build.id), this.drafts, (document, content) => {
      this.workbench.replace(document, content);
    });
    sending.set(build.id, this.outbox);
    const called = this.outbox.open(titleKey(title.id), title.saved);
    const asked = this.outbox.open(briefKey(brief.id), brief.saved);
    const order = this.outbox.open<readonly string[]>(orderKey(build.id), { content: ids, revision: 0 });
    const place = ({ id }: Variant) => (order.includes(id) ? order.indexOf(id) : order.length);
    const variants = all
      .sort((a, b) => place(a) - place(b))
      .flatMap((variant) => {
        const { content, archived } = this.take(variant);
        return archived ? [] : [{ id: variant.id, design: content, place: variant.number }];
      });
    const kept = keptOf(build).map((one) => {
      const { kind, id } = one;
      return { kind, id, ...this.outbox.open({ kind, id }, saved<unknown>(one)) };
    });
    const view = parsed<View>(localStorage, this.viewKey);
    const past = parsed<Past>(sessionStorage, this.pastKey);
    this.workbench = new Workbench(
      {
        build: build.id,
        title: title.id,
        brief: brief.id,
        text: { ...called.content, brief: briefOf(asked) },
        variants,
        kept,
        next: build.next.variant?.number ?? 0,
        sole: Object.fromEntries(KEPT_KINDS.map((kind) => [kind, build.next[kind]?.id ?? undefined])),
        view,
        past,
      },
      (document, content) => this.want(document, content),
    );
  }

  /** Begins to compute and to remember what is looked at; returns how to stop. */
  start(): () => void {
    const leave = () => {
      this.workbench.commit();
      this.rememberPast();
    };
    const retry = () => this.outbox.retry();
    const warn = (event: BeforeUnloadEvent) => {
      if (!this.outbox.snapshot().stored) event.preventDefault();
    };
    const unwatch = this.workbench.subscribe(() => this.follow());
    window.addEventListener('pagehide', leave);
    window.addEventListener('online', retry);
    window.addEventListener('beforeunload', warn);
    this.follow();
    void openTabs().then((open) => this.recover(open));
    return () => {
      leave();
      unwatch();
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('online', retry);
      window.removeEventListener('beforeunload', warn);
      this.simulator.stop();
    };
  }

  /** Takes up a variant that the server has made, or brings one back from its archive. */
  bringBack(variant: Variant, label = 'bring back'): void {
    this.take(variant);
    this.workbench.addBack({ id: variant.id, design: variant.content, place: variant.number }, label);
  }

  /** Looks at what somebody else has made of a document that a build has one of. */
  refresh(kind: KeptKind): void {
    const document = this.workbench.soleOf(kind);
    if (!this.outbox.knows(document)) {
      this.outbox.open(document, { content: { content: {}, archived: true }, revision: 0 });
    }
    void this.outbox.refresh(document);
  }

  private take(variant: Variant): HeldVariant {
    return this.outbox.open(variantKey(variant.id), saved(variant), new Date(variant.saved_at));
  }

  private want(document: DocumentKey, content: unknown): void {
    // A new one, or one that an earlier page archived: the server says how it stands there.
    if (!this.outbox.knows(document)) {
      const wanted = content as Held<unknown>;
      this.outbox.open(document, { content: { ...wanted, archived: true }, revision: 0 });
    }
    this.outbox.want(document, content);
  }

  /** What this tab and tabs that are closed left unsent of documents that are not open here: new ones, and archived ones. */
  private recover(open: ReadonlySet<string> | null): void {
    for (const { tab, document, base, wanted } of this.outbox.left(open)) {
      const content = document.kind === 'variant' ? restoreVariant(wanted) : (wanted as Held<unknown>);
      if (document.kind !== 'variant' && !isKept(document)) continue;
      if (!content.archived) {
        this.outbox.open(document, { content: { ...content, archived: true }, revision: base });
        this.workbench.replace(document, content);
        this.outbox.want(document, content);
      }
      // What was to be archived is; what was to come back is this tab's own now.
      if (tab !== this.drafts.tab || content.archived) this.drafts.drop(document, tab);
    }
    this.outbox.adopt(open);
  }

  private follow(): void {
    const bench = this.workbench.snapshot();
    for (const variant of bench.variants) {
      if (!variant.archived) this.simulator.show(variant.id, variant.design);
    }
    if (bench.shown === this.seen && bench.listening === this.heard) return;
    this.seen = bench.shown;
    this.heard = bench.listening;
    const { activeId, listening } = bench;
    const view: View = { activeId, shown: [...bench.shown], listening };
    stored(localStorage, this.viewKey, JSON.stringify(view));
  }

  private rememberPast(): void {
    const { past, future } = this.workbench.history;
    for (let from = 0; from <= past.length; from += 10) {
      const text = JSON.stringify({ past: past.slice(from), future });
      if (text.length <= MOST_REMEMBERED && stored(sessionStorage, this.pastKey, text)) return;
    }
    sessionStorage.removeItem(this.pastKey);
  }
}

/** Whether there was room; what is looked at is no work. */
function stored(storage: Storage, key: string, text: string): boolean {
  try {
    storage.setItem(key, text);
    return true;
  } catch {
    return false;
  }
}

function parsed<Value>(storage: Storage, key: string): Value | null {
  try {
    return JSON.parse(storage.getItem(key) ?? 'null');
  } catch {
    return null;
  }
}
