// Parts of the program that are fetched when they are needed, and ahead of that as soon as nothing else is to be done: so that they
// open at once, and also when the server has gone away.

import { type ComponentType, lazy } from 'react';

type Load = () => Promise<unknown>;

const waiting = new Set<Load>();

/** A component of a module of its own; a fetch that failed is tried again when it is wanted again. */
// biome-ignore lint/suspicious/noExplicitAny: as `lazy` has it
export function lazily<Component extends ComponentType<any>>(load: () => Promise<Component>) {
  waiting.add(load);
  return lazy(async () => {
    const component = await load();
    waiting.delete(load);
    return { default: component };
  });
}

/** How long the page is left alone after it was drawn, ms. */
const PAUSE = 1000;

/** Fetches what was not needed yet, one after the other. */
export function loadAhead(): () => void {
  const timer = setTimeout(async () => {
    for (const load of waiting) {
      await new Promise((resolve) => (window.requestIdleCallback ?? setTimeout)(resolve));
      waiting.delete(load);
      await load().catch(() => waiting.add(load));
    }
  }, PAUSE);
  return () => clearTimeout(timer);
}
