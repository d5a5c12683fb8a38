import { useEffect, useState } from 'react';

interface Props {
  label: string;
  value: string;
  longest: number;
  /** Whether nothing at all is allowed. */
  optional?: boolean;
  className?: string;
  onChange: (value: string) => void;
}

/** A line of text. Enter or leaving takes it, Escape takes it back. */
export function TextInput({ label, value, longest, optional, className = '', onChange }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a change from elsewhere ends the writing
  useEffect(() => setDraft(null), [value]);
  function take() {
    const text = draft?.trim();
    setDraft(null);
    if (text !== undefined && text !== value && (text !== '' || optional)) onChange(text);
  }
  return (
    <input
      className={`field min-w-0 ${className}`}
      aria-label={label}
      data-draft={draft === null ? undefined : ''}
      autoComplete="off"
      maxLength={longest}
      value={draft ?? value}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && draft !== null) {
          event.preventDefault();
          take();
        }
        if (event.key === 'Escape') setDraft(null);
      }}
    />
  );
}
