import { ToggleGroup } from 'radix-ui';

interface Props<Value extends string> {
  label: string;
  value: Value;
  options: readonly (readonly [Value, string])[];
  onChange: (value: Value) => void;
}

/** One of a few, side by side. */
export function Choice<Value extends string>({ label, value, options, onChange }: Props<Value>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next && onChange(next as Value)}
      className="inline-flex max-w-full flex-wrap overflow-hidden rounded-[3px] border border-rule-line bg-rule"
    >
      {options.map(([option, name]) => (
        <ToggleGroup.Item
          key={option}
          value={option}
          className="border-rule-line border-r px-2.5 py-0.5 font-medium last:border-r-0 hover:bg-card focus-visible:outline-offset-[-2px] data-[state=on]:bg-oak data-[state=on]:text-on-oak"
        >
          {name}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
