import { RadioGroup } from "radix-ui";

/** What a column shows, where it can show one thing or another. */
export function ColumnChoice<V extends string>({
  value,
  choices,
  onChange,
  className = "",
}: {
  value: V;
  choices: readonly (readonly [value: V, words: string])[];
  onChange: (to: V) => void;
  className?: string;
}) {
  return (
    <RadioGroup.Root
      aria-label="What the column shows"
      orientation="horizontal"
      value={value}
      onValueChange={(to) => onChange(to as V)}
      className={`flex gap-4 ${className}`}
    >
      {choices.map(([one, words]) => (
        <RadioGroup.Item
          key={one}
          value={one}
          className="text-sm text-faint underline-offset-4 hover:text-blue aria-checked:font-semibold aria-checked:text-blue aria-checked:underline"
        >
          {words}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
