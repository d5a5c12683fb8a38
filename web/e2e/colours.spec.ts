import { expect, expectFigures, openBuild, test } from './support';

test('with the reader’s own colours, what is chosen and what is drawn can still be told', async ({
  page,
  server,
}) => {
  const { id } = await server.importDemo('narrowboat-nook', 'Own colours');
  await openBuild(page, server, id);
  await page.emulateMedia({ forcedColors: 'active', colorScheme: 'dark' });
  await expectFigures(page);
  // A colour as the page would paint it: names of the reader's colours are looked up by an element of the same page.
  const system = (name: string) =>
    page.evaluate((colour) => {
      const probe = document.body.appendChild(document.createElement('i'));
      probe.style.cssText = `forced-color-adjust: none; color: ${colour}`;
      const found = getComputedStyle(probe).color;
      probe.remove();
      return found;
    }, name);
  const [highlight, text, canvas] = [
    await system('Highlight'),
    await system('CanvasText'),
    await system('Canvas'),
  ];
  expect(new Set([highlight, text, canvas]).size).toBe(3);

  const drawn = page.getByRole('main').locator('svg path[stroke^="var(--"]');
  const strokes = await drawn.evaluateAll((paths) => paths.map((path) => getComputedStyle(path).stroke));
  expect(strokes.length).toBeGreaterThan(20);
  expect(new Set(strokes).has('rgb(168, 87, 27)'), 'oak of the light theme').toBe(false);

  const chosen = page.getByRole('radio', { name: 'As the brief uses it' });
  const other = page.getByRole('radio', { name: 'On the bench' });
  const behind = (one: typeof chosen) => one.evaluate((element) => getComputedStyle(element).backgroundColor);
  expect(await behind(chosen)).toBe(highlight);
  expect(await behind(other)).not.toBe(highlight);
});
