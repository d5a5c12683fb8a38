import { useDraft } from './draft';

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
  const [draft, setDraft] = useDraft(value);
  function take() {
    const text = draft?.text.trim();
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
      value={draft?.text ?? value}
      onChange={(event) => setDraft({ text: event.target.value })}
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
