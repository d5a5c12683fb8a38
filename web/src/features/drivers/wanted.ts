// What is looked for in the library, as it stands in the address.

import type { WantedDrivers } from '../../schema/types';

/** What is looked for at first: the smallest before the largest. */
export const ALL_DRIVERS: WantedDrivers = { sort: 'sd' };

const FLAGS = ['in_stock', 'descending'];
const WORDS = ['find', 'tag', 'sort'];
const isNumber = (name: string) => name === 'offset' || /^[a-z0-9_]+_(min|max)$/.test(name);

/** Reads what is looked for out of an address; what is not of it is passed over. */
export function wantedIn(params: URLSearchParams): WantedDrivers {
  const found: Record<string, unknown> = { ...ALL_DRIVERS };
  for (const [name, text] of params) {
    if (FLAGS.includes(name)) found[name] = text === 'true';
    else if (WORDS.includes(name)) found[name] = text;
    else if (isNumber(name) && Number.isFinite(Number(text))) found[name] = Number(text);
  }
  return found as WantedDrivers;
}

/** Writes it into an address, beside what else stands there. */
export function withWanted(params: URLSearchParams, wanted: WantedDrivers): URLSearchParams {
  const next = new URLSearchParams(params);
  for (const name of [...next.keys()]) {
    if (FLAGS.includes(name) || WORDS.includes(name) || isNumber(name)) next.delete(name);
  }
  for (const [name, value] of Object.entries(wanted)) {
    const usual = value === ALL_DRIVERS[name as keyof WantedDrivers];
    if (!usual && value !== null && value !== undefined && value !== '' && value !== false && value !== 0) {
      next.set(name, String(value));
    }
  }
  return next;
}
