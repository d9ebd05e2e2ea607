import { expect, test } from "@jest/globals";
import { withEndsOfLinksKept } from "./ends-of-links.ts";
import type { SetInline } from "./set-data.ts";

const text = (words: string): SetInline => ({ kind: "text", words });
const link = (...content: SetInline[]): SetInline => ({ kind: "link", look: "web", url: "u", content });
const whole = (words: string): SetInline => ({ kind: "text", words, whole: true });

test("what goes on with a word behind a link stays together, and nothing else does", () => {
  const kept = withEndsOfLinksKept([text("See "), link(text("high water")), text("ways, or more")]);
  expect(kept).toEqual([text("See "), link(text("high water")), whole("ways"), text(", or more")]);
  const apart = [text("See "), link(text("water")), text(", ways "), link(text("or more")), text(" ways")];
  expect(withEndsOfLinksKept(apart)).toEqual(apart);
});

test("so does a link that begins within a word, also behind an anchor or another link", () => {
  const anchor: SetInline = { kind: "anchor", label: "a" };
  expect(withEndsOfLinksKept([text("high"), anchor, link(text("water"), text("s"))])).toEqual([
    text("high"),
    anchor,
    link(whole("water"), text("s")),
  ]);
  expect(withEndsOfLinksKept([link(text("high")), link(text("water ways"))])).toEqual([
    link(text("high")),
    link(whole("water"), text(" ways")),
  ]);
});

test("a soft hyphen at a link's end goes, and letters that are joined or never parted stay as they are", () => {
  expect(withEndsOfLinksKept([link(text("high\u00ad")), text("water")])).toEqual([
    link(text("high")),
    whole("water"),
  ]);
  const joined = [link(text("كتاب")), text("نا"), link(text("潮")), text("水")];
  expect(withEndsOfLinksKept(joined)).toEqual(joined);
});
