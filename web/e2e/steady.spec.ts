import { expect, openBuild, test } from './support';

test('five hundred edits leave the memory as it was', async ({ page, server }) => {
  test.setTimeout(480_000);
  const build = await server.makeBuild('Many edits');
  await openBuild(page, server, build.id);
  const devtools = await page.context().newCDPSession(page);
  const used = async () => {
    await devtools.send('HeapProfiler.collectGarbage');
    return (await devtools.send('Runtime.getHeapUsage')).usedSize / 2 ** 20;
  };
  // One edit a frame, as fast as anybody could make them.
  const edit = async (times: number) => {
    await page.evaluate(async (count) => {
      for (let k = 0; k < count; k += 1) {
        const keys = { code: 'KeyV', key: 'v', altKey: true, shiftKey: k % 2 === 1, bubbles: true };
        document.body.dispatchEvent(new KeyboardEvent('keydown', keys));
        await new Promise((resolve) => requestAnimationFrame(resolve));
      }
    }, times);
    await expect(page.getByRole('status').first()).toContainText('Saved');
  };
  // The steps of undo that are kept fill up first.
  await edit(220);
  const before = await used();
  await edit(500);
  expect((await used()) - before, 'MiB more').toBeLessThan(3);
});

test('nothing jumps while a value is dragged', async ({ page, server }) => {
  const build = await server.makeBuild('No jumps');
  await openBuild(page, server, build.id);
  // All that is judged stands in the strip before anything is dragged.
  await expect(page.getByRole('button', { name: /^Box, as drawn/ })).toBeVisible();
  await page.evaluate(() => {
    const seen = Object.assign(window, { shifted: 0 });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as (PerformanceEntry & {
        value: number;
        sources: { node?: Node }[];
      })[]) {
        // The drawing and the words on the curves are meant to move.
        const jumped = entry.sources.some(({ node }) => {
          const element = node instanceof Element ? node : node?.parentElement;
          return element && !element.closest('svg, .pointer-events-none');
        });
        if (jumped) seen.shifted += entry.value;
      }
    }).observe({ type: 'layout-shift' });
  });
  const rule = await page.getByRole('slider', { name: 'Volume Vb, rule' }).boundingBox();
  if (!rule) throw new Error('no rule');
  await page.mouse.move(rule.x + rule.width / 2, rule.y + 10);
  await page.mouse.down();
  for (let k = 0; k < 40; k += 1) {
    await page.mouse.move(rule.x + rule.width / 2 + 60 * Math.sin(k / 5), rule.y + 10);
    await page.waitForTimeout(25);
  }
  await page.mouse.up();
  expect(await page.evaluate(() => (window as unknown as { shifted: number }).shifted)).toBeLessThan(0.001);
});
