import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

export const THEMES = ['light', 'dark'] as const;
export type Theme = (typeof THEMES)[number];

/** Rules that look at colours: all that the second theme can break. */
const COLOURS = ['color-contrast', 'link-in-text-block'];

/** Looks at the whole page or, where the rest of it was looked at before, at the part that is new. */
export async function violated(page: Page, what: string, theme: Theme, part?: string): Promise<void> {
  // What passes is not written down: that takes most of the time.
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] });
  if (theme === 'dark') axe.withRules(COLOURS);
  if (part) {
    await expect(page.locator(part).filter({ visible: true }).first(), what).toBeVisible();
    axe.include(part);
  }
  const { violations } = await axe.analyze();
  const found = violations.map(
    ({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`,
  );
  expect(found, what).toEqual([]);
}
