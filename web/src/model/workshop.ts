// How a build is made, what is done of it and what was written down: documents of the build, and changes to them.

import type {
  RawDesign,
  RawEntry,
  RawMeasurements,
  RawProgress,
  RawStock,
  RawWorkshop,
  Typed,
} from '../schema/types';
import { localMoment } from './moment';
import type { Bench, Kept, KeptKind, Workbench } from './workbench';

type WithKept = Pick<Bench, 'kept'>;

/** As nothing is said. */
export const AS_USUAL = {
  glue: 'pva',
  assembly: 'clamps',
  fixing: 'wood_screws',
  finish: 'rolled',
  feet: 'rubber',
  terminal: 'cup',
  leads: 'spades',
  paper: 'a4',
} as const satisfies RawWorkshop;

const ofKind = ({ kept }: WithKept, kind: KeptKind): Kept[] =>
  kept.filter((one) => one.kind === kind && !one.archived);

const only = <Content>(bench: WithKept, kind: KeptKind): Content | null =>
  (ofKind(bench, kind)[0]?.content as Content | undefined) ?? null;

/** How the build is made; null where nothing is said. */
export const workshopOn = (bench: WithKept) => only<RawWorkshop>(bench, 'workshop');

export const progressOn = (bench: WithKept): RawProgress => only<RawProgress>(bench, 'progress') ?? {};

function keepOnly(
  workbench: Workbench,
  kind: 'workshop' | 'progress',
  content: unknown,
  label: string,
): void {
  const { id } = workbench.soleOf(kind);
  workbench.keep({ kind, id, content, archived: false }, label);
}

/** Changes how the build is made; what is null is as usual again. */
export function editWorkshop(workbench: Workbench, change: object, label: string): void {
  const before = workshopOn(workbench.snapshot()) ?? AS_USUAL;
  const next = Object.entries({ ...before, ...change }).filter(
    ([, value]) => value !== null && value !== undefined,
  );
  keepOnly(workbench, 'workshop', Object.fromEntries(next), label);
}

/** Sets price or stock of an item of the parts list; one that says nothing more is forgotten. */
export function editStock(workbench: Workbench, item: string, change: Partial<RawStock>): void {
  const { items = [] } = workshopOn(workbench.snapshot()) ?? {};
  const before = items.find((one) => one.item === item) ?? { item };
  const next: RawStock = { ...before, ...change };
  const clean = Object.fromEntries(
    Object.entries(next).filter(([, value]) => value !== null && value !== undefined && value !== false),
  ) as RawStock;
  const others = items.filter((one) => one.item !== item);
  const says = clean.price !== undefined || clean.stock !== undefined || clean.bought;
  editWorkshop(workbench, { items: says ? [...others, clean] : others }, 'parts list');
}

/** Marks a step as done, as failed, or as still to be done. */
export function tick(workbench: Workbench, step: string, state: 'done' | 'failed' | null, now: Date): void {
  const progress = progressOn(workbench.snapshot());
  const others = (progress.ticks ?? []).filter((one) => one.step !== step);
  const at = localMoment(now);
  const ticks =
    state === null ? others : [...others, { step, at, ...(state === 'failed' && { failed: true }) }];
  keepOnly(workbench, 'progress', { ...progress, ticks }, 'step');
}

/** Remembers what pages said that were printed. */
export function printedNow(
  workbench: Workbench,
  page: string,
  said: readonly { what: string; value: string }[],
  now: Date,
): void {
  const progress = progressOn(workbench.snapshot());
  const others = (progress.printed ?? []).filter((one) => one.page !== page);
  const printed = [...others, { page, at: localMoment(now), said: [...said] }].slice(-20);
  keepOnly(workbench, 'progress', { ...progress, printed }, 'print');
}

export interface KeptEntry {
  id: string;
  entry: RawEntry;
}

/** The logbook, newest first. */
export const entriesOn = (bench: WithKept): KeptEntry[] =>
  ofKind(bench, 'entry')
    .map(({ id, content }) => ({ id, entry: content as RawEntry }))
    .sort((a, b) => b.entry.at.localeCompare(a.entry.at));

export function keepEntry(workbench: Workbench, { id, entry }: KeptEntry): void {
  workbench.keep({ kind: 'entry', id, content: entry, archived: false }, 'log entry');
}

export function archiveEntry(workbench: Workbench, { id, entry }: KeptEntry): void {
  workbench.keep({ kind: 'entry', id, content: entry, archived: true }, 'archive');
}

/** A design with what was measured in the workshop. */
export function withMeasured(
  design: RawDesign,
  what: 'thickness' | 'cutout' | 'depth' | 'volume',
  measured: Typed | null,
  drawn: Typed,
  material?: string | null,
): RawDesign {
  const before: RawMeasurements = design.measured ?? {};
  const next: Record<string, unknown> = { ...before };
  if (what === 'thickness') {
    const others = (before.boards ?? []).filter(
      (board) => board.material !== material || board.nominal !== drawn,
    );
    const board = { material, nominal: drawn, measured };
    next.boards = measured === null ? others : [...others, board];
    if (!(next.boards as unknown[]).length) delete next.boards;
  } else if (measured === null) {
    delete next[what];
  } else {
    next[what] = what === 'volume' ? { measured, expected: drawn } : measured;
  }
  const { measured: _, ...rest } = design;
  return Object.keys(next).length ? { ...rest, measured: next as RawMeasurements } : (rest as RawDesign);
}
