import createClient from 'openapi-fetch';
import type { paths } from '../schema/schema';
import type { ProblemDocument } from '../schema/types';

export const api = createClient<paths>({ baseUrl: '' });

/** The server said no; its document says why. */
export class Refusal extends Error {
  constructor(readonly document: ProblemDocument) {
    super(document.detail);
  }

  /** What is wrong with a field, if anything. */
  errorOf(field: string): string | undefined {
    return this.document.errors?.find((error) => error.field === field)?.message;
  }
}

/** The server did not answer. */
export class Unreachable extends Error {
  constructor() {
    super('The server does not answer. Start it again; nothing that was saved is lost.');
  }
}

interface Answer<Data> {
  data?: Data;
  error?: unknown;
  response: Response;
}

/** The data of an answer; a refusal or a dead server as an error. */
export async function answered<Data>(request: Promise<Answer<Data>>): Promise<Data> {
  const { data, error, response } = await request.catch((cause: unknown) => {
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause;
    throw new Unreachable();
  });
  if (response.ok) return data as Data;
  throw new Refusal(documentOf(error, response.status));
}

/** What a response that is none says. */
export async function failed(response: Response): Promise<Refusal> {
  return new Refusal(documentOf(await response.json().catch(() => null), response.status));
}

function documentOf(error: unknown, status: number): ProblemDocument {
  if (typeof error === 'object' && error && 'detail' in error) return error as ProblemDocument;
  return {
    type: 'about:blank',
    title: 'Error',
    status,
    detail: `The server answered with status ${status}.`,
  };
}

export function ifMatch(revision: number): { 'If-Match': string } {
  return { 'If-Match': `"${revision}"` };
}
