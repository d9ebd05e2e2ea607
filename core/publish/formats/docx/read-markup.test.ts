import { expect, test } from "@jest/globals";
import { judgeTag } from "./read-markup.ts";

const text = "word/document.xml";

test.each<[string, Record<string, string>?]>([
  ["w:t"],
  ["w:hyperlink", { "r:id": "rId1", "w:tooltip": "Tide office" }],
  ["w:color", { "w:val": "1D4F8F" }],
  ["w:color", { "w:val": "auto" }],
  ["w:sz", { "w:val": "18" }],
  ["w:spacing", { "w:line": "240", "w:lineRule": "auto", "w:after": "120" }],
  ["w:ind", { "w:left": "720", "w:hanging": "360" }],
  ["m:rad"],
])("“%s” %j leaves words to be seen", (tag, attributes = {}) => {
  expect(judgeTag(text, tag, attributes)).toBeNull();
});

test.each<[string, Record<string, string>?]>([
  ["mc:AlternateContent"],
  ["w:altChunk"],
  ["w:framePr"],
  ["w:ins"],
  ["w:pict"],
  ["wp:anchor"],
  ["m:phant"],
  ["w:trHeight", { "w:val": "1", "w:hRule": "exact" }],
  ["w:hyperlink", { "w:docLocation": "elsewhere" }],
  ["w:color", { "w:val": "FFFFFF" }],
  ["w:sz", { "w:val": "2" }],
  ["w:spacing", { "w:line": "1", "w:lineRule": "exact" }],
  ["w:ind", { "w:left": "-9000" }],
  ["w:pgSz", { "w:w": "100", "w:h": "100" }],
  ["wp:extent", { cx: "0", cy: "9" }],
])("“%s” %j may not", (tag, attributes = {}) => {
  expect(judgeTag(text, tag, attributes)).not.toBeNull();
});

test("each part has elements of its own", () => {
  expect(judgeTag("word/styles.xml", "w:basedOn", {})).toBeNull();
  expect(judgeTag(text, "w:basedOn", {})).not.toBeNull();
  expect(judgeTag("word/settings.xml", "w:compat", {})).toBeNull();
  expect(judgeTag("word/settings.xml", "w:documentProtection", {})).not.toBeNull();
});
