import { Check, CircleDashed, CircleQuestionMark, CornerUpRight, KeyRound, Unlink } from "lucide-react";
import type { LinkState } from "../api/client";

const marks = {
  sound: { icon: Check, word: "Sound" },
  moved: { icon: CornerUpRight, word: "Moved" },
  guarded: { icon: KeyRound, word: "Guarded" },
  broken: { icon: Unlink, word: "Broken" },
  unsure: { icon: CircleQuestionMark, word: "Unsure" },
  unchecked: { icon: CircleDashed, word: "Not checked" },
} as const;

export const linkStates = Object.keys(marks) as LinkState[];

export function stateWord(state: LinkState): string {
  return marks[state].word;
}

/** A destination's state: a shape and its word, never a colour alone. */
export function StateMark({
  state,
  count,
  bare = false,
}: {
  state: LinkState;
  count?: number;
  /** The shape alone, where there is no room; its word is its name then. */
  bare?: boolean;
}) {
  const { icon: Icon, word } = marks[state];
  return (
    <span
      className={`inline-flex items-center gap-1 whitespace-nowrap ${state === "broken" ? "text-red" : ""}`}
    >
      <Icon {...(bare ? { "aria-label": word } : { "aria-hidden": true })} size={14} strokeWidth={2.2} />
      {count !== undefined && <span className="tabular-nums">{count}</span>}
      {!bare && (count === undefined ? word : word.toLowerCase())}
    </span>
  );
}
