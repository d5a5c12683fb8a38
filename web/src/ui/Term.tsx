import { Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';

/** A word of the trade; hover or focus explains it. */
export function Term({ meaning, children }: { meaning: string; children: ReactNode }) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <button
          type="button"
          className="rounded-[2px] text-left underline decoration-rule-line decoration-dotted underline-offset-3"
        >
          {children}
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-w-64 rounded border border-ink bg-ink px-2.5 py-1.5 text-paper shadow-lg"
        >
          {meaning}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
