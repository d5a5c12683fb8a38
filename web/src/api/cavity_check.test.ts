import { afterEach, expect, test, vi } from 'vitest';
import { UNASKED } from '../model/conditions';
import type { RawDesign } from '../schema/types';
import { ringInFull } from './cavity_check';
import { Refusal, Unreachable } from './client';
import { linesOf } from './lines';

const DESIGN = { name: 'Nook' } as RawDesign;
const { signal } = new AbortController();

function answer(parts: string[], status = 200) {
  const body = new ReadableStream({
    start(controller) {
      for (const part of parts) controller.enqueue(new TextEncoder().encode(part));
      controller.close();
    },
  });
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(body, { status })));
}

afterEach(() => vi.unstubAllGlobals());

test('lines are put together from pieces', async () => {
  async function* pieces() {
    for (const part of ['{"a"', ':1}\n{"b":2}\n', '{"c":3}']) yield new TextEncoder().encode(part);
  }
  const lines: string[] = [];
  for await (const line of linesOf(pieces())) lines.push(line);
  expect(lines).toEqual(['{"a":1}', '{"b":2}', '{"c":3}']);
});

test('progress is heard and the last line is the report', async () => {
  answer(['{"progress":[1,4]}\n{"prog', 'ress":[2,4]}\n', '{"report":{"words":"It rings."}}\n']);
  const heard: number[] = [];
  const report = await ringInFull(DESIGN, UNASKED, signal, (share) => heard.push(share));
  expect(heard).toEqual([0.25, 0.5]);
  expect(report?.words).toBe('It rings.');
});

test('what is wrong is told, at once or in the last line', async () => {
  answer(['{"errors":[{"field":"body","message":"too full"}]}\n']);
  const refused = await ringInFull(DESIGN, UNASKED, signal, () => {}).catch((error: unknown) => error);
  expect(refused).toBeInstanceOf(Refusal);
  expect((refused as Refusal).errorOf('body')).toBe('too full');
  answer(['{"detail":"no such thing"}'], 422);
  await expect(ringInFull(DESIGN, UNASKED, signal, () => {})).rejects.toThrow('no such thing');
});

test('a check that breaks off is no answer', async () => {
  answer(['{"progress":[1,4]}\n']);
  await expect(ringInFull(DESIGN, UNASKED, signal, () => {})).rejects.toBeInstanceOf(Unreachable);
});
