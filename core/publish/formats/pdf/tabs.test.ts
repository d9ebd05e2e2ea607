import { expect, test } from "@jest/globals";
import type { SetInline } from "./set-data.ts";
import { withTabsSpaced } from "./tabs.ts";

const text = (words: string): SetInline => ({ kind: "text", words });

test("a tab of a listing reaches to the next stop of its line, through links and possible ends of lines", () => {
  expect(
    withTabsSpaced([
      text("\tebb"),
      { kind: "may-break" },
      { kind: "link", look: "web", url: "u", content: [text("flow\tslack")] },
      text("\nhigh\t潮\t\tlow"),
    ]),
  ).toEqual([
    text("        ebb"),
    { kind: "may-break" },
    { kind: "link", look: "web", url: "u", content: [text("flow slack")] },
    text("\nhigh    潮               low"),
  ]);
});
