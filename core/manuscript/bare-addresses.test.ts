import { expect, test } from "@jest/globals";
import { bringIn } from "../test/sample-book.ts";
import { findBareAddresses } from "./bare-addresses.ts";
import { schema } from "./schema.ts";

/** The addresses that are found in a chapter of these paragraphs, each as it stands there. */
function bareIn(...paragraphs: Parameters<typeof schema.text>[]): string[] {
  const doc = schema.node("doc", null, [
    schema.node("title", { id: "t" }, [schema.text("Tides")]),
    ...paragraphs.map((words) => schema.node("paragraph", null, [schema.text(...words)])),
  ]);
  const found = findBareAddresses(doc);
  for (const { from, to, text } of found) expect(doc.textBetween(from, to)).toBe(text);
  return found.map(({ text }) => text);
}

test("addresses are found without what stands around them in a sentence", () => {
  expect(
    bareIn(
      ["See www.tides.example, (https://maps.example/a_(b)). Ask “wardens@causeways.example”!"],
      ["https://ferry.example/"],
    ),
  ).toEqual([
    "www.tides.example",
    "https://maps.example/a_(b)",
    "wardens@causeways.example",
    "https://ferry.example/",
  ]);
});

// Common practice: a bare name.tld is no address.
test.each([
  "tides.example",
  "At 9.30 a.m. by the pier.",
  "walks/low.md",
  "the @wardens",
  "e.g. this",
  "C:\\walks\\a.txt",
])("“%s” is none", (words) => {
  expect(bareIn([words])).toEqual([]);
});

test("code, and what is meant to stay plain, is left out", () => {
  for (const mark of ["code", "plain"])
    expect(bareIn(["https://ferry.example/", [schema.mark(mark)]])).toEqual([]);
  expect(bareIn(["https://ferry.example/", [schema.mark("strong")]])).toHaveLength(1);
});

test("links and listings are left out, and breaks end an address", () => {
  const [doc] = bringIn(
    "# Low water\n\n[https://a.example/](https://b.example/), <https://c.example/>\n\n```\nhttps://d.example/\n```\n\n- e\\\nf\n",
  ).chapters;
  expect(findBareAddresses(doc!)).toEqual([]);
  const broken = schema.node("doc", null, [
    schema.node("title", { id: "t" }),
    schema.node("paragraph", null, [
      schema.text("www.tides.example"),
      schema.node("hard_break"),
      schema.text("low"),
    ]),
  ]);
  expect(findBareAddresses(broken)).toMatchObject([{ text: "www.tides.example", before: "", after: " low" }]);
});
