// A real server on a database of its own for each worker; tests make the builds they work on.

import { type ChildProcess, spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { test as base, expect, type Page } from '@playwright/test';
import { briefOf, nameOf, type Variant, variantsOf } from '../src/api/documents';
import type { Driver, DriverPage, OpenBuild, RawBrief, RawDesign } from '../src/schema/types';

export { expect };

const DEMO = new URL('../../demo', import.meta.url).pathname;

function required(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; run: cargo xtask e2e`);
  return value;
}

/** A build as the server has it. */
export interface Opened {
  id: string;
  name: string;
  brief: RawBrief | null;
  variants: Variant[];
}

export class Server {
  private child: ChildProcess | null = null;
  private rig: ChildProcess | null = null;
  private rigAddress = '';
  port = 0;

  constructor(private readonly database: string) {}

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    const program = required('OAK_DRUM_SERVER');
    if (!this.rig) await this.startRig();
    const child = spawn(
      program,
      [
        'serve',
        '--port',
        String(this.port),
        '--demo',
        DEMO,
        '--companion',
        '127.0.0.1:0',
        '--rig',
        this.rigAddress,
      ],
      {
        env: { ...process.env, OAK_DRUM_DATABASE_URL: this.database },
        stdio: ['ignore', 'pipe', 'inherit'],
      },
    );
    this.child = child;
    for await (const line of createInterface({ input: child.stdout })) {
      const port = /^Oak Drum is at http:\/\/127\.0\.0\.1:(\d+)\/$/.exec(line)?.[1];
      if (port) {
        this.port = Number(port);
        return;
      }
    }
    throw new Error('the server did not start');
  }

  /** A simulated measuring box that sweeps forty times as quickly as a real one. */
  private async startRig(): Promise<void> {
    const child = spawn(required('OAK_DRUM_RIG'), [`${DEMO}/rig/pit-organ.json`, '0', '40'], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.rig = child;
    for await (const line of createInterface({ input: child.stdout })) {
      this.rigAddress = line.trim().split(' ').at(-1) ?? '';
      return;
    }
    throw new Error('the measuring box did not start');
  }

  /** Ends it with all that it started. */
  async stop(): Promise<void> {
    this.rig?.kill('SIGKILL');
    this.rig = null;
    await this.kill();
  }

  /** As a power cut would: no time to tidy up. */
  async kill(): Promise<void> {
    const child = this.child;
    this.child = null;
    if (!child) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await gone;
  }

  async call<Answer>(method: string, path: string, body?: unknown): Promise<Answer> {
    const answer = await fetch(`${this.address}/api/v1${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: body === undefined ? null : JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as Answer;
  }

  /** A build with designs, two of the demo where none are given. */
  async makeBuild(name: string, designs?: object[], brief?: RawBrief): Promise<Opened> {
    const { format, version, variants } = JSON.parse(
      readFileSync(`${DEMO}/builds/narrowboat-nook.json`, 'utf8'),
    ) as { format: string; version: number; variants: RawDesign[] };
    const file = { format, version, name, brief, variants: designs ?? variants.slice(0, 2) };
    return this.open((await this.call<{ id: string }>('POST', '/builds/import', file)).id);
  }

  /** A build of the demo as it comes, under a name of its own: other tests change the one that is there. */
  async importDemo(file: string, name: string): Promise<{ id: string }> {
    const demo = JSON.parse(readFileSync(`${DEMO}/builds/${file}.json`, 'utf8')) as object;
    return this.call('POST', '/builds/import', { ...demo, name });
  }

  async open(id: string): Promise<Opened> {
    const build = await this.call<OpenBuild>('GET', `/builds/${id}`);
    return { id, name: nameOf(build), brief: briefOf(build), variants: variantsOf(build) };
  }

  async drivers(): Promise<Driver[]> {
    const page: DriverPage = await this.call('GET', '/drivers?limit=500');
    return page.drivers;
  }
}

export const test = base.extend<object, { server: Server }>({
  server: [
    async ({ browserName: _ }, use, worker) => {
      const databases = required('OAK_DRUM_DATABASES').split(' ');
      const server = new Server(databases[worker.parallelIndex] ?? '');
      await server.start();
      await use(server);
      await server.stop();
    },
    { scope: 'worker' },
  ],
});

/** Opens the workbench and waits for the figures. */
export async function openBuild(page: Page, server: Server, id: string): Promise<void> {
  await page.goto(`${server.address}/builds/${id}`);
  await expectFigures(page);
}

/** The lowest note is on the strip, of its own or beside what the brief asks. */
export async function expectFigures(page: Page): Promise<void> {
  await expect(page.locator('[data-figure="f3"], [data-figure="brief-lowest"]')).toBeVisible();
}

export function figure(page: Page, name: string) {
  return page.locator(`[data-figure="${name}"]`);
}

/** The variant's newest document on the server. */
export async function kept(server: Server, build: Opened, place = 0): Promise<Variant> {
  const variant = (await server.open(build.id)).variants[place];
  if (!variant) throw new Error('no such variant');
  return variant;
}
