import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import type { Build } from '../src/schema/types';
import { expect, openBuild, type Server, test } from './support';

/** The box of a demo variant, in a build of its own that the test may change. */
async function openBox(page: Page, server: Server, name: string): Promise<string> {
  const builds = await server.call<Build[]>('GET', '/builds');
  const found = builds.find((build) => build.name === name);
  const copy = await server.call<object>('GET', `/builds/${found?.id}/build.json`);
  const made = await server.call<{ id: string }>('POST', '/builds/import', {
    ...copy,
    name: `Box of ${name}`,
  });
  await openBuild(page, server, made.id);
  await page.getByRole('link', { name: 'Box' }).click();
  await expect(page.getByRole('group', { name: 'Side section of the box' })).toBeVisible();
  return made.id;
}

const tab = (page: Page, name: string) => page.getByRole('tab', { name }).click();

test('of sizes and volume the one that was set longest ago follows, and comes back as it was written', async ({
  page,
  server,
}) => {
  const id = await openBox(page, server, 'Barn dance');
  const room = page.getByRole('region', { name: 'Volume of the box' });
  await expect(room).toContainText('150.00 l');
  const depth = page.getByRole('textbox', { name: 'Depth', exact: true });
  await depth.fill('40 cm');
  await page.keyboard.press('Enter');
  // Now the sizes lead: the volume follows, and the port is cut for it.
  await expect(page.getByText('Every size is stated, so the volume follows')).toBeVisible();
  await expect(room).not.toContainText('150.00 l');
  await expect(page.getByText('Tuned so: Fb 38.0 Hz')).toBeVisible();
  await page.getByRole('button', { name: 'Back to 150 l' }).click();
  await expect(room).toContainText('150.00 l');
  // The depth was set last, so another size makes room for the volume.
  await expect(depth).toHaveValue('40 cm');
  await page.getByRole('button', { name: 'Back to 800 mm' }).click();
  await expect(page.getByRole('textbox', { name: 'Height', exact: true })).toHaveValue('800 mm');
  await expect
    .poll(async () => (await server.open(id)).variants[0]?.content.body?.order)
    .toEqual(['depth', 'volume', 'height']);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Back to 800 mm' })).toBeVisible();
});

test('a port that does not fit is said, and a way out that the program finds makes a box that does', async ({
  page,
  server,
}) => {
  await openBox(page, server, 'Narrowboat nook');
  await tab(page, 'Driver and ports');
  await expect(page.getByText('Everything fits, with air around it')).toBeVisible();
  await page.getByRole('radiogroup', { name: 'Turns of the port' }).getByText('None').click();
  await expect(page.getByRole('list', { name: 'What does not fit' })).toContainText('The port does not fit');
  const ways = page.getByRole('region', { name: 'Ways to fix it' });
  await expect(ways.getByRole('listitem').first()).toContainText('turned up once at the back');
  await ways
    .getByRole('button', { name: /^Try it: / })
    .first()
    .click();
  await expect(page.getByText('Everything fits, with air around it')).toBeVisible();
  await expect(page.locator('[data-figure="brief-fits"]')).toContainText('can be built');
});

test('a standing wave is seen in the section, its fill weighed, and what it does checked both ways', async ({
  page,
  server,
}) => {
  // The full model takes its time beside whatever else the machine does.
  test.setTimeout(150_000);
  await openBox(page, server, 'Barn dance');
  await tab(page, 'Standing waves');
  const wave = page.getByRole('button', { name: 'up', exact: true });
  await wave.click();
  await expect(wave).toHaveAttribute('aria-pressed', 'true');
  const section = page.getByRole('group', { name: 'Side section of the box' });
  await expect.poll(() => section.locator('rect[opacity]').count()).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'A layer of fill' }).click();
  await expect(page.getByRole('region', { name: 'Layers of fill' })).toContainText(/Weighs \d+ g/);
  const ring = page.getByRole('region', { name: 'Standing-wave check' });
  await expect(ring).toContainText(/wave/);
  const lines: string[] = [];
  page.on('requestfinished', async (request) => {
    if (request.url().endsWith('cavity-check?model=full'))
      lines.push(...(request.headers().accept ?? '').split(','));
  });
  await ring.getByRole('button', { name: 'Check in three directions' }).click();
  await expect(ring).toContainText('spectral elements', { timeout: 90_000 });
  await expect.poll(() => lines).toEqual(['application/x-ndjson']);
});

