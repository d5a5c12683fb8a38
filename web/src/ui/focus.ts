/** Moves a focus that was lost with what had it to what a selector finds in an element. */
export function takeLostFocus(within: HTMLElement | null, selector: string): void {
  if (document.activeElement === document.body) within?.querySelector<HTMLElement>(selector)?.focus();
}
