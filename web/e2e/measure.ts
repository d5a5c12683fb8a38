// Speed as a user has it: cargo xtask e2e -- --project=measure

import { gzipSync } from 'node:zlib';
import type { Build } from '../src/schema/types';
import { expect, openBuild, test } from './support';

const MOVES = 200;

/** In Chromium; not in every library of types yet. */
declare const scheduler: {
  postTask(task: () => void, options: { priority: 'user-blocking' }): Promise<void>;
};

function percentile(sorted: number[], share: number): string {
  return `${(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0).toFixed(1)} ms`;
}

function report(what: string, times: number[]): void {
  const sorted = [...times].sort((a, b) => a - b);
  console.log(
    `${what}: median ${percentile(sorted, 0.5)}, 95th percentile ${percentile(sorted, 0.95)}, ${times.length} times`,
  );
}

test('from a move of the hand to the redrawn lanes', async ({ page, server }) => {
  test.setTimeout(120_000);
  const demo = await server.call<Build[]>('GET', '/builds');
  const nook = demo.find((one) => one.name === 'Narrowboat nook');
  const designs = (await server.open(nook?.id ?? '')).variants.map((variant) => variant.content);
  const build = await server.makeBuild('Speed', designs.slice(0, 4));
  await page.addInitScript(() => {
    const clock = { moved: 0, answers: 0, before: 0, done: (_: number) => {} };
    Object.assign(window, { clock });
    addEventListener(
      'pointermove',
      () => {
        clock.moved = performance.now();
        clock.before = clock.answers;
      },
      { capture: true },
    );
    const ask = window.fetch;
    window.fetch = async (...request) => {
      const answer = await ask(...request);
      if (answer.url.includes('/simulate')) clock.answers += 1;
      return answer;
    };
    const clear = CanvasRenderingContext2D.prototype.clearRect;
    CanvasRenderingContext2D.prototype.clearRect = function (...area) {
      // Only what is drawn from the answer to this move counts.
      if (clock.answers === clock.before) return clear.apply(this, area);
      // Painted is what the frame after this one shows; the first task behind it says when.
      requestAnimationFrame(() => {
        void scheduler.postTask(() => clock.done(performance.now() - clock.moved), {
          priority: 'user-blocking',
        });
      });
      return clear.apply(this, area);
    };
  });
  await openBuild(page, server, build.id);
  // Four variants are overlaid.
  for (const name of ['Long shelf', 'Twin radiators']) {
    await page.getByRole('button', { name: `Show ${name} in the lanes` }).click();
  }
  await expect(page.getByRole('region', { name: 'SPL' }).getByRole('definition')).toHaveCount(4);
  const rule = await page.getByRole('slider', { name: 'Volume Vb, rule' }).boundingBox();
  if (!rule) throw new Error('no rule');
  const [x, y] = [rule.x + rule.width / 2, rule.y + rule.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.waitForTimeout(300);
  const times: number[] = [];
  for (let move = 1; move <= MOVES; move += 1) {
    const redrawn = page.evaluate(
      () =>
        new Promise<number>((resolve) =>
          Object.assign((window as never as { clock: object }).clock, { done: resolve }),
        ),
    );
    await page.mouse.move(x + 60 * Math.sin(move / 7), y);
    times.push(await redrawn);
    await page.waitForTimeout(30);
  }
  await page.mouse.up();
  report('drag to redraw', times);
});

test('from a move of the pointer to the moved cursor', async ({ page, server }) => {
  const build = await server.makeBuild('Cursor speed');
  await openBuild(page, server, build.id);
  const lane = await page.getByRole('region', { name: 'Cone travel' }).boundingBox();
  if (!lane) throw new Error('no lane');
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { times });
    addEventListener(
      'pointermove',
      () => {
        const moved = performance.now();
        requestAnimationFrame(() => {
          void scheduler.postTask(() => times.push(performance.now() - moved), { priority: 'user-blocking' });
        });
      },
      { capture: true },
    );
  });
  for (let move = 0; move < MOVES; move += 1) {
    await page.mouse.move(lane.x + 180 + 2 * move, lane.y + 20);
    await page.waitForTimeout(10);
  }
  report('cursor move', await page.evaluate(() => (window as never as { times: number[] }).times));
});

test('size of the first load', async ({ page, server }) => {
  const scripts: number[] = [];
  page.on('response', async (response) => {
    if (response.url().endsWith('.js')) scripts.push(gzipSync(await response.body()).length);
  });
  const build = await server.makeBuild('Size');
  await openBuild(page, server, build.id);
  await expect(page.getByRole('region', { name: 'SPL' }).locator('canvas').first()).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Volume Vb' })).toBeVisible();
  // What is fetched from now on is fetched ahead.
  console.log(
    `script of the first load, gzip: ${(scripts.reduce((sum, size) => sum + size, 0) / 1000).toFixed(0)} kB`,
  );
});