test('a line is folded into its box: other folds, other corners, and a board pulled in the section', async ({
  page,
  server,
}) => {
  const id = await openBox(page, server, 'Pit organ');
  await page.getByRole('button', { name: 'Work on Pedal line' }).click();
  await tab(page, 'Driver and ports');
  const fold = page.getByRole('region', { name: 'The folded path' });
  await expect(fold).toContainText(/moves the tuning from 30\.\d to 30\.\d Hz/);
  await expect(fold.getByRole('img')).toHaveAccessibleName(/^Area along the path, from 1\d\d\d cm/);
  await expect(page.getByRole('button', { name: 'Fold board 2' }).first()).toBeVisible();
  await fold.getByRole('button', { name: 'Use 1 fold' }).click();
  await expect(page.getByRole('button', { name: 'Fold board 2' })).toHaveCount(0);
  await fold.getByRole('radiogroup', { name: 'How the corners are built' }).getByText('Mitred').click();
  await expect
    .poll(async () => (await server.open(id)).variants.at(-1)?.content.body?.fold)
    .toEqual({ folds: 1, stack: 'level', corner: 'mitred' });

  // On the workbench the same fold is the section, and its board has a grip.
  await page.getByRole('link', { name: 'Curves' }).click();
  const section = page.getByRole('group', { name: 'The folded path, side section' });
  await expect(section).toBeVisible();
  const grip = section.getByRole('slider', { name: 'Place of fold board 1' });
  const before = await grip.getAttribute('aria-valuetext');
  await grip.focus();
  for (let step = 0; step < 4; step++) await page.keyboard.press('ArrowDown');
  await expect(grip).not.toHaveAttribute('aria-valuetext', before ?? '');
  await expect
    .poll(async () => (await server.open(id)).variants.at(-1)?.content.body?.fold?.panels?.[0]?.at)
    .toMatch(/mm$/);
});

