import { type RefObject, useLayoutEffect, useRef, useState } from 'react';

export interface Size {
  width: number;
  height: number;
}

/** The size of an element as it changes; zero before it is laid out. */
export function useSize<Kind extends HTMLElement>(): [RefObject<Kind | null>, Size] {
  const element = useRef<Kind>(null);
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    if (!element.current) return undefined;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element.current);
    return () => observer.disconnect();
  }, []);
  return [element, size];
}
