import { useRef } from 'react';

/** Moves a focus that was lost with what had it to what a selector finds in an element. */
export function takeLostFocus(within: HTMLElement | null, selector: string): void {
  if (document.activeElement === document.body) within?.querySelector<HTMLElement>(selector)?.focus();
}

/** What a dialog without a button of its own needs so that the focus goes back to what had it. */
export function useFocusBack() {
  const before = useRef<Element | null>(null);
  return {
    onOpenAutoFocus: () => {
      before.current = document.activeElement;
    },
    onCloseAutoFocus: (event: Event) => {
      event.preventDefault();
      if (before.current?.isConnected) (before.current as HTMLElement).focus();
    },
  };
}
