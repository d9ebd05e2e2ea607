import { judgeLook } from "@vennet/core/checks/contrast";
import type { OwnLook, UnderlineStyle } from "@vennet/core/manuscript/looks";
import { CircleAlert, CircleCheck } from "lucide-react";
import type { ReactNode } from "react";

const underlines: UnderlineStyle[] = ["none", "solid", "dotted", "dashed"];

/** The colour, underline and weight of links. */
export function LookFields({ look, onChange }: { look: OwnLook; onChange: (to: Partial<OwnLook>) => void }) {
  return (
    <>
      <label className="flex items-center gap-2">
        Colour
        <input
          type="color"
          value={look.colour}
          onChange={(event) => onChange({ colour: event.target.value })}
          className="h-8 w-12 border border-hairline bg-paper"
        />
      </label>
      <label className="flex items-center gap-2">
        Underline
        <select
          value={look.underline}
          onChange={(event) => onChange({ underline: event.target.value as UnderlineStyle })}
          className="min-h-8 border border-hairline bg-paper px-1"
        >
          {underlines.map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-blue"
          checked={look.bold}
          onChange={(event) => onChange({ bold: event.target.checked })}
        />
        Bold
      </label>
    </>
  );
}

/** What WCAG says of a look, with its limits. */
export function JudgedLook({ look }: { look: OwnLook }) {
  const { onPaper, besideText, isReadable, isTold } = judgeLook(look);
  return (
    <div role="status" className="ml-auto grid gap-0.5 text-sm">
      <Verdict isGood={isReadable}>
        {onPaper.toFixed(2)} on paper, {isReadable ? "enough" : "too little"}: 4.5 is asked (SC 1.4.3)
      </Verdict>
      <Verdict isGood={isTold}>
        {look.underline !== "none"
          ? `${besideText.toFixed(2)} beside the text, and underlined`
          : `${besideText.toFixed(2)} beside the text, ${isTold ? "enough" : "too little"} without an underline: 3 is asked (SC 1.4.1)`}
      </Verdict>
    </div>
  );
}

function Verdict({ isGood, children }: { isGood: boolean; children: ReactNode }) {
  const Icon = isGood ? CircleCheck : CircleAlert;
  return (
    <span className={`flex items-center gap-1.5 ${isGood ? "" : "text-red"}`}>
      <Icon aria-hidden size={14} className="shrink-0" />
      <span>{children}</span>
    </span>
  );
}
