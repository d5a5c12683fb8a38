// The check of standing waves in three directions, which tells how far it is.

import type { Asked } from '../model/conditions';
import { failed, Refusal, Unreachable } from './client';
import type { CavityCheckLine, CavityCheckReport, RawDesign } from './types';

/** Texts of a stream, one for each line. */
export async function* linesOf(stream: AsyncIterable<Uint8Array>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let rest = '';
  for await (const chunk of stream) {
    rest += decoder.decode(chunk, { stream: true });
    const lines = rest.split('\n');
    rest = lines.pop() ?? '';
    yield* lines.filter((line) => line !== '');
  }
  if (rest) yield rest;
}

/** Checks in full; `onProgress` hears what share is done. Null where the cabinet is no single room. */
export async function ringInFull(
  design: RawDesign,
  asked: Asked,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<CavityCheckReport | null> {
  const response = await fetch('/api/v1/cabinet/cavity-check?model=full', {
    method: 'POST',
    headers: { Accept: 'application/x-ndjson', 'Content-Type': 'application/json' },
    body: JSON.stringify({ design, ...asked }),
    signal,
  }).catch((cause: unknown) => {
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause;
    throw new Unreachable();
  });
  if (!response.ok || !response.body) throw await failed(response);
  for await (const text of linesOf(chunks(response.body))) {
    const line = JSON.parse(text) as CavityCheckLine;
    if ('progress' in line) {
      const [done = 0, of = 1] = line.progress;
      onProgress(done / of);
    } else if ('report' in line) {
      return line.report ?? null;
    } else {
      throw new Refusal({
        type: 'about:blank',
        title: 'Error',
        status: 422,
        detail: line.errors.map(({ message }) => message).join(' '),
        errors: line.errors,
      });
    }
  }
  throw new Unreachable();
}

async function* chunks(body: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
  const reader = body.getReader();
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return;
      yield value;
    }
  } finally {
    reader.releaseLock();
  }
}
