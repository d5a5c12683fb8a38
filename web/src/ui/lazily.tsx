// Parts of the program that are fetched when they are needed, and ahead of that as soon as nothing else is to be done: so that they
// open at once, and also when the server has gone away.

import { type ComponentType, lazy } from 'react';
import { toasts } from '../model/toasts';

type Load = () => Promise<unknown>;

const waiting = new Set<Load>();

/** Has something fetched as soon as nothing else is to be done. */
export function ahead(load: Load): void {
  waiting.add(load);
}

/** How often a part that is wanted is asked for while the server is away, ms. */
const AGAIN = 2000;

/** Loads, and goes on trying: a part that cannot be fetched must not take the page with it. */
async function wanted<Loaded>(load: () => Promise<Loaded>): Promise<Loaded> {
  for (let tries = 0; ; tries += 1) {
    try {
      return await load();
    } catch {
      if (tries === 0) toasts.say('The server does not answer. This opens as soon as it is back.');
      await new Promise((resolve) => setTimeout(resolve, AGAIN));
    }
  }
}

/** A component of a module of its own. */
// biome-ignore lint/suspicious/noExplicitAny: as `lazy` has it
export function lazily<Component extends ComponentType<any>>(load: () => Promise<Component>) {
  waiting.add(load);
  return lazy(async () => {
    const component = await wanted(load);
    waiting.delete(load);
    return { default: component };
  });
}

/** How long the page is left alone after it was drawn, ms. */
const PAUSE = 1000;

/** Fetches what was not needed yet, one after the other. */
export function loadAhead(): () => void {
  const timer = setTimeout(async () => {
    for (const load of [...waiting]) {
      await new Promise((resolve) => (window.requestIdleCallback ?? setTimeout)(resolve));
      waiting.delete(load);
      await load().catch(() => waiting.add(load));
    }
  }, PAUSE);
  return () => clearTimeout(timer);
}
