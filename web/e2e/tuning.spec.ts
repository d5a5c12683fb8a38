import type { Page } from '@playwright/test';
import { nudged } from '../src/model/nudge';
import { expect, figure, kept, openBuild, test } from './support';

const box = (page: Page, name: string) => page.getByRole('textbox', { name });
const rule = (page: Page, name: string) => page.getByRole('slider', { name: `${name}, rule` });

async function number(page: Page, name: string): Promise<number> {
  return Number.parseFloat((await box(page, name).inputValue()).replace(',', '.'));
}

test('a value is typed in whatever unit, nudged with arrow keys and dragged', async ({ page, server }) => {
  const build = await server.makeBuild('Tuning');
  await openBuild(page, server, build.id);
  await box(page, 'Volume Vb').fill('1.5 cuft');
  await page.keyboard.press('Enter');
  await expect(box(page, 'Volume Vb')).toHaveValue('1.5 cuft');
  const typed = await figure(page, 'f3').innerText();

  await rule(page, 'Volume Vb').focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => number(page, 'Volume Vb')).toBeCloseTo(1.51, 2);
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(() => number(page, 'Volume Vb')).toBeCloseTo(1.61, 2);
  await expect(figure(page, 'f3')).not.toHaveText(typed, { useInnerText: true });

  const area = await rule(page, 'Slot height').boundingBox();
  if (!area) throw new Error('no rule');
  const middle = area.y + area.height / 2;
  const height = await number(page, 'Slot height');
  const length = await figure(page, 'port').innerText();
  await page.mouse.move(area.x + area.width / 2, middle);
  await page.mouse.down();
  await page.mouse.move(area.x + area.width / 2 + 40, middle, { steps: 5 });
  await page.mouse.up();
  await expect.poll(() => number(page, 'Slot height')).toBeGreaterThan(height * 1.1);
  await expect(figure(page, 'port')).not.toHaveText(length, { useInnerText: true });
});

test('a value that is typed and not yet left counts before a button, a shortcut or a drag', async ({
  page,
  server,
}) => {
  const build = await server.makeBuild('Half typed');
  await openBuild(page, server, build.id);
  const named = (name: string) => page.getByRole('button', { name: `Work on ${name}` });
  const volumes = async () =>
    (await server.open(build.id)).variants.map(({ content }) => content.enclosure.volume);
  await box(page, 'Volume Vb').fill('51 l');
  await page.keyboard.press('Control+d');
  await expect(named('Slot, all-round 2')).toBeVisible();
  await expect.poll(volumes).toEqual(['51 l', '30 l', '51 l']);

  await box(page, 'Volume Vb').fill('53 l');
  await named('Sealed, bench berth').click();
  await expect.poll(volumes).toEqual(['51 l', '30 l', '53 l']);

  await named('Slot, all-round').first().click();
  await box(page, 'Volume Vb').fill('57 l');
  const area = await rule(page, 'Tuning Fb').boundingBox();
  if (!area) throw new Error('no rule');
  await page.mouse.move(area.x + area.width / 2, area.y + 10);
  await page.mouse.down();
  await page.mouse.move(area.x + area.width / 2 + 30, area.y + 10, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await volumes())[0]).toBe('57 l');
  await expect.poll(() => number(page, 'Tuning Fb')).toBeGreaterThan(29);
});

test('arrow keys that are held lose no step', async ({ page, server }) => {
  const build = await server.makeBuild('Held');
  await openBuild(page, server, build.id);
  await rule(page, 'Volume Vb').focus();
  let wanted = 44;
  for (let press = 0; press < 40; press += 1) {
    await page.keyboard.down('ArrowRight');
    wanted = nudged(wanted, 1, false);
  }
  await page.keyboard.up('ArrowRight');
  await expect(box(page, 'Volume Vb')).toHaveValue(`${wanted} l`);
  await expect.poll(async () => (await kept(server, build)).content.enclosure.volume).toBe(`${wanted} l`);
});

