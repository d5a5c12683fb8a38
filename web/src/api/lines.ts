// Answers that come line by line and tell how far they are.

import { failed, Unreachable } from './client';

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

/** Asks, and hands on each line of the answer as it comes. */
export async function* askLines<Line>(
  path: string,
  question: unknown,
  signal: AbortSignal,
): AsyncGenerator<Line> {
  const response = await fetch(path, {
    method: 'POST',
    headers: { Accept: 'application/x-ndjson', 'Content-Type': 'application/json' },
    body: JSON.stringify(question),
    signal,
  }).catch((cause: unknown) => {
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause;
    throw new Unreachable();
  });
  if (!response.ok || !response.body) throw await failed(response);
  for await (const text of linesOf(chunks(response.body))) yield JSON.parse(text) as Line;
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
