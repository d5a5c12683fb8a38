interface Props {
  /** Ohm, as typed. */
  value: string;
  onChange: (value: string) => void;
}

/** What stands between the two channels of a jig. */
export function JigResistor({ value, onChange }: Props) {
  return (
    <label className="flex items-center gap-1.5">
      Jig’s resistor
      <input
        className="field w-20 font-mono"
        inputMode="decimal"
        value={value}
        onChange={(event) => onChange(event.target.value.replace(',', '.'))}
      />
      Ω
    </label>
  );
}
