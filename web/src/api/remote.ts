// The server as the sync sees it.

import type { Outcome, Remote } from '../model/sync';
import { answered, api, ifMatch, Refusal } from './client';

async function outcome(request: Promise<{ revision: number } | undefined>, before = 0): Promise<Outcome> {
  try {
    const answer = await request;
    return { kind: 'kept', revision: answer?.revision ?? before + 1 };
  } catch (error) {
    if (!(error instanceof Refusal)) return { kind: 'unreachable' };
    const { status, detail } = error.document;
    if (status === 412) return { kind: 'stale' };
    return status >= 500 || status === 429 || status === 408
      ? { kind: 'unreachable' }
      : { kind: 'refused', reason: detail };
  }
}

export const remote: Remote = {
  put: (id, revision, design) =>
    outcome(
      answered(
        api.PUT('/api/v1/variants/{id}', {
          params: { path: { id }, header: ifMatch(revision) },
          body: design,
        }),
      ),
    ),
  archive: (id, revision) =>
    outcome(
      answered(api.DELETE('/api/v1/variants/{id}', { params: { path: { id }, header: ifMatch(revision) } })),
      revision - 1,
    ),
  restore: (id) => outcome(answered(api.POST('/api/v1/variants/{id}/restore', { params: { path: { id } } }))),
  arrange: (build, variants) => {
    const params = { path: { id: build } };
    const request = api.PUT('/api/v1/builds/{id}/order', { params, body: { variants } });
    return outcome(answered(request).then(() => undefined));
  },
  read: (id) => answered(api.GET('/api/v1/variants/{id}', { params: { path: { id } } })).catch(() => null),
};
