import { expect, test } from "@jest/globals";
import { judgeTag } from "./read-markup.ts";

const text = "content.xml";

test.each<[string, Record<string, string>?]>([
  ["text:a", { "xlink:href": "https://tides.example/", "xlink:type": "simple" }],
  [
    "style:text-properties",
    { "fo:color": "#1d4f8f", "fo:font-size": "10.5pt", "style:text-position": "super 58%" },
  ],
  ["style:paragraph-properties", { "fo:margin-left": "0.5in", "fo:border": "0.05pt solid #8a8578" }],
  ["draw:frame", { "svg:width": "12cm", "svg:height": "8cm" }],
])("“%s” %j leaves words to be seen", (tag, attributes = {}) => {
  expect(judgeTag(text, tag, attributes)).toBeNull();
});

test.each<[string, Record<string, string>?]>([
  ["office:annotation"],
  ["text:hidden-text"],
  ["text:section-source"],
  ["form:form"],
  ["draw:text-box"],
  ["text:a", { "office:target-frame-name": "_blank" }],
  ["text:a", { "xlink:show": "new" }],
  ["table:table-row", { "table:visibility": "collapse" }],
  ["text:section", { "text:condition": "ooow:1==1" }],
  ["style:text-properties", { "fo:color": "#ffffff" }],
  ["style:text-properties", { "fo:font-size": "0pt" }],
  ["style:text-properties", { "loext:opacity": "0%" }],
  ["style:text-properties", { "style:text-position": "-400% 100%" }],
  ["style:paragraph-properties", { "fo:margin-left": "-40cm" }],
  ["draw:frame", { "svg:width": "0cm" }],
])("“%s” %j may not", (tag, attributes = {}) => {
  expect(judgeTag(text, tag, attributes)).not.toBeNull();
});

test("each part has elements of its own", () => {
  expect(judgeTag("meta.xml", "meta:user-defined", { "meta:name": "counts" })).toBeNull();
  expect(judgeTag("meta.xml", "meta:auto-reload", {})).not.toBeNull();
  expect(judgeTag("styles.xml", "text:p", {})).not.toBeNull();
});
