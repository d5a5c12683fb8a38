// Terms of the trade, from the core's tables.

import tables from './meanings.json' with { type: 'json' };
import { allFields } from './units';

export interface Term {
  term: string;
  meaning: string;
}

const fields: Readonly<Record<string, string>> = tables.fields;

/** Terms and symbols in the order of the alphabet; a symbol that several fields share is told once for each meaning. */
export const GLOSSARY: Term[] = [
  ...tables.terms,
  ...allFields.map(({ symbol, path }) => ({ term: symbol, meaning: fields[path] ?? '' })),
]
  .filter(
    (one, at, all) =>
      all.findIndex(({ term, meaning }) => term === one.term && meaning === one.meaning) === at,
  )
  .sort((a, b) => a.term.localeCompare(b.term, 'en', { sensitivity: 'base' }));

/** Terms whose name or meaning holds a text; those whose name begins with it first. */
export function lookUp(text: string): Term[] {
  const wanted = text.trim().toLowerCase();
  if (!wanted) return GLOSSARY;
  const begins = (one: Term) => one.term.toLowerCase().startsWith(wanted);
  const holds = (one: Term) => `${one.term} ${one.meaning}`.toLowerCase().includes(wanted);
  return [...GLOSSARY.filter(begins), ...GLOSSARY.filter((one) => !begins(one) && holds(one))];
}

/** What a term or symbol means, if the glossary has it. */
export function meaningOf(name: string): string | undefined {
  return GLOSSARY.find(({ term }) => term.toLowerCase() === name.toLowerCase())?.meaning;
}
