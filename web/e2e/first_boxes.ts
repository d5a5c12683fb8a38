// Twenty first boxes by both ways in, at the speed of a person: cargo xtask e2e -- --project=first-boxes

import type { Page } from '@playwright/test';
import type { RawDriver } from '../src/schema/types';
import { expect, expectFigures, figure, type Server, test } from './support';

/** What a person takes, s: a key, moving the pointer and pressing, deciding. */
const KEY = 0.28;
const POINT = 1.1;
const DECIDE = 1.35;

const TEMPLATES = [
  'Films and music',
  'Home, film',
  'Home, music',
  'Car, in the boot',
  'Car, under a seat',
  'Bass guitar cabinet',
  'Organ, electric',
  'Bass box of a small two-way',
  'Outdoor',
];

/** Counts what a person does, and waits for what they wait for. */
class Person {
  clicks = 0;
  private acted = 0;
  private readonly begun = performance.now();
  private spent = 0;

  constructor(private readonly page: Page) {}

  async press(role: 'button' | 'link' | 'radio', name: string | RegExp): Promise<void> {
    const began = performance.now();
    await this.page.getByRole(role, { name }).first().click();
    this.spent += (performance.now() - began) / 1000;
    this.clicks += 1;
    this.acted += POINT + DECIDE;
  }

  /** Pasting is two keys, whatever is pasted. */
  async paste(field: string, text: string): Promise<void> {
    await this.page.getByRole('textbox', { name: field }).fill(text);
    this.acted += 2 * KEY + DECIDE;
  }

  async type(field: string, text: string): Promise<void> {
    await this.page.getByLabel(field, { exact: true }).fill(text);
    this.clicks += 1;
    this.acted += POINT + DECIDE + text.length * KEY;
  }

  /** What the program made them wait, and what they did. */
  get seconds(): number {
    const waited = (performance.now() - this.begun) / 1000 - this.spent;
    return waited + this.acted;
  }
}

function sheetOf({ name, fs, re, qms, qes, vas, sd, xmax, pe, mms, bl, nominal }: RawDriver): string {
  const values = {
    Fs: fs,
    Re: re,
    Qms: qms,
    Qes: qes,
    Vas: vas,
    Sd: sd,
    Xmax: xmax,
    'Power handling': pe,
    Mms: mms,
    Bl: bl,
    Impedance: nominal,
  };
  const lines = Object.entries(values).flatMap(([label, value]) =>
    value == null ? [] : [`${label}: ${value}`],
  );
  return [name, ...lines].join('\n');
}

async function done(page: Page, person: Person): Promise<void> {
  await expect(page.getByRole('button', { name: 'Make this box' })).toBeVisible();
  await person.press('button', 'Make this box');
  await expectFigures(page);
}

async function byWoofer(page: Page, server: Server, driver: RawDriver, template: string): Promise<Person> {
  await page.goto(server.address);
  const person = new Person(page);
  await person.press('link', /I have a woofer/);
  await person.paste('Data sheet', sheetOf(driver));
  await person.press('button', 'Use this woofer');
  await person.press('button', new RegExp(`^${template}`));
  await expect(page.locator('#the-box ~ [aria-busy="false"]')).toBeVisible();
  await done(page, person);
  return person;
}

async function byWish(page: Page, server: Server, driver: RawDriver, template: string): Promise<Person> {
  await page.goto(server.address);
  const person = new Person(page);
  await person.press('link', /I have a space and a wish/);
  await person.press('button', new RegExp(`^${template}`));
  await person.type('Lowest note', '38');
  await person.press('radio', 'From the library');
  await person.type('Find a driver', driver.name ?? '');
  await person.press('button', `Use ${driver.name}`);
  await done(page, person);
  return person;
}

test('twenty first boxes, each fitting or saying what is short', async ({ page, server }) => {
  test.setTimeout(600_000);
  const drivers = (await server.drivers()).map(({ document }) => document);
  const told: { seconds: number; clicks: number }[] = [];
  for (let at = 0; at < 20; at += 1) {
    const driver = drivers[(at * 7) % drivers.length] as RawDriver;
    const template = TEMPLATES[at % TEMPLATES.length] ?? '';
    const way = at % 2 ? byWish : byWoofer;
    const { seconds, clicks } = await way(page, server, driver, template);
    told.push({ seconds, clicks });
    const fits = figure(page, 'brief-fits');
    const words = (await fits.count()) ? (await fits.innerText()).replaceAll('\n', ' ') : 'no box';
    console.log(`${driver.name}, ${template}: ${seconds.toFixed(0)} s, ${clicks} clicks; ${words}`);
  }
  const seconds = told.map((one) => one.seconds).sort((a, b) => a - b);
  console.log(
    `first box: median ${seconds[10]?.toFixed(0)} s, longest ${seconds.at(-1)?.toFixed(0)} s, at most ${Math.max(...told.map(({ clicks }) => clicks))} clicks`,
  );
});
