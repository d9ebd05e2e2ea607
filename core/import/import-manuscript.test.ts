import { describe, expect, test } from "@jest/globals";
import { raw } from "hast-util-raw";
import type { Root } from "hast";
import { linkUses } from "../manuscript/links.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";
import { hastToManuscript } from "./hast-to-manuscript/hast-to-manuscript.ts";
import { importManuscript } from "./import-manuscript.ts";

const options = { fallbackTitle: "Walks", baseAddress: null, pictureFor: () => null };
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

describe("the reader of a file", () => {
  test("is found by what is in it, whatever it is called", async () => {
    const { title, chapters } = await importManuscript(
      { name: "walks.docx", bytes: bytes("\ufeff# Tides\n\nWords.") },
      options,
    );
    expect([title, chapters.length]).toEqual(["Tides", 1]);
  });

  test.each([
    ["bytes that are no text", new Uint8Array([0x00, 0x01, 0x41, 0xff])],
    ["text with a zero in it", bytes("# T\0\n")],
    ["a container", new Uint8Array([0x50, 0x4b, 3, 4, 0, 0])],
  ])("is told to be missing for %s, with what can be brought", async (_what, content) => {
    await expect(importManuscript({ name: "walks.md", bytes: content }, options)).rejects.toMatchObject({
      code: "format",
      field: "manuscript",
      message: expect.stringMatching(/“walks\.md” .* Markdown/),
    });
  });
});

test.each([
  ["Low water", "<p>Wade.</p>", "Low water"],
  ["Low water", "<p>Before.</p><h1>Ways</h1><p>Wade.</p>", "Low water"],
  ["Low water", "<p>Before.</p><h1>Low water</h1><p>Wade.</p>", "Walks"],
  ["", "<p>Wade.</p>", "Walks"],
])(
  "what no heading begins is called as the file calls itself, “%s”, unless a chapter is",
  async (title, body, then) => {
    const { chapters } = await importManuscript(
      { name: "a.html", bytes: bytes(`<!doctype html><title>${title}</title>${body}`) },
      options,
    );
    expect(chapters[0]!.firstChild!.textContent).toBe(then);
  },
);

test.each([
  ["rich text", bytes("{\\rtf1\\ansi Words.}"), /rich text \(RTF\).*save it as a text document/],
  ["a PDF", bytes("%PDF-1.7\nwords"), /is a PDF.*that it was made from/],
  ["an older document", new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0xa1]), /older kind \(DOC\)/],
  ["an empty file", bytes(" \n"), /has no words in it/],
])("%s is known, and what to do with it is told", async (_what, content, message) => {
  await expect(importManuscript({ name: "walks.md", bytes: content }, options)).rejects.toMatchObject({
    code: "format",
    message: expect.stringMatching(message),
  });
});

test("any reader's tree becomes chapters: its places in the file in its own words, its enclosed files by their ids", () => {
  const html =
    '<h1>One</h1><p>See <a href="plan.pdf">the plan</a>, <a href="other.pdf">another</a>, <a href="#b">below</a> <img src="map.png" alt="Map"></p><h1 id="b">Two</h1><p><mark>low</mark></p>';
  const tree = raw({ type: "root", children: [{ type: "raw", value: html }] } as unknown as Root) as Root;
  const { chapters, leftOut } = hastToManuscript(tree, {
    ...options,
    whereOf: () => "page 4, paragraph 2",
    pictureFor: (source) => (source === "map.png" ? "picture-1" : null),
    pictureSize: () => null,
    companionFor: (href) => (href === "plan.pdf" ? "file-1" : null),
  });
  const [one, two] = chapters;
  expect(linkUses(one!).map(({ destination }) => destination)).toEqual([
    { kind: "file", file: "file-1" },
    { kind: "file", path: "other.pdf" },
    { kind: "place", target: two!.firstChild!.attrs["id"] },
  ]);
  let shown: string | null = null;
  one!.descendants((node) => {
    if (node.type.name === "picture") shown = pictureAttrs(node).file;
  });
  expect(shown).toBe("picture-1");
  expect(leftOut.map(({ where, what }) => [where, what])).toEqual([
    ["page 4, paragraph 2", expect.stringContaining("other.pdf")],
    ["page 4, paragraph 2", expect.stringContaining("Highlighting")],
  ]);
});
