import { expect, test } from "@jest/globals";
import { getDocument } from "@vennet/core/pdf/pdf-js";
import { bookWith, chapter, heading, signposts, text } from "@vennet/core/test/book-of-places";
import { kept, tool } from "../test/tools.ts";
import { Typesetter } from "./typesetter.ts";

// ISO 32000-1, 14.8.4.3.3: a list of contents is a TOC, each of its entries a TOCI. Read by poppler.
test("signpost lists are lists of contents in a PDF, and each row is the link", async () => {
  const book = bookWith([
    chapter(
      "c",
      "Walks",
      signposts({ id: "list", of: "contents", scope: "book", depth: 3, heading: "What is where" }),
      heading("one", 1, "The way"),
      text("Words."),
      signposts({ id: "other", of: "contents", scope: "section", section: "one", depth: 3, heading: "Here" }),
      heading("two", 2, "The inn"),
      text("More words."),
    ),
  ]);
  const { pdf } = new Typesetter().write(book, true);
  const { output } = await tool("pdfinfo", "-struct", kept("signposts.pdf", Buffer.from(pdf)));
  const roles = output.match(/^ *(TOCI?|Link)\b/gm)!.map((role) => role.trim());
  const list = (entries: number): string[] => [
    "TOC",
    ...Array<string[]>(entries).fill(["TOCI", "Link"]).flat(),
  ];
  expect(roles).toEqual([...list(3), ...list(1)]);
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const page = await document.getPage(2);
  const annotations = (await page.getAnnotations()) as { rect: number[] }[];
  expect(annotations).toHaveLength(4);
  // Text of 110 mm on a page of A5, entries set in by no more than a few letters.
  for (const { rect } of annotations) expect(rect[2]! - rect[0]!).toBeGreaterThan(250);
});
