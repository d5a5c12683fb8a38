import { meaningOf } from '../model/glossary';
import { Hint } from './Hint';

/** A term of the trade that explains itself to who points at it, moves to it or taps it. */
export function Term({ name }: { name: string }) {
  const meaning = meaningOf(name);
  if (!meaning) return name;
  return (
    <Hint text={meaning} tap>
      <button
        type="button"
        className="cursor-help underline decoration-dotted decoration-rule-line underline-offset-2"
      >
        {name}
      </button>
    </Hint>
  );
}
