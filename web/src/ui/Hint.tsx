import { Tooltip } from 'radix-ui';
import type { ReactElement } from 'react';

interface Props {
  text: string;
  side?: 'right' | 'top';
  /** What is explained; it must take the focus. */
  children: ReactElement;
}

/** Explains something to who points at it or moves to it. */
export function Hint({ text, side = 'top', children }: Props) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          side={side}
          sideOffset={4}
          collisionPadding={8}
          className="z-[60] max-w-72 rounded border border-ink bg-ink px-2.5 py-1.5 text-left font-normal font-sans text-[13px] text-paper shadow-lg"
        >
          {text}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
