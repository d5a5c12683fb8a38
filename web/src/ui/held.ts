import { useRef } from 'react';

/** A value as it was when it began to be held. */
export function useHeld<Value>(value: Value, held: boolean): Value {
  const last = useRef(value);
  if (!held) last.current = value;
  return last.current;
}