test('the box is turned, cut away, and its parts chosen in three dimensions', async ({ page, server }) => {
  // Without a graphics card every picture is worked out by the processor.
  test.setTimeout(120_000);
  await page.setViewportSize({ width: 1024, height: 640 });
  await openBox(page, server, 'Barn dance');
  await page.getByRole('radio', { name: '3-D' }).click();
  const turned = page.getByRole('img', { name: /^The box in three dimensions/ });
  await expect(turned.locator('canvas')).toBeVisible();
  const picture = async () => (await turned.screenshot()).toString('base64');
  const first = await picture();
  await turned.focus();
  for (let step = 0; step < 4; step++) await page.keyboard.press('ArrowRight');
  const second = await picture();
  expect(second === first).toBe(false);
  await page.getByRole('slider', { name: 'Cut away from the left' }).fill('60');
  const third = await picture();
  expect(third === second).toBe(false);
  await page.getByRole('slider', { name: 'Exploded' }).fill('70');
  expect((await picture()) === third).toBe(false);
  await page.getByRole('slider', { name: 'Exploded' }).fill('0');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save picture' }).click();
  expect((await saved).suggestedFilename()).toMatch(/\.png$/);
  // A click on a part opens what is decided about it.
  const { x, y, width, height } = (await turned.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  await page.getByRole('slider', { name: 'Cut away from the left' }).fill('100');
  await page.mouse.click(x + width / 2, y + height / 2);
  await expect(page.getByRole('tab', { name: /^Driver and ports/ })).toHaveAttribute('aria-selected', 'true');
});

test('a port is cut of a pipe that is sold, with flares, from a list that is one’s own', async ({
  page,
  server,
}) => {
  const id = await openBox(page, server, 'Barn dance');
  await tab(page, 'Driver and ports');
  const port = page.getByRole('region', { name: 'Port', exact: true });
  await port.getByRole('button', { name: 'Pipes and kits to choose from' }).click();
  const list = page.getByRole('dialog', { name: 'Pipes and kits to choose from' });
  await list.getByRole('button', { name: 'A pipe' }).click();
  const own = list.getByRole('textbox', { name: /^Name of pipe/ }).last();
  await own.fill('Rain pipe');
  await page.keyboard.press('Enter');
  await list.getByRole('textbox', { name: 'Rain pipe inside' }).fill('96 mm');
  await page.keyboard.press('Enter');
  await list.getByRole('button', { name: 'Close' }).click();
  await port.getByRole('combobox', { name: 'Pipe of the port' }).selectOption('Rain pipe');
  await expect
    .poll(async () => (await server.open(id)).variants[0]?.content.enclosure.ports?.[0]?.diameter)
    .toBe('96.0 mm');
  const cut = port.getByRole('list', { name: 'What to cut for the port' });
  await expect(cut).toContainText('Fastest air');
  await port.getByRole('textbox', { name: 'Edge rounded inside' }).fill('20 mm');
  await page.keyboard.press('Enter');
  await expect(cut).toContainText('counting half of each flare');
  await expect(cut).toContainText('does not go through it');
});

test('radiators are weighted in washers, and fill is compared by both methods', async ({ page, server }) => {
  const id = await openBox(page, server, 'Narrowboat nook');
  await page.getByRole('button', { name: 'Work on Twin radiators' }).click();
  await tab(page, 'Driver and ports');
  const mass = page.getByRole('region', { name: 'Mass on the radiators' });
  await mass.getByRole('textbox', { name: 'Added mass' }).fill('118 g');
  await page.keyboard.press('Enter');
  await expect(mass).toContainText('9 washers with bolt and nut on each: 115.0 g for 118.0 g');
  await mass.getByRole('textbox', { name: 'A washer' }).fill('18 g');
  await page.keyboard.press('Enter');
  await mass.getByRole('button', { name: /^Design for whole washers/ }).click();
  await expect
    .poll(async () => (await server.open(id)).variants.at(-1)?.content.body?.washers)
    .toEqual({ each: '18 g' });
  await tab(page, 'Standing waves');
  const fill = page.getByRole('region', { name: 'Fill and tuning' });
  await expect(fill.getByRole('row', { name: /^Packed/ })).toContainText('× 1.25');
  await page.getByRole('button', { name: 'A layer of fill' }).click();
  await page.getByRole('combobox', { name: 'What the layer is of' }).selectOption('mineral');
  await expect(fill.getByRole('row', { name: /^The layers/ })).toContainText('Hz');
  await fill.getByRole('button', { name: 'Use fill: Half full' }).click();
  await expect.poll(async () => (await server.open(id)).variants.at(-1)?.content.enclosure.fill).toBe('half');
  // Weighed: grams of all of it are grams per litre of the box, and the row beside the amounts is what is simulated.
  const weight = fill.getByRole('textbox', { name: 'Weight of the fill' });
  await weight.fill('250 g');
  await weight.press('Enter');
  const weighed = fill.getByRole('row', { name: /^By weight/ });
  await expect(weighed).toContainText('250 g');
  await expect(weighed).toContainText('now');
  const polyester = await weighed.innerText();
  await fill.getByRole('combobox', { name: 'What the fill is of' }).selectOption('glass');
  await expect(weighed).not.toHaveText(polyester, { useInnerText: true });
  await expect(weighed).toContainText('250 g');
  await weight.fill('900 g/l');
  await weight.press('Enter');
  await expect(fill.getByRole('alert')).toContainText('is outside');
});

test('a chamber of its own takes its room where it stands', async ({ page, server }) => {
  await openBox(page, server, 'Barn dance');
  const room = page.getByRole('region', { name: 'Volume of the box' });
  await room.getByRole('button', { name: 'Something else inside' }).click();
  await room.getByRole('button', { name: 'Amplifier chamber' }).click();
  await room.getByRole('button', { name: 'Give Amplifier chamber a size and a place' }).click();
  await expect(room.getByRole('row', { name: /Amplifier chamber/ })).toContainText('3.00 l');
  await room.getByRole('textbox', { name: 'Into the box' }).fill('120 mm');
  await page.keyboard.press('Enter');
  await expect(room.getByRole('row', { name: /Amplifier chamber/ })).toContainText('3.60 l');
  await expect(page.getByRole('button', { name: 'Amplifier chamber', exact: true })).toBeVisible();
});

test('braces are proposed, put in, and the boards ring higher', async ({ page, server }) => {
  await openBox(page, server, 'Narrowboat nook');
  await page.getByRole('button', { name: 'Work on Sealed, bench berth' }).click();
  await tab(page, 'Boards');
  await page.getByRole('button', { name: 'Propose braces and compare materials' }).click();
  await expect(page.getByRole('row', { name: /^Birch plywood/ })).toContainText('Hz');
  await page.getByRole('button', { name: 'A brace', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Braces' })).toContainText('Brace 1');
  await page.getByRole('textbox', { name: 'Middle, from below' }).fill('120 mm');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Brace', exact: true }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Remove brace 1' }).click();
  await expect(page.getByRole('region', { name: 'Braces' })).not.toContainText('Brace 1');
});

test('every view is drawn and handed out', async ({ page, server }) => {
  await openBox(page, server, 'Barn dance');
  for (const view of ['Front', 'Plan', 'Exploded', 'Side section']) {
    await page.getByRole('radio', { name: view }).click();
    await expect(page.getByRole('group', { name: `${view} of the box` })).toBeVisible();
  }
  for (const [format, begins] of [
    ['SVG', '<svg'],
    ['DXF', '0'],
  ] as const) {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: format, exact: true }).click();
    const text = readFileSync(await (await download).path(), 'utf8');
    expect(text.trimStart().startsWith(begins)).toBe(true);
    expect(text).toContain(format === 'SVG' ? 'polygon' : 'LWPOLYLINE');
  }
});

