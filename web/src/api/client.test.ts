import { describe, expect, it } from 'vitest';
import { answered, ifMatch, Refusal, Unreachable } from './client';

const response = (status: number) => new Response(null, { status });

const refused = (request: Parameters<typeof answered>[0]) =>
  answered(request).then(
    () => Promise.reject(new Error('was accepted')),
    (error: Refusal) => error,
  );

describe('an answer', () => {
  it('gives its data', async () => {
    await expect(answered(Promise.resolve({ data: 7, response: response(200) }))).resolves.toBe(7);
  });

  it('that is a refusal says what is wrong where', async () => {
    const document = {
      type: 'urn:oak-drum:invalid-values',
      title: 'Some values cannot be used',
      status: 422,
      detail: 'fs: is missing',
      errors: [{ field: 'fs', message: 'is missing' }],
    };
    const refusal = await refused(Promise.resolve({ error: document, response: response(422) }));
    expect(refusal).toBeInstanceOf(Refusal);
    expect(refusal.message).toBe('fs: is missing');
    expect(refusal.errorOf('fs')).toBe('is missing');
    expect(refusal.errorOf('re')).toBeUndefined();
  });

  it('without a document still tells its status', async () => {
    const refusal = await refused(Promise.resolve({ error: '<html>', response: response(502) }));
    expect(refusal.message).toContain('502');
  });

  it('that never comes is a dead server; one that was called off is not', async () => {
    await expect(answered(Promise.reject(new TypeError('fetch')))).rejects.toBeInstanceOf(Unreachable);
    const off = new DOMException('off', 'AbortError');
    await expect(answered(Promise.reject(off))).rejects.toBe(off);
  });
});

it('a revision is a quoted tag', () => {
  expect(ifMatch(3)).toEqual({ 'If-Match': '"3"' });
});
