import { answered, api, Refusal } from './client';
import type { Ask } from './simulator';

/** Lowest and highest frequency of every lane, Hz, and how many points lie between. */
export const SPAN = { from: 10, to: 500, points: 500 };

/** Asks the server to compute a design in some conditions. */
export const ask: Ask = async (design, asked, signal) => {
  try {
    const request = api.POST('/api/v1/simulate', {
      params: { query: { ...SPAN, traces: 'lanes' } },
      body: { design, ...asked },
      signal,
    });
    return { ok: true, report: await answered(request) };
  } catch (error) {
    return { ok: false, problem: error instanceof Refusal ? error.document : null };
  }
};