test('shapes other than a box are drawn, and one that cannot be is refused in words', async ({
  page,
  server,
}) => {
  await openBox(page, server, 'Barn dance');
  for (const [shape, within] of [
    ['wedge', 'Depth at the top'],
    ['prism', 'Sides'],
    ['pipe', 'Double front'],
    ['rounded', 'Radius'],
  ] as const) {
    await page.getByRole('combobox', { name: 'Shape' }).selectOption(shape);
    await expect(page.getByText(within)).toBeVisible();
    await expect(page.getByRole('region', { name: 'Volume of the box' })).toContainText(
      'space between the boards',
    );
  }
  await page.getByRole('combobox', { name: 'Shape' }).selectOption('step');
  await page.getByRole('textbox', { name: 'Step, from the top' }).fill('3 m');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'cannot be built' })).toBeVisible();
  // The drawing of the last that could be built stays, and so does the way back.
  await expect(page.getByText('What you see is the last box that could be built.')).toBeVisible();
  await expect(page.getByRole('group', { name: /of the box$/ })).toBeVisible();
  await page.getByRole('textbox', { name: 'Step, from the top' }).fill('100 mm');
  await page.keyboard.press('Enter');
  await expect(page.getByText('What you see is the last box')).toBeHidden();
});

test('driver and braces are moved by their grips in the section of the workbench', async ({
  page,
  server,
}) => {
  await openBox(page, server, 'Pit organ');
  await page.getByRole('link', { name: 'Curves' }).click();
  const driver = page.getByRole('slider', { name: /^Height of the driver/ });
  const before = await driver.getAttribute('aria-valuetext');
  await driver.focus();
  await page.keyboard.press('ArrowUp');
  await expect(driver).not.toHaveAttribute('aria-valuetext', before ?? '');
  await expect(page.getByRole('slider', { name: /^Place of brace 1/ })).toBeVisible();
});

test('firing forward, up and down are compared, and the one that is tried is the box that was promised', async ({
  page,
  server,
}) => {
  await openBox(page, server, 'Narrowboat nook');
  await tab(page, 'Driver and ports');
  await page.getByRole('button', { name: 'Compare firing forward, up and down' }).click();
  const compared = page.getByRole('region', { name: 'Firing forward, up and down' });
  const row = compared.getByRole('row', { name: /^Down/ });
  await expect(row).toContainText('on feet');
  const litres = async (part: Locator) => {
    const found = [...((await part.textContent()) ?? '').matchAll(/(\d+\.\d+) l/g)];
    return Number(found.at(-1)?.[1]);
  };
  const promised = await litres(row);
  await row.getByRole('button', { name: 'Try it firing down' }).click();
  await expect(page.getByRole('button', { name: /^Work on Slot, all-round, firing down/ })).toBeVisible();
  await tab(page, 'Sizes and volume');
  const room = page.getByRole('region', { name: 'Volume of the box' });
  await expect.poll(async () => Math.abs((await litres(room)) - promised)).toBeLessThan(0.06);
  await tab(page, 'Driver and ports');
  await expect(page.getByRole('combobox', { name: /Board of the driver/i })).toHaveValue('bottom');
});

test('boards inside are judged, and a flared kit brings its flares', async ({ page, server }) => {
  await openBox(page, server, 'Pit organ');
  await page.getByRole('button', { name: /^Work on Pedal line/ }).click();
  await tab(page, 'Boards');
  const fold = page.getByRole('row', { name: /^fold board 1/ });
  await expect(fold).toContainText('Hz');
  await expect(page.getByText(/^Fold board 1: a strip on edge/)).toBeVisible();
  await page.getByRole('button', { name: /^Work on Pedal C/ }).click();
  await tab(page, 'Driver and ports');
  const port = page.getByRole('region', { name: 'Port', exact: true });
  await port.getByRole('combobox', { name: 'Pipe of the port' }).selectOption('Flared kit, 100 mm');
  await expect(port.getByRole('textbox', { name: /^Edge rounded outside/ })).toHaveValue('28 mm');
  await expect(port.getByRole('textbox', { name: /^Flange outside/ })).toHaveValue('180 mm');
});
