import { Tooltip } from 'radix-ui';
import { type ReactElement, useRef, useState } from 'react';

interface Props {
  text: string;
  /** Whether a finger's tap opens it too: for what does nothing else. */
  tap?: boolean;
  /** What is explained; it must take the focus. */
  children: ReactElement;
}

/** Explains something to who points at it, moves to it or, where that does nothing else, taps it. */
export function Hint({ text, tap = false, children }: Props) {
  const [open, setOpen] = useState(false);
  const touched = useRef(false);
  return (
    <Tooltip.Provider delayDuration={250}>
      <Tooltip.Root open={open} onOpenChange={setOpen}>
        <Tooltip.Trigger
          asChild
          onPointerDown={(event) => {
            touched.current = event.pointerType === 'touch';
          }}
          onClick={(event) => {
            if (!tap || !touched.current) return;
            // Else the press closes what it opens.
            event.preventDefault();
            setOpen(true);
          }}
        >
          {children}
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={4}
            collisionPadding={8}
            className="z-[60] max-w-72 rounded border border-ink bg-ink px-2.5 py-1.5 text-left font-normal font-sans text-[0.929rem] text-paper shadow-lg"
          >
            {text}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
