import type { ReactNode } from "react";

/** A choice that is on or off, with what comes of it. */
export function Tick({
  isOn,
  onChange,
  hint,
  children,
}: {
  isOn: boolean;
  onChange: (isOn: boolean) => void;
  hint: string;
  children: ReactNode;
}) {
  return (
    <label className="flex items-start gap-2">
      <input
        type="checkbox"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
        className="mt-1 size-4 shrink-0 accent-blue"
      />
      <span>
        {children}
        <span className="block text-sm text-faint">{hint}</span>
      </span>
    </label>
  );
}

interface WithCompanions {
  companions: "beside" | "left-out";
}

/** Whether companion files come along, for the formats that do not have them inside. */
export function CompanionsTick({
  chosen,
  onChange,
}: {
  chosen: WithCompanions;
  onChange: (to: WithCompanions) => void;
}) {
  return (
    <Tick
      isOn={chosen.companions === "beside"}
      onChange={(isOn) => onChange({ companions: isOn ? "beside" : "left-out" })}
      hint="Those that links lead to, in a folder (zip) beside it."
    >
      Companion files come along
    </Tick>
  );
}

/** What is said where they stay at home. */
export function companionWords({ companions }: WithCompanions): string | false {
  return companions === "left-out" && "without companion files";
}
