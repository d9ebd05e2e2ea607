import type { SetOff } from "../manuscript/set-off.ts";

/** How lines are aligned, where that is not as usual, by the words of text documents for it; in any direction, right is the end. */
export const lineSides: Readonly<Record<string, "center" | "end">> = {
  center: "center",
  right: "end",
  end: "end",
};

/** As what a style of a text document sets its paragraphs off, by its name: the built-in ones, and what authors call their own (common practice). */
export function setOffOfStyle(name: string): SetOff | null {
  const folded = name.toLowerCase();
  if (/^((intense )?quote|block ?text|quotations)$/.test(folded)) return "quotation";
  if (/^(verse|poem|poetry)$/.test(folded)) return "verse";
  return folded === "epigraph" || folded === "notice" ? folded : null;
}
