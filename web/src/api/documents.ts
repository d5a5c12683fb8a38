// The kinds of documents as the server has them.

import { same } from '../model/design';
import type { BuildText, Order, VariantContent } from '../model/documents';
import type { DocumentKind, Outcome, Saved } from '../model/outbox';
import { restoreDesign } from '../model/restore';
import { answered, api, ifMatch, Refusal } from './client';
import type { Build, Variant } from './types';

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

export function savedVariant({ document, revision }: Variant): Saved<VariantContent> {
  return { content: { design: document, archived: false }, revision };
}

export function savedText({ name, notes, brief, revision }: Build): Saved<BuildText> {
  return { content: { name, notes, brief: brief ?? null }, revision };
}

const variant: DocumentKind<VariantContent> = {
  id: 'variant',
  name: 'This variant',
  send(id, wanted, saved) {
    const path = { id };
    if (wanted.archived && !saved.content.archived) {
      const header = ifMatch(saved.revision);
      const request = answered(api.DELETE('/api/v1/variants/{id}', { params: { path, header } }));
      return outcome(
        request.then(() => ({ content: { ...saved.content, archived: true }, revision: saved.revision })),
      );
    }
    if (!wanted.archived && saved.content.archived) {
      return outcome(
        answered(api.POST('/api/v1/variants/{id}/restore', { params: { path } })).then(savedVariant),
      );
    }
    const params = { path, header: ifMatch(saved.revision) };
    const request = answered(api.PUT('/api/v1/variants/{id}', { params, body: wanted.design }));
    return outcome(
      request.then(
        ({ revision }) => ({ content: wanted, revision }),
        (error) => {
          // Archived in another window: it is brought back first, so that the change is not lost.
          if (!(error instanceof Refusal) || error.document.status !== 404) throw error;
          return { content: { ...saved.content, archived: true }, revision: saved.revision };
        },
      ),
    );
  },
  read: (id) =>
    answered(api.GET('/api/v1/variants/{id}', { params: { path: { id } } })).then(savedVariant, () => null),
  // An archived one needs no newer design until it is brought back.
  same: (a, b) => a.archived === b.archived && (a.archived || same(a.design, b.design)),
  restore: ({ design, archived }) => ({ design: restoreDesign(design), archived }),
};

const text: DocumentKind<BuildText> = {
  id: 'text',
  name: 'The name or the brief of this build',
  send(id, wanted, saved) {
    const params = { path: { id }, header: ifMatch(saved.revision) };
    return outcome(answered(api.PUT('/api/v1/builds/{id}', { params, body: wanted })).then(savedText));
  },
  read: (id) =>
    answered(api.GET('/api/v1/builds/{id}', { params: { path: { id } } })).then(savedText, () => null),
  same,
  restore: (content) => content,
};

/** Nobody's work is lost by an order: whoever arranges last has their way. */
const order: DocumentKind<Order> = {
  id: 'order',
  name: 'The order of the variants',
  send(id, wanted, { revision }) {
    const body = { variants: [...wanted] };
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

export const DOCUMENT_KINDS = [variant, text, order] as const;
