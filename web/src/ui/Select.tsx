interface Props<Value extends string> {
  label: string;
  value: Value;
  options: readonly (readonly [Value, string])[];
  className?: string;
  onChange: (value: Value) => void;
}

/** One of several, from a list that opens. */
export function Select<Value extends string>({
  label,
  value,
  options,
  className = '',
  onChange,
}: Props<Value>) {
  return (
    <select
      aria-label={label}
      className={`field min-w-0 flex-1 ${className}`}
      value={value}
      onChange={(event) => onChange(event.target.value as Value)}
    >
      {options.map(([option, words]) => (
        <option key={option} value={option}>
          {words}
        </option>
      ))}
    </select>
  );
}
