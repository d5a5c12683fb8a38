import { startTransition, useEffect, useRef, useState } from 'react';

/** How often boards and words follow a drag, ms: the curves come first. */
export const FOLLOWED = 120;

/**
 * A value that changes fast, followed after the next frame and no oftener than every so many milliseconds; it ends with
 * the last.
 */
export function useThrottled<Value>(value: Value, every: number): Value {
  const [throttled, setThrottled] = useState(value);
  const latest = useRef(value);
  latest.current = value;
  const last = useRef(0);
  const cancel = useRef<(() => void) | null>(null);
  useEffect(() => {
    // What is under way takes the latest when its time comes, however fast values follow each other.
    if (cancel.current || Object.is(value, throttled)) return;
    const follow = () => {
      cancel.current = null;
      last.current = performance.now();
      startTransition(() => setThrottled(latest.current));
    };
    const wait = Math.max(0, last.current + every - performance.now());
    // What is drawn at once is on screen first.
    let frame = 0;
    let timer = setTimeout(() => {
      frame = requestAnimationFrame(() => {
        timer = setTimeout(follow);
      });
    }, wait);
    cancel.current = () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
      cancel.current = null;
    };
  }, [value, throttled, every]);
  useEffect(() => () => cancel.current?.(), []);
  return throttled;
}
