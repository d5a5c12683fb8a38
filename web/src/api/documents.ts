// The kinds of documents as the server has them. All but the order of the variants are saved in one way; a new kind is an entry in
// `KEPT`.

import { same } from '../model/design';
import { type Held, held, heldBrief, type Order } from '../model/documents';
import type { DocumentKind, Outcome, Saved } from '../model/outbox';
import { mergedProgress } from '../model/progress';
import { restoreVariant } from '../model/restore';
import { KEPT_KINDS } from '../model/workbench';
import type { NewDocument, OpenBuild, RawBrief, RawDesign, SavedDocument } from '../schema/types';
import { answered, api, ifMatch, Refusal } from './client';

/** What became of a request; a dead or overloaded server is asked again. */
async function outcome<Content>(request: Promise<Saved<Content>>): Promise<Outcome<Content>> {
  try {
    return { kind: 'saved', saved: await request };
  } catch (error) {
    if (!(error instanceof Refusal)) return { kind: 'unreachable' };
    const { status, detail } = error.document;
    if (status === 412) return { kind: 'stale' };
    return status >= 500 || status === 429 || status === 408
      ? { kind: 'unreachable' }
      : { kind: 'refused', reason: detail };
  }
}

export function saved<Content>(document: {
  content: Content;
  archived: boolean;
  revision: number;
}): Saved<Held<Content>> {
  const { content, archived, revision } = document;
  return { content: { content, archived }, revision };
}

type Kept = SavedDocument['kind'];

interface KeptKind {
  /** What it is called where two windows changed it. */
  name: string;
  /** Lifts what an earlier program left unsent. */
  restore?: (wanted: unknown) => Held<unknown>;
  /** Both changes in one, where nobody has to choose. */
  merge?: (mine: unknown, theirs: unknown, base: unknown) => unknown;
}

const KEPT: Record<Kept, KeptKind> = {
  title: { name: 'The name of this build' },
  brief: { name: 'The brief of this build' },
  variant: { name: 'This variant', restore: restoreVariant },
  preset: { name: 'This preset' },
  place: { name: 'This place' },
  workshop: { name: 'How this build is made' },
  progress: { name: 'What is done of this build', merge: mergedProgress },
  entry: { name: 'This entry of the log' },
  measurement: { name: 'This measurement' },
};

/** Saves a document: a new one where it has no revision yet. */
export function writeDocument(
  build: string,
  kind: Kept,
  id: string,
  revision: number,
  { content, archived }: Held<unknown>,
): Promise<SavedDocument> {
  const header = revision === 0 ? { 'If-None-Match': '*' } : ifMatch(revision);
  const body = { build, kind, content, archived } as NewDocument;
  return answered(api.PUT('/api/v1/documents/{id}', { params: { path: { id }, header }, body }));
}

/** Makes a variant at once, without the outbox. */
export async function createVariant(build: string, design: RawDesign): Promise<Variant> {
  return (await writeDocument(build, 'variant', crypto.randomUUID(), 0, held(design))) as Variant;
}

function kept(build: string, id: Kept, { name, restore, merge }: KeptKind): DocumentKind<Held<unknown>> {
  return {
    id,
    name,
    send: (document, wanted, { revision }) =>
      outcome(
        writeDocument(build, id, document, revision, wanted).then((document) => saved<unknown>(document)),
      ),
    read: (document) =>
      answered(api.GET('/api/v1/documents/{id}', { params: { path: { id: document } } })).then(
        (found) => saved<unknown>(found),
        () => null,
      ),
    // An archived one needs no newer content until it is brought back.
    same: (a, b) => a.archived === b.archived && (a.archived || same(a.content, b.content)),
    // One that was only archived elsewhere comes back with what was changed here.
    gives: (theirs, base) => theirs.archived && same(theirs.content, base.content),
    ...(merge && {
      merge: (mine: Held<unknown>, theirs: Held<unknown>, base: Held<unknown>) => ({
        ...mine,
        content: merge(mine.content, theirs.content, base.content),
      }),
    }),
    restore: restore ?? ((wanted) => wanted),
  };
}

/** Nobody's work is lost by an order: whoever arranges last has their way. */
const order: DocumentKind<Order> = {
  id: 'order',
  name: 'The order of the variants',
  send(id, wanted, { revision }) {
    const body = { documents: [...wanted] };
    return outcome(
      answered(api.PUT('/api/v1/builds/{id}/order', { params: { path: { id } }, body })).then(() => ({
        content: wanted,
        revision,
      })),
    );
  },
  read: () => Promise.resolve(null),
  same,
  restore: (content) => content,
};

/** Every kind of document of a build. */
export function documentKinds(build: string): readonly DocumentKind<unknown>[] {
  const all = Object.entries(KEPT).map(([id, kind]) => kept(build, id as Kept, kind));
  return [...all, order];
}

/** A variant as the server has it. */
export type Variant = Extract<SavedDocument, { kind: 'variant' }>;
type Of<Kind extends Kept> = Extract<SavedDocument, { kind: Kind }>;

const of = <Kind extends Kept>({ documents }: OpenBuild, kind: Kind) =>
  documents.filter((one): one is Of<Kind> => one.kind === kind);

/** Whether a build has any document of a kind. */
export const has = (build: OpenBuild | null | undefined, kind: Kept): boolean =>
  Boolean(build && of(build, kind).length > 0);

/** What is kept beside name, brief and variants. */
export const keptOf = (build: OpenBuild) => KEPT_KINDS.flatMap((kind) => of(build, kind));

export const variantsOf = (build: OpenBuild): Variant[] => of(build, 'variant');

export function briefOf(build: OpenBuild): RawBrief | null {
  return of(build, 'brief')[0]?.content ?? null;
}

export function nameOf(build: OpenBuild): string {
  return of(build, 'title')[0]?.content.name ?? 'Build without a name';
}

/** The title and the brief of a build, with a key where it has none yet. */
export function textsOf(build: OpenBuild) {
  const [title] = of(build, 'title');
  const [brief] = of(build, 'brief');
  const key = (kind: Kept) => build.next[kind]?.id ?? crypto.randomUUID();
  const nameless = { content: held({ name: nameOf(build), notes: '' }), revision: 0 };
  return {
    title: title ? { id: title.id, saved: saved(title) } : { id: key('title'), saved: nameless },
    brief: brief
      ? { id: brief.id, saved: saved(brief) }
      : { id: key('brief'), saved: { content: heldBrief(null), revision: 0 } },
  };
}