test('one gesture is one revision and one step of undo', async ({ page, server }) => {
  const build = await server.makeBuild('Gestures');
  await openBuild(page, server, build.id);
  const area = await rule(page, 'Volume Vb').boundingBox();
  if (!area) throw new Error('no rule');
  await page.mouse.move(area.x + area.width / 2, area.y + 10);
  await page.mouse.down();
  await page.mouse.move(area.x + area.width / 2 + 60, area.y + 10, { steps: 12 });
  await page.mouse.up();
  await expect.poll(async () => (await kept(server, build)).revision).toBe(2);
  const changed = await box(page, 'Volume Vb').inputValue();

  await rule(page, 'Tuning Fb').focus();
  for (let press = 0; press < 5; press += 1) await page.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await kept(server, build)).revision).toBe(3);

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(box(page, 'Tuning Fb')).toHaveValue('29 Hz');
  await page.keyboard.press('Control+z');
  await expect(box(page, 'Volume Vb')).toHaveValue('44 l');
  await page.keyboard.press('Control+Shift+z');
  await expect(box(page, 'Volume Vb')).toHaveValue(changed);
  await expect.poll(async () => (await kept(server, build)).content.enclosure.volume).toBe(changed);
});

test('of tuning and port length the last one touched wins', async ({ page, server }) => {
  const build = await server.makeBuild('Last word');
  await openBuild(page, server, build.id);
  await box(page, 'Port length').fill('300 mm');
  await page.keyboard.press('Enter');
  await expect(figure(page, 'port')).toContainText('300 mm');
  await expect(figure(page, 'fb')).not.toContainText(/^29 Hz/);
  await expect.poll(() => number(page, 'Tuning Fb')).toBeGreaterThan(31);

  await box(page, 'Tuning Fb').fill('27');
  await page.keyboard.press('Enter');
  await expect(figure(page, 'fb')).toContainText('27 Hz');
  await expect.poll(() => number(page, 'Port length')).toBeGreaterThan(450);
  await expect
    .poll(async () => (await kept(server, build)).content.enclosure.ports?.[0]?.length ?? null)
    .toBeNull();
});

test('the shape of the port is switched without losing its area', async ({ page, server }) => {
  const build = await server.makeBuild('Switching');
  await openBuild(page, server, build.id);
  await page.getByRole('radio', { name: 'Round' }).click();
  await expect.poll(() => number(page, 'Diameter')).toBeCloseTo(94.4, 0);
  await page.getByRole('radio', { name: 'Slot' }).click();
  await expect(box(page, 'Slot height')).toHaveValue('28 mm');
});

test('the air speed is judged by the 17 and 34 m/s of common practice', async ({ page, server }) => {
  const build = await server.makeBuild('Air');
  await openBuild(page, server, build.id);
  const drive = async (power: string) => {
    await box(page, 'Drive').fill(power);
    await page.keyboard.press('Enter');
  };
  await drive('20 W');
  await expect(figure(page, 'air')).toContainText('quiet with straight edges');
  await drive('150 W');
  await expect(figure(page, 'air')).toContainText('over 17: flare both ends');
  await drive('2.83 V');
  await expect(figure(page, 'load')).toContainText('2.83 V drive');
  await drive('0.6 kW');
  await expect(figure(page, 'air')).toContainText('over 34');
  await expect(figure(page, 'cone')).toContainText('over Xmax');
  await expect(page.getByRole('img', { name: /^What limits it: .*over it at this drive/ })).toBeVisible();
});

test('a part of the drawing leads to its numbers', async ({ page, server }) => {
  const build = await server.makeBuild('Parts');
  await openBuild(page, server, build.id);
  await page.getByRole('button', { name: 'Box: edit the volume' }).focus();
  await page.keyboard.press('Enter');
  const part = (name: string) => page.getByRole('dialog', { name, exact: true });
  await expect(part('Box').getByRole('textbox', { name: 'Volume Vb' })).toBeFocused();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Port: edit its size' }).focus();
  await page.keyboard.press('Enter');
  await expect(part('Port').getByRole('textbox', { name: 'Slot width' })).toBeFocused();
  await page.keyboard.type('300 mm');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(box(page, 'Slot width')).toHaveValue('300 mm');
  await page.getByRole('button', { name: 'Driver: choose another' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Choose a driver' })).toBeVisible();
});
