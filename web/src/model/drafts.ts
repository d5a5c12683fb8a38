// What was not sent yet, where a reload finds it: one entry a tab and document.

const PREFIX = 'oak-drum:unsent:';

/** A document: its kind and its key. */
export interface DocumentKey {
  kind: string;
  id: string;
}

/** One word for it. */
export const keyOf = ({ kind, id }: DocumentKey): string => `${kind}:${id}`;

export interface Draft {
  tab: string;
  document: DocumentKey;
  /** The revision that it was made from. */
  base: number;
  wanted: unknown;
}

export class Drafts {
  constructor(
    private readonly storage: Storage,
    readonly tab: string,
    private readonly build: string,
  ) {}

  private key(tab: string, document: DocumentKey): string {
    return `${PREFIX}${this.build}:${keyOf(document)}:${tab}`;
  }

  /** Whether there was room for it. */
  put(document: DocumentKey, base: number, wanted: unknown): boolean {
    try {
      this.storage.setItem(this.key(this.tab, document), JSON.stringify({ base, wanted }));
      return true;
    } catch {
      return false;
    }
  }

  drop(document: DocumentKey, tab = this.tab): void {
    this.storage.removeItem(this.key(tab, document));
  }

  /** What any tab has not sent of this build; what cannot be read is passed over. */
  all(): Draft[] {
    const begin = `${PREFIX}${this.build}:`;
    const keys = Array.from({ length: this.storage.length }, (_, at) => this.storage.key(at) ?? '');
    return keys.flatMap((key) => {
      if (!key.startsWith(begin)) return [];
      const [kind = '', id = '', tab = ''] = key.slice(begin.length).split(':');
      try {
        const { base, wanted } = JSON.parse(this.storage.getItem(key) ?? '');
        return [{ tab, document: { kind, id }, base: Number(base), wanted }];
      } catch {
        return [];
      }
    });
  }

  /** Takes over what earlier programs left: one knew no tabs, one had name and brief in a document. */
  takeEarlier(variants: readonly string[], title: string, brief: string): void {
    for (const { tab, document, base, wanted } of this.all()) {
      if (document.kind !== 'text') continue;
      const { name, notes, brief: content } = wanted as { name: string; notes: string; brief: unknown };
      // What that program had last saved became the first revision of both.
      const first = Math.min(base, 1);
      const both =
        this.put({ kind: 'title', id: title }, first, { content: { name, notes }, archived: false }) &&
        this.put({ kind: 'brief', id: brief }, first, { content: content ?? {}, archived: content === null });
      if (both) this.drop(document, tab);
    }
    for (const id of variants) {
      const left = this.storage.getItem(PREFIX + id);
      if (left === null) continue;
      try {
        const { base, wanted } = JSON.parse(left);
        if (!this.put({ kind: 'variant', id }, Number(base), wanted)) continue;
      } catch {
        // It cannot be read: nobody can send it.
      }
      this.storage.removeItem(PREFIX + id);
    }
  }

  /** What this tab has not sent of a document. */
  own(document: DocumentKey): Draft | undefined {
    return this.all().find((draft) => draft.tab === this.tab && keyOf(draft.document) === keyOf(document));
  }
}
