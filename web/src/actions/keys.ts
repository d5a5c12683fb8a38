/** What was pressed, as `mod+shift+z`. Letters and digits go by their key, so that Alt does not turn them into others. */
export function pressed(event: KeyboardEvent): string {
  const letter = /^(?:Key|Digit)([A-Z\d])$/.exec(event.code)?.[1];
  const parts = [
    (event.ctrlKey || event.metaKey) && 'mod',
    event.altKey && 'alt',
    event.shiftKey && 'shift',
    (letter ?? event.key).toLowerCase(),
  ];
  return parts.filter(Boolean).join('+');
}

/** The keys in words. */
export function spoken(keys: string): string {
  const words: Record<string, string> = { mod: 'Ctrl', alt: 'Alt', shift: 'Shift', backspace: 'Backspace' };
  return keys
    .split('+')
    .map((part) => words[part] ?? part.toUpperCase())
    .join(' + ');
}
