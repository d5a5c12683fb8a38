import type { ReactNode } from 'react';

interface Props {
  label: string;
  className?: string;
  children: ReactNode;
}

/** What may be larger than its place: reached by Tab, so that the arrow keys scroll it. */
export function Scroll({ label, className = 'overflow-auto', children }: Props) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reached without a mouse
    <section aria-label={label} tabIndex={0} className={className}>
      {children}
    </section>
  );
}
