import { Dialog as Radix } from 'radix-ui';
import { type ReactNode, useRef, useState } from 'react';
import { Button } from './Button';
import { useFocusBack } from './focus';
import { Icon } from './Icon';

interface Props {
  title: string;
  about?: string;
  open: boolean;
  onClose: () => void;
  wide?: boolean;
  /** Whether something in it was changed and would be lost by closing it. */
  changed?: boolean;
  children: ReactNode;
}

export function Dialog({ title, about, open, onClose, wide, changed = false, children }: Props) {
  const content = useRef<HTMLDivElement>(null);
  const focusBack = useFocusBack();
  const [asking, setAsking] = useState(false);
  const close = () => {
    if (changed) setAsking(true);
    else onClose();
  };
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && close()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Radix.Content
          ref={content}
          {...focusBack}
          onEscapeKeyDown={(event) => {
            // In a field it leaves the field.
            const field = document.activeElement;
            if (!field?.matches('input:not([type=checkbox]), textarea, select')) return;
            event.preventDefault();
            setTimeout(() => content.current?.focus(), 0);
          }}
          {...(about ? {} : { 'aria-describedby': undefined })}
          className={`fixed top-1/2 left-1/2 z-50 flex max-h-[92vh] -translate-x-1/2 -translate-y-1/2 flex-col rounded-md border border-line bg-paper shadow-xl ${wide ? 'w-[min(1080px,94vw)]' : 'w-[min(560px,94vw)]'}`}
        >
          <div className="rule-ticks flex items-start justify-between gap-4 rounded-t-md border-line border-b bg-rule px-4 pt-3 pb-2">
            <div>
              <Radix.Title className="text-lg">{title}</Radix.Title>
              {about && <Radix.Description className="text-ink">{about}</Radix.Description>}
            </div>
            <Radix.Close aria-label="Close" className="mt-1 rounded-[3px] p-1 hover:bg-card">
              <Icon name="close" />
            </Radix.Close>
          </div>
          {asking && (
            <div
              role="alert"
              className="flex items-center gap-2 border-line border-b bg-short-wash px-4 py-2"
            >
              <p className="flex-1">What you changed here is not saved yet.</p>
              <Button onClick={() => setAsking(false)}>Keep editing</Button>
              <Button
                onClick={() => {
                  setAsking(false);
                  onClose();
                }}
              >
                Discard
              </Button>
            </div>
          )}
          <div className="overflow-y-auto p-4">{children}</div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
