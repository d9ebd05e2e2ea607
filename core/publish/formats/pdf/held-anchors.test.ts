import { expect, test } from "@jest/globals";
import { withAnchorsHeld } from "./held-anchors.ts";
import type { SetInline } from "./set-data.ts";

/** Words in which `|` is an anchor, `\n` the end of a line, and `/` parts one text from the next, set with their anchors held. */
function held(written: string): string {
  const items = written.split(/([|/\n])/).flatMap((part): SetInline[] => {
    if (part === "|") return [{ kind: "anchor", label: "here" }];
    if (part === "\n") return [{ kind: "break" }];
    return part === "" || part === "/" ? [] : [{ kind: "text", words: part } as SetInline];
  });
  return withAnchorsHeld(items)
    .map((item) =>
      item.kind === "anchor" ? "|" : item.kind === "break" ? "\n" : (item as { words: string }).words,
    )
    .join("");
}

test.each([
  ["behind the first letter of what it leads to", "at low water |the sands", "at low water t|he sands"],
  ["where the words begin, at their beginning", "|The sands", "|The sands"],
  ["over a blank", "at low water.| The sands", "at low water. T|he sands"],
  ["over a blank of its own", "at low water.|/ /The sands", "at low water. T|he sands"],
  ["beside another, over what is between", "at low water.| | The sands", "at low water.  T||he sands"],
  ["behind an opening sign", "at low water |(the sands", "at low water (t|he sands"],
  ["behind signs in other words", "at low water |(/the sands", "at low water (t|he sands"],
  ["over a number, to a letter", "at low water |[9] the sands", "at low water [9] t|he sands"],
  ["before a number alone", "at low water|12", "at low water|12"],
  ["over the end of a line", "at low water|\n[The sands", "at low water\n[T|he sands"],
  ["before the end of the last line", "at low water|\n", "at low water|\n"],
  ["at the end, behind the stop", "at low water|.", "at low water.|"],
  ["behind a whole word of letters that change by those beside them", "x |جسر طويل", "x جسر| طويل"],
])("an anchor is set %s", (_, written, expected) => {
  expect(held(written)).toBe(expected);
});
