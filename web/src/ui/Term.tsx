import { Tooltip } from 'radix-ui';
import { meaningOf } from '../model/glossary';

/** A term of the trade that explains itself to who points at it or moves to it. */
export function Term({ name }: { name: string }) {
  const meaning = meaningOf(name);
  if (!meaning) return name;
  return (
    <Tooltip.Root>
      <Tooltip.Trigger className="cursor-help underline decoration-dotted decoration-rule-line underline-offset-2">
        {name}
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={4}
          collisionPadding={8}
          className="z-[60] max-w-72 rounded border border-ink bg-ink px-2.5 py-1.5 text-left font-normal font-sans text-[13px] text-paper shadow-lg"
        >
          {meaning}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
