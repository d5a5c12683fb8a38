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
      // Who commands by voice says what is seen first on a control, so its name must hold that (WCAG 2.5.3).
      const misnamed = (within = 'body') =>
        [...document.querySelectorAll(`${within} :is(a, button, summary)[aria-label]`)].flatMap((control) => {
          const texts = document.createTreeWalker(control, NodeFilter.SHOW_TEXT);
          let seen = '';
          while (!seen && texts.nextNode()) {
            const { textContent, parentElement } = texts.currentNode;
            if (parentElement?.checkVisibility() && !parentElement.closest('.sr-only, svg'))
              seen = textContent?.trim() ?? '';
          }
          const name = control.getAttribute('aria-label') ?? '';
          return name.toLowerCase().includes(seen.toLowerCase())
            ? []
            : [`named "${name}" and seen as "${seen}"`];
        });
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
      const found = [...(await look('light')), ...(await look('dark', colours)), ...misnamed(part)];
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
