import { type KeyboardEvent, useId, useRef } from 'react';
import { meaningIn, meanings } from '../model/meanings';
import { noteAt } from '../model/notes';
import { asRead, preferredUnit, rememberUnit, unitOf } from '../model/preferences';
import {
  type Field,
  parseNumber,
  rangeOf,
  readField,
  readTyped,
  shown,
  type Unit,
  usualUnit,
} from '../model/units';
import type { Typed } from '../schema/types';
import { useDraft } from './draft';
import { useObserved, usePreferences } from './observed';

interface Props {
  label: string;
  /** What the text may mean, the first unless the unit says otherwise. */
  fields: readonly Field[];
  typed: Typed | null;
  /** Trace where nothing is typed because it follows from the rest. */
  follows?: string | undefined;
  /** Said by the server about the value that is there. */
  error?: string | undefined;
  optional?: boolean | undefined;
  className?: string;
  onType: (field: Field, typed: Typed | null) => void;
  onArrow?: (steps: number) => void;
  onLeave?: () => void;
}

interface Read {
  field: Field;
  typed: Typed;
}

/** A value typed with its unit. Enter or leaving takes it, Escape takes it back. */
export function QuantityInput(props: Props) {
  const { label, fields, typed, follows, error, optional, className = '', onType, onArrow, onLeave } = props;
  const [draft, setDraft] = useDraft(JSON.stringify(typed));
  const input = useRef<HTMLInputElement>(null);
  const messageId = useId();
  const { notes } = usePreferences();
  const meaning = meaningIn(useObserved(meanings), fields[0]);
  const written =
    typed === null ? (follows ?? '') : `${shown(readIn(typed, fields))}${notes ? noteOf(typed, fields) : ''}`;

  function take() {
    if (!draft) return;
    const text = draft.text.trim();
    if (text === written) return setDraft(null);
    if (text === '' && optional && fields[0]) {
      setDraft(null);
      return onType(fields[0], null);
    }
    const read = readAny(text, fields, typed);
    if (typeof read === 'string') return setDraft({ text: draft.text, refused: read });
    setDraft(null);
    rememberUnit(read.field, readTyped(read.typed, read.field.dimension)?.unit ?? null);
    onType(read.field, read.typed);
  }

  function onKeyDown(event: KeyboardEvent) {
    if (event.key === 'Enter' && draft !== null) {
      // Takes the value alone; in a form the next Enter sends.
      event.preventDefault();
      take();
    }
    if (event.key === 'Escape' && draft !== null) {
      event.stopPropagation();
      setDraft(null);
    }
    const steps = arrowSteps(event);
    if (steps && onArrow && draft === null && event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') {
      event.preventDefault();
      onArrow(steps);
    }
  }

  const message = draft ? draft.refused : error;
  return (
    <div className={`relative ${className}`}>
      <input
        ref={input}
        className={`field ${typed === null && follows ? 'border-dashed text-soft' : ''}`}
        aria-label={label}
        aria-invalid={message ? true : undefined}
        aria-describedby={message ? messageId : undefined}
        aria-description={meaning}
        data-quantity=""
        data-draft={draft === null ? undefined : ''}
        autoComplete="off"
        spellCheck={false}
        placeholder={optional && fields[0] ? shown(usualUnit(fields[0])?.symbol ?? '') : ''}
        value={draft?.text ?? written}
        onChange={(event) => setDraft({ text: event.target.value })}
        onFocus={(event) => event.target.select()}
        onKeyDown={onKeyDown}
        onBlur={() => {
          take();
          onLeave?.();
        }}
      />
      {message && (
        <p
          id={messageId}
          role="alert"
          className="absolute top-full left-0 z-30 mt-0.5 w-max max-w-72 font-sans rounded-[3px] border border-short bg-short-wash px-2 py-1 text-[0.929rem] text-short shadow"
        >
          {message}
        </p>
      )}
    </div>
  );
}

/** How many steps an arrow or page key asks for; 0 for any other key. */
export function arrowSteps(event: KeyboardEvent): number {
  const large = event.shiftKey ? 10 : 1;
  const steps: Record<string, number> = {
    ArrowUp: large,
    ArrowRight: large,
    ArrowDown: -large,
    ArrowLeft: -large,
    PageUp: 10,
    PageDown: -10,
  };
  return steps[event.key] ?? 0;
}

/** What is written, in the unit a person reads it in. */
function readIn(typed: Typed, fields: readonly Field[]): Typed {
  const field = fields.find((one) => readTyped(typed, one.dimension));
  return field ? asRead(typed, field) : typed;
}

/** The nearest note of a frequency. */
function noteOf(typed: Typed, fields: readonly Field[]): string {
  const hertz = fields[0]?.dimension === 'frequency' ? readTyped(typed, 'frequency')?.si : null;
  return hertz ? ` · ${noteAt(hertz)}` : '';
}

function readAny(written: string, fields: readonly Field[], typed: Typed | null): Read | string {
  const [first] = fields;
  if (!first) return 'nothing can be written here';
  // A note beside its frequency, as it is shown, is one value.
  const sides = written.split('·').map((side) => side.trim());
  const reads = (side: string) => fields.some((field) => readField(side, field, unitOf(field, typed)).ok);
  const text = sides.find(reads) ?? written;
  // A bare number means the unit that is on show, so the field that is on show.
  const bare = typeof parseNumber(text) === 'number';
  const current = bare ? (fields.find((field) => readTyped(typed, field.dimension)) ?? first) : first;
  const [there, usual] = [readTyped(typed, current.dimension)?.unit, usualUnit(current)];
  if (bare && there && usual && there.symbol !== usual.symbol && !preferredUnit(current)) {
    return `In which unit? Type ${text} ${shown(usual.symbol)} or ${text} ${shown(there.symbol)}.`;
  }
  for (const field of [current, ...fields]) {
    const unit = unitOf(field, typed);
    const reading = readField(text, field, unit);
    if (reading.ok) return { field, typed: asFile(text, field, bare ? unit : null) };
  }
  const reading = readField(text, current, unitOf(current, typed));
  return reading.ok ? `${text} is not allowed; ${rangeOf(current)} is` : reading.reason;
}

/** As typed, with the unit that was only shown. */
function asFile(text: string, field: Field, unit: Unit | null): Typed {
  if (unit) return `${text} ${unit.symbol}`;
  const number = parseNumber(text);
  return !usualUnit(field) && typeof number === 'number' ? number : text;
}
