import type { Page } from '@playwright/test';
import type { Revision } from '../src/schema/types';
import { expect, openBuild, type Server, test } from './support';

/** How the server fails while an edit is sent; each is over before the next edit. */
const FAULTS: ((page: Page, server: Server, edit: () => Promise<void>) => Promise<void>)[] = [
  /** Nothing reaches it. */
  async (page, _, edit) => {
    await page.route('**/api/v1/**', (route) =>
      route.request().method() === 'PUT' ? route.abort() : route.fallback(),
    );
    await edit();
    await expect(page.getByRole('status')).toContainText('Not saved yet');
    await page.unrouteAll({ behavior: 'wait' });
  },
  /** It saves, and nobody hears of it. */
  async (page, _, edit) => {
    await page.route('**/api/v1/**', async (route) => {
      if (route.request().method() !== 'PUT') return route.fallback();
      await route.fetch();
      await route.abort();
    });
    await edit();
    await expect(page.getByRole('status')).toContainText('Not saved yet');
    await page.unrouteAll({ behavior: 'wait' });
  },
  /** It dies, and comes back. */
  async (page, server, edit) => {
    await server.kill();
    await edit();
    await expect(page.getByRole('status')).toContainText('Not saved yet');
    await server.start();
  },
];

async function fill(page: Page, name: string, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name, exact: true });
  await field.fill(text);
  await field.press('Enter');
}

/** What is edited in turn, and the words by which the history knows it again. */
const EDITS: ((page: Page, at: number) => Promise<string | null>)[] = [
  async (page, at) => {
    await fill(page, 'Volume Vb', `${40 + at} l`);
    return `"volume":"${40 + at} l"`;
  },
  async (page, at) => {
    await fill(page, 'Name of the build', `Called ${at}`);
    return `"name":"Called ${at}"`;
  },
  async (page, at) => {
    await fill(page, 'Name of the variant', `Slot ${at}`);
    return `"name":"Slot ${at}"`;
  },
  async (page, at) => {
    await page.keyboard.press('Alt+b');
    const dialog = page.getByRole('dialog', { name: 'The brief' });
    await dialog.getByRole('textbox', { name: 'Lowest note' }).fill(`${20 + at} Hz`);
    await dialog.getByRole('button', { name: 'Save the brief' }).click();
    await expect(dialog).toBeHidden();
    return `"lowest":"${20 + at} Hz"`;
  },
  async (page) => {
    await page.getByRole('button', { name: 'Undo' }).click();
    return null;
  },
];

test('thirty edits, with the server away, unheard or killed at every one, lose none', async ({
  page,
  server,
}) => {
  test.setTimeout(300_000);
  const build = await server.makeBuild('Faults', undefined, { lowest: '30 Hz' });
  await openBuild(page, server, build.id);
  // All parts of the program are there before the server goes.
  await page.waitForFunction(() =>
    performance.getEntriesByType('resource').some(({ name }) => name.includes('BriefDialog')),
  );
  const typed: string[] = [];
  for (let at = 0; at < 30; at += 1) {
    // Three faults and five edits: every edit meets every fault twice.
    const during = FAULTS[at % FAULTS.length];
    const edit = EDITS[at % EDITS.length];
    await during?.(page, server, async () => {
      const words = await edit?.(page, at);
      if (words) typed.push(words);
    });
    await page.evaluate(() => dispatchEvent(new Event('online')));
    await expect(page.getByRole('status')).toContainText('Saved');
  }
  const opened = await server.call<{ documents: { id: string }[] }>('GET', `/builds/${build.id}`);
  const histories = await Promise.all(
    opened.documents.map(({ id }) => server.call<Revision[]>('GET', `/documents/${id}/revisions`)),
  );
  const saved = histories.flat().map(({ content }) => JSON.stringify(content));
  expect(typed.length).toBe(24);
  for (const words of typed)
    expect(
      saved.some((content) => content.includes(words)),
      words,
    ).toBe(true);
  // What is on screen is what is saved last.
  const last = await server.open(build.id);
  await expect(page.getByRole('textbox', { name: 'Name of the build' })).toHaveValue(last.name);
  await expect(page.getByRole('textbox', { name: 'Volume Vb' })).toHaveValue(
    `${last.variants[0]?.content.enclosure.volume}`,
  );
});
