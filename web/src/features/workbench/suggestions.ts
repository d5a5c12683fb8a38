// What fixes a design, in words.

import { measure, preferences } from '../../model/preferences';
import { shown, unitsOf } from '../../model/units';
import type { RawDesign, Suggestion, Turn } from '../../schema/types';

function unitFor({ dimension, unit }: Pick<Turn, 'dimension' | 'unit'>) {
  const symbol = preferences.snapshot().units[dimension] ?? unit;
  return unitsOf(dimension).find((one) => one.symbol === symbol) ?? null;
}

/** An SI value of a knob as a person reads it. */
export function parameterValue(si: number, of: Pick<Turn, 'dimension' | 'unit'>, digits = 3): string {
  return shown(measure(si, unitFor(of), digits));
}

/** `7 l more volume`. */
export function turnWords(turn: Turn): string {
  const { name, before, after } = turn;
  const by = parameterValue(Math.abs(after - before), turn);
  if (turn.id.includes('tuning')) return `${name} ${by} ${after > before ? 'higher' : 'lower'}`;
  if (turn.id === 'loudness') return `ask for ${by} less`;
  const lower = name.charAt(0).toLowerCase() + name.slice(1);
  return `${by} ${after > before ? 'more' : 'less'} ${lower}`;
}

/** The whole change in one line. */
export function suggestionWords(suggestion: Suggestion): string {
  const parts = [suggestion.words, ...suggestion.turns.map(turnWords)].filter(Boolean);
  const text = parts.join(' and ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** From what to what, for those who want it exactly. */
export function suggestionDetail({ turns }: Suggestion): string {
  return turns
    .map(
      (turn) => `${turn.name} ${parameterValue(turn.before, turn)} → ${parameterValue(turn.after, turn, 4)}`,
    )
    .join(', ');
}

/** What it does to how loud it plays. */
export function costWords({ name, before, after }: Suggestion['costs'][number]): string {
  return `${name} ${before.toFixed(1)} → ${after.toFixed(1)} dB`;
}

/** The suggested design under a name that says what was done. */
export function suggestedDesign(design: RawDesign, suggestion: Suggestion): RawDesign | null {
  if (!suggestion.design) return null;
  const name = `${design.name ?? ''}, ${suggestionWords(suggestion).toLowerCase()}`;
  return { ...suggestion.design, name: name.slice(0, 110) };
}
