import { expect, type Page } from '@playwright/test';
import axe from 'axe-core';

/** Rules that look at colours: all that the second theme can break. */
const COLOURS = ['color-contrast', 'link-in-text-block'];

/**
 * Looks, in both themes, at the whole page or, where the rest of it was looked at before, at the part that is new.
 *
 * The rules are run within the page: there are no frames to look into, and the pages of their own that would be opened to
 * gather from frames take three times as long as the rules.
 */
export async function violated(page: Page, what: string, part?: string): Promise<void> {
  if (part) await expect(page.locator(part).filter({ visible: true }).first(), what).toBeVisible();
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  const found = await page.evaluate(
    async ({ part, colours }) => {
      const root = document.documentElement;
      const before = root.getAttribute('data-theme') ?? 'light';
      const look = async (theme: string, only?: string[]) => {
        root.setAttribute('data-theme', theme);
        // What passes is not written down: that takes most of the time.
        const { violations } = await window.axe.run(part ?? document, {
          resultTypes: ['violations'],
          ...(only && { runOnly: only }),
        });
        return violations.map(
          ({ id, nodes }) => `${theme}, ${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`,
        );
      };
      const found = [...(await look('light')), ...(await look('dark', colours))];
      root.setAttribute('data-theme', before);
      return found;
    },
    { part, colours: COLOURS },
  );
  expect(found, what).toEqual([]);
}

declare global {
  interface Window {
    axe: typeof axe;
  }
}
