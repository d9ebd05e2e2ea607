import { describe, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import type { Node } from "prosemirror-model";
import type { Book } from "../manuscript/book.ts";
import { noFrame } from "../manuscript/hotspot.ts";
import { bookOfEveryFeature } from "../test/book-of-every-feature.ts";
import { linkUses } from "../manuscript/links.ts";
import { schema } from "../manuscript/schema.ts";
import { compareLinks } from "../proof/compare.ts";
import type { ExportReading } from "../proof/exported-link.ts";
import { manuscriptLinks } from "../proof/manuscript-links.ts";
import { prove } from "../proof/prove.ts";
import { exportOptions } from "./formats/formats.ts";
import { planLinks } from "./link-plan.ts";
import { readDocx } from "./formats/docx/read-back.ts";
import { readMarkdown } from "./formats/markdown/read-back.ts";
import { readWebPage } from "./formats/web/read-back.ts";
import {
  bookOfOddPlaces,
  bookOfPlaces,
  bookWith,
  chapter,
  heading,
  linkTo,
  text,
} from "../test/book-of-places.ts";
import { redDot } from "../test/red-dot.ts";
import { bookOf, bringIn } from "../test/sample-book.ts";
import { readOdt } from "./formats/odt/read-back.ts";
import { writeOdt } from "./formats/odt/write-odt.ts";
import { writeDocx } from "./formats/docx/write-docx.ts";
import { writeMarkdown } from "./formats/markdown/write-markdown.ts";
import { writeWebFolder } from "./formats/web/web-folder.ts";

const linked = (id: string, words: string, destination: object, description: string | null = null): Node =>
  schema.text(words, [schema.mark("link", { id, destination, description })]);

/** A book with a companion file, a picture with an area, an email link, a companion page, code and a list. */
function bookOfThings(more: Partial<Book> = {}): Book {
  const area = {
    id: "spot",
    shape: "rectangle",
    points: [
      [0.1, 0.1],
      [0.5, 0.5],
    ],
    alt: "The refuge (plan)",
    destination: { kind: "file", file: "plan" },
    description: null,
    frame: noFrame,
  };
  const book = bookWith([
    chapter(
      "one",
      "Refuges & <boats>",
      text(
        linked("l1", "The plan | 1", { kind: "file", file: "plan", at: "page=2&zoom=100,0,40" }, 'Said "so"'),
        ", then ",
        linkTo("l2", "deep", "deep [down]"),
      ),
      text(
        linked("l3", "ask *us*", { kind: "email", address: "mailto:a@tides.example?subject=R3%20%26%20R4" }),
        schema.node("hard_break"),
        schema.text("strong", [schema.mark("strong"), schema.mark("emphasis")]),
      ),
      text(schema.node("picture", { file: "dot", alt: "A chart", hotspots: [area] })),
      schema.node("ordered_list", { start: 3 }, [
        schema.node("list_item", null, [
          text("three"),
          schema.node("bullet_list", null, [
            schema.node("list_item", null, [text(linkTo("l4", "page", "the page"))]),
          ]),
        ]),
      ]),
      schema.node("code_block", null, [schema.text("a <- b\n  c")]),
    ),
    chapter("deep-chapter", "Deep", heading("deep", 2, "Deep down"), text("Water.")),
    chapter("page", "A page apart", text("Apart.")),
  ]);
  book.chapters[2]!.role = "companion";
  return {
    ...book,
    files: new Map([["plan", { name: "Plan №1.txt", mediaType: "text/plain", size: 4 }]]),
    fileBytes: new Map([["plan", strToU8("plan")]]),
    pictures: [{ id: "dot", mediaType: "image/png", bytes: redDot }],
    ...more,
  };
}

const formats: [name: string, (book: Book) => Promise<ExportReading>][] = [
  ["Markdown", async (book) => readMarkdown(writeMarkdown(book, "walks.md").bytes)],
  ["a text document", async (book) => readDocx((await writeDocx(book, "walks.docx")).bytes)],
  ["an OpenDocument text", async (book) => readOdt(writeOdt(book, "walks.odt").bytes)],
  ["a folder of web pages", async (book) => readWebPage(writeWebFolder(book))],
];

describe.each(formats)("%s", (_name, exported) => {
  test.each([
    ["places, notes and what follows from them", bookOfPlaces, 8],
    ["places that stand wherever they may", bookOfOddPlaces, 10],
    ["files, areas, emails and pages apart", bookOfThings, 5],
    [
      "notes at the end of the book",
      () => {
        const book = bookOfPlaces();
        return { ...book, conventions: { ...book.conventions, notesAt: "book" as const } };
      },
      8,
    ],
  ])("keeps the links of a book of %s", async (_what, make, intact) => {
    const book = make();
    const reading = await exported(book);
    const proof = compareLinks(manuscriptLinks(book, reading), reading);
    const wrong = [...proof.rows, ...proof.made.rows].filter(({ verdict }) => verdict !== "intact");
    // A cross-reference to a place that is gone says so in every format.
    expect(wrong.map(({ link, verdict, note }) => [link.id, verdict, note])).toEqual(
      book.chapters.some(({ doc }) => linkUses(doc).some(({ id }) => id === "s7"))
        ? [["s7", "missing", expect.any(String)]]
        : [],
    );
    expect(proof.extra).toEqual([]);
    expect(proof.intact).toBe(intact);
  });

  test("has a note in which nothing stands", async () => {
    const book = bookOf("# Walks\n\nA boat[^1], and a post[^2].\n\n[^1]: A ferry.\n[^2]:\n");
    const { faults, complete } = prove(book, await exported(book));
    expect({ faults, complete }).toEqual({ faults: [], complete: true });
  });

  test("tells links whose files are left out as the author chose", async () => {
    const book = bookOfThings({ leavesFiles: true, fileBytes: new Map() });
    const reading = await exported(book);
    const proof = compareLinks(manuscriptLinks(book, reading), reading);
    expect(proof).toMatchObject({ complete: true, intact: 3, total: 3 });
    expect(proof.rows.filter(({ verdict }) => verdict === "left-out").map(({ link }) => link.id)).toEqual([
      "l1",
      "spot",
    ]);
  });
});

test.each([bookOfThings, bookOfEveryFeature])(
  "the same book gives the same bytes, in every format to go on with",
  async (make) => {
    const twice = async (write: (book: Book) => Promise<Uint8Array> | Uint8Array): Promise<void> =>
      expect(Buffer.from(await write(make())).equals(Buffer.from(await write(make())))).toBe(true);
    await twice((book) => writeMarkdown(book, "walks.md").bytes);
    await twice(async (book) => (await writeDocx(book, "walks.docx")).bytes);
    await twice((book) => writeOdt(book, "walks.odt").bytes);
    await twice(writeWebFolder);
  },
);

test("Markdown that was exported comes in again with the same words, links and notes", () => {
  const markdown = `# Tides

See [the *office*](https://tides.example/?a=1 "Tide office"), [below](#low-water) and [us](mailto:a@tides.example).[^n]

| A | B |
| - | -:|
| [x](https://x.example) | y |

## Low water

Bare[^n] for \`four\` hours.

[^n]: A note with [a link](https://n.example/).
`;
  const once = bookOf(markdown);
  const again = bringIn(strFromU8(writeMarkdown(once, "walks.md").bytes));
  expect(again.leftOut).toEqual([]);
  const told = (docs: Node[]): unknown =>
    docs.map((doc) => [
      doc.textContent,
      linkUses(doc).map(({ text: words, description, destination }) => [
        words,
        description,
        destination.kind,
      ]),
      doc.children.filter(({ type }) => type.name === "note").length,
    ]);
  expect(told(again.chapters)).toEqual(told(once.chapters.map(({ doc }) => doc)));
});

test("a text document has footnotes, heads of tables that repeat, and the description of each link", async () => {
  const files = unzipSync(
    (
      await writeDocx(
        bookOf(
          '# T\n\n| A |\n| - |\n| b |\n\n[o](https://t.example/ "Office")[^n][^n]\n\n[^n]: N [x](https://x.example/)',
        ),
        "t.docx",
      )
    ).bytes,
  );
  const document = strFromU8(files["word/document.xml"]!);
  expect(document).toContain("<w:tblHeader/>");
  expect(document).toContain('w:tooltip="Office"');
  expect(document.match(/<w:footnoteReference /g)).toHaveLength(1);
  expect(document).toContain("NOTEREF _note-1");
  expect(strFromU8(files["word/_rels/footnotes.xml.rels"]!)).toContain(
    'Target="https://x.example/" TargetMode="External"',
  );
});

test("a text document that somebody has meddled with is proven to have lost what it lost", async () => {
  const book = bookOf(
    "# T\n\n[one](https://one.example/) [two](https://two.example/) [three](#u)\n\n## U\n\nWords.\n\n## V",
  );
  const files = unzipSync((await writeDocx(book, "t.docx")).bytes);
  const rels = strFromU8(files["word/_rels/document.xml.rels"]!).replace(
    "https://two.example/",
    "https://other.example/",
  );
  const [heading1, heading2] = book.chapters[0]!.doc.children.filter(({ type }) => type.name === "heading");
  const text1 = strFromU8(files["word/document.xml"]!).replace(
    `w:anchor="${heading1!.attrs["id"] as string}"`,
    `w:anchor="${heading2!.attrs["id"] as string}"`,
  );
  const reading = readDocx(
    zipSync({ ...files, "word/_rels/document.xml.rels": strToU8(rels), "word/document.xml": strToU8(text1) }),
  );
  const proof = compareLinks(manuscriptLinks(book, reading), reading);
  expect(proof.rows.map(({ verdict }) => verdict)).toEqual([
    "intact",
    "other-destination",
    "other-destination",
  ]);
});

test("Markdown keeps relative links to what is not the book's, and the proof compares them", () => {
  const book = bookOf(
    '# A\n\nSee [a](docs/a.md), [b](../b%20c.md#x), [c](./x?y=1), [d](/root.md), [f](a.md#h "title") and ![](p.png).',
  );
  const { bytes } = writeMarkdown(book, "a.md");
  const text = new TextDecoder().decode(bytes);
  for (const link of [
    "[a](docs/a.md)",
    "[b](../b%20c.md#x)",
    "[c](./x?y=1)",
    "[d](/root.md)",
    '[f](a.md#h "title")',
  ])
    expect(text).toContain(link);
  expect(prove(book, readMarkdown(bytes))).toMatchObject({ complete: true, intact: 5, total: 5 });
  const elsewhere = new TextEncoder().encode(text.replace("docs/a.md", "docs/b.md"));
  expect(prove(book, readMarkdown(elsewhere)).complete).toBe(false);
  const { lost } = planLinks(book, exportOptions({ format: "markdown" })).find(
    ({ kind }) => kind === "file",
  )!;
  expect(lost).toEqual([]);
  expect(planLinks(book, exportOptions({ format: "pdf" }))[0]!.lost).toHaveLength(5);
});
