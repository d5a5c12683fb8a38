// Asks the server for what designs do. One request a variant is under way; of the designs that come in
// meanwhile only the latest is asked for, so that a drag is drawn as it goes and ends with the last.

import { type Asked, UNASKED } from '../model/conditions';
import { Observable } from '../model/observable';
import type { ProblemDocument, RawDesign, Report } from '../schema/types';

export type Result = { ok: true; report: Report } | { ok: false; problem: ProblemDocument | null };
export type Ask = (design: RawDesign, asked: Asked, signal: AbortSignal) => Promise<Result>;

interface Desk {
  /** What was asked last. */
  asked: RawDesign;
  waiting: RawDesign | null;
  abort: AbortController | null;
}

export interface Results {
  /** The newest report of each variant; it stays while its design cannot be computed. */
  reports: ReadonlyMap<string, Report>;
  /** Why a design cannot be computed; null where the server does not answer. */
  problems: ReadonlyMap<string, ProblemDocument | null>;
}

/** How long a dead server is left alone, ms. */
const PAUSE = 2000;

export class Simulator extends Observable<Results> {
  private desks = new Map<string, Desk>();
  private asked: Asked = UNASKED;

  constructor(private readonly ask: Ask) {
    super({ reports: new Map(), problems: new Map() });
  }

  show(id: string, design: RawDesign): void {
    const desk = this.desks.get(id);
    if (!desk) {
      const fresh: Desk = { asked: design, waiting: design, abort: null };
      this.desks.set(id, fresh);
      void this.work(id, fresh);
    } else if (desk.asked !== design) {
      desk.asked = design;
      desk.waiting = design;
      if (!desk.abort) void this.work(id, desk);
    }
  }

  /** Asks for everything in other conditions. */
  condition(asked: Asked): void {
    if (asked === this.asked) return;
    this.asked = asked;
    for (const [id, desk] of this.desks) {
      desk.waiting = desk.asked;
      if (!desk.abort) void this.work(id, desk);
    }
  }

  stop(): void {
    for (const desk of this.desks.values()) {
      desk.waiting = null;
      desk.abort?.abort();
    }
    this.desks.clear();
  }

  private async work(id: string, desk: Desk): Promise<void> {
    const design = desk.waiting;
    if (!design) return;
    desk.waiting = null;
    desk.abort = new AbortController();
    const { signal } = desk.abort;
    const result = await this.ask(design, this.asked, signal);
    desk.abort = null;
    if (signal.aborted) return;
    this.take(id, result);
    if (!result.ok && !result.problem && !desk.waiting) {
      setTimeout(() => {
        desk.waiting ??= desk.asked;
        if (!desk.abort && this.desks.get(id) === desk) void this.work(id, desk);
      }, PAUSE);
    } else if (desk.waiting) void this.work(id, desk);
  }

  private take(id: string, result: Result): void {
    const problems = new Map(this.state.problems);
    if (!result.ok) {
      this.update({ problems: problems.set(id, result.problem) });
      return;
    }
    problems.delete(id);
    this.update({ reports: new Map(this.state.reports).set(id, result.report), problems });
  }
}
