// The steps of a build on a phone: what was read, what was ticked since, and how that gets to the server while the connection comes and
// goes. What waits outlives a reload.

import { localMoment } from '../model/moment';
import { Observable } from '../model/observable';
import type { StepsOnPhone, ToldStep } from '../schema/types';

export interface StepsState {
  page: StepsOnPhone | null;
  /** What the server has not heard yet, the latest of each step. */
  waiting: readonly ToldStep[];
  /** Whether the server could not be reached when it was last tried. */
  away: boolean;
  /** Why the link does not hold any more. */
  ended: string | null;
}

export interface Answer {
  ok: boolean;
  status: number;
  json: unknown;
}

/** How the page asks: an answer, or nothing where the server cannot be reached. */
export type Ask = (path: string, body?: unknown) => Promise<Answer | null>;

const KEY = 'oak-drum:steps';
const WAITS = [1000, 2000, 4000, 8000, 15000];
/** Most that is told at once. */
const MOST = 100;

export class Steps extends Observable<StepsState> {
  private sending = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly ask: Ask,
    private readonly storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>,
  ) {
    super({ page: null, waiting: [], away: false, ended: null });
    try {
      const kept = JSON.parse(storage.getItem(KEY) ?? '[]');
      if (Array.isArray(kept)) this.state = { ...this.state, waiting: kept };
    } catch {
      storage.removeItem(KEY);
    }
  }

  /** Opens the page by what stands in the link, or by what an earlier visit left. */
  async open(token: string | null): Promise<void> {
    if (token) {
      const joined = await this.ask('/join', { token });
      // What another page left unsent belongs to another link.
      if (joined?.ok) this.wait([]);
    }
    await this.read();
  }

  /** Reads how the build stands. */
  async read(): Promise<void> {
    const answer = await this.ask('/steps');
    if (!answer?.ok) {
      this.failed(answer);
      return;
    }
    this.failures = 0;
    this.update({ page: answer.json as StepsOnPhone, away: false });
    await this.send();
  }

  /** Says of a step that it is done, or that it is not. */
  tick(step: string, done: boolean, now: Date): void {
    const told = { step, at: localMoment(now), done };
    this.wait([...this.state.waiting.filter((one) => one.step !== step), told]);
    void this.send();
  }

  /** Tries again at once. */
  retry(): void {
    clearTimeout(this.timer);
    void (this.state.page ? this.send() : this.read());
  }

  private async send(): Promise<void> {
    const { waiting, ended, page } = this.state;
    if (this.sending || ended !== null || !waiting.length) return;
    this.sending = true;
    const sent = waiting.slice(0, MOST);
    const answer = await this.ask('/ticks', { steps: sent });
    this.sending = false;
    if (!answer?.ok) {
      this.failed(answer);
      return;
    }
    this.failures = 0;
    this.wait(this.state.waiting.filter((one) => !sent.includes(one)));
    const ticks = answer.json as StepsOnPhone['ticks'];
    this.update({ away: false, page: page && { ...page, ticks } });
    await this.send();
  }

  private wait(waiting: readonly ToldStep[]): void {
    if (waiting.length) this.storage.setItem(KEY, JSON.stringify(waiting));
    else this.storage.removeItem(KEY);
    this.update({ waiting });
  }

  /** Nothing was heard, or a refusal: what may pass is tried again, what does not ends the page. */
  private failed(answer: Answer | null): void {
    if (answer === null || answer.status === 429 || answer.status >= 500) {
      this.later();
      return;
    }
    const { detail } = (answer.json ?? {}) as { detail?: string };
    this.update({ ended: detail ?? 'This link does not open the page any more.' });
  }

  private later(): void {
    const wait = WAITS[Math.min(this.failures, WAITS.length - 1)];
    this.failures += 1;
    this.update({ away: true });
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.retry(), wait);
  }
}

/** What is known of a step: what was said here last, else what the server has. */
export function standing({ page, waiting }: StepsState, step: string): 'done' | 'failed' | null {
  const told = waiting.find((one) => one.step === step);
  if (told) return told.done ? 'done' : null;
  const tick = page?.ticks.find((one) => one.step === step);
  return tick ? (tick.failed ? 'failed' : 'done') : null;
}
