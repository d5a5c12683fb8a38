import { useEffect, useRef, useState } from 'react';

/** A value that changes fast, followed no oftener than every so many milliseconds; it ends with the last. */
export function useCalm<Value>(value: Value, every: number): Value {
  const [calm, setCalm] = useState(value);
  const last = useRef(0);
  useEffect(() => {
    const wait = Math.max(0, last.current + every - performance.now());
    const timer = setTimeout(() => {
      last.current = performance.now();
      setCalm(value);
    }, wait);
    return () => clearTimeout(timer);
  }, [value, every]);
  return calm;
}
