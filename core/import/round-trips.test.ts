import { describe, expect, test } from "@jest/globals";
import { writeEpub } from "../publish/formats/epub/write-epub.ts";
import { writeDocx } from "../publish/formats/docx/write-docx.ts";
import { writeOdt } from "../publish/formats/odt/write-odt.ts";
import { writeMarkdown } from "../publish/formats/markdown/write-markdown.ts";
import { writeWebPage } from "../publish/formats/web/web-page.ts";
import { writeWebFolder } from "../publish/formats/web/web-folder.ts";
import { asFolder } from "../publish/export-folder.ts";
import type { Node } from "prosemirror-model";
import { defaultLayout, trimSizes, type PageLayout } from "../manuscript/page-layout.ts";
import type { Book } from "../manuscript/book.ts";
import { defaultConventions } from "../manuscript/conventions.ts";
import { BookIndex } from "../manuscript/book-index.ts";
import { placesOf } from "../manuscript/outline.ts";
import { signpostAttrs } from "../manuscript/attributes.ts";
import { signpostsOf } from "../manuscript/signposts.ts";
import { schema } from "../manuscript/schema.ts";
import { bookWith, chapter, heading, linkTo, signposts, text } from "../test/book-of-places.ts";
import { bookOf } from "../test/sample-book.ts";
import { bookOfEveryFeature } from "../test/book-of-every-feature.ts";
import { bring } from "../test/brought.ts";
import { readChapter, writeChapter } from "../manuscript/chapter.ts";
import { spelledOut } from "../test/spelled-out.ts";
import { takeInVersion } from "./new-version/take-in-version.ts";
import { withKnownIds } from "./new-version/with-known-ids.ts";

type Written = (book: Book) => Promise<Uint8Array>;

const formats: Record<string, Written> = {
  "a text document": async (book) => (await writeDocx(book, "walks.docx")).bytes,
  "an OpenDocument text": async (book) => writeOdt(book, "walks.odt").bytes,
  Markdown: async (book) => writeMarkdown(book, "walks.md").bytes,
  "a web page": async (book) => asFolder(book, "walks.html", writeWebPage(book)).bytes,
  "a folder of web pages": async (book) => writeWebFolder(book),
  "an e-book": async (book) => writeEpub(book),
};

/** What the table in docs/formats.md says that a format cannot hold, as lines that differ. */
const cannotHold: Record<string, RegExp> = {
  // Cells that go over several columns, paragraphs in them, and listings with links.
  Markdown: /^\s*(table_(header|cell)|paragraph|hard_break|code_block|"signal at)/,
};

/** The lines of a document that another one has otherwise. */
function otherLines(doc: Node | null, known: Node | null): string[] {
  const lines = (one: Node | null): string[] => (one ? spelledOut([one], new Map()) : []);
  return lines(doc).filter((line, i) => line !== lines(known)[i]);
}

describe.each(Object.entries(formats))("a book that comes back from %s", (name, write) => {
  test("is the same to the node: links, references, lists, places, notes, pictures with areas, files, numbers", async () => {
    const book = bookOfEveryFeature();
    const back = await bring(await write(book));
    const pictures = back.pictures.map(({ id }): [string, string] => [id, "dot.png"]);
    const files = back.companions.map(({ id, name: file }): [string, string] => [id, file]);
    const before = spelledOut(
      book.chapters.map(({ doc }) => doc),
      new Map([
        ["dot", "dot.png"],
        ["plan", "Plan №1.txt"],
      ]),
    );
    const after = spelledOut(back.chapters, new Map([...pictures, ...files]));
    const isHeld = (line: string): boolean => !cannotHold[name]?.test(line);
    expect(after.filter(isHeld)).toEqual(before.filter(isHeld));
    expect(back).toMatchObject({
      title: book.title,
      author: book.author,
      language: book.language,
      conventions: book.conventions,
      roles: book.chapters.map(({ role }) => role),
    });
    expect(back.leftOut).toEqual([]);
    const { intact, ...others } = back.arrival!.counts;
    expect(intact).toBeGreaterThan(40);
    expect(others).toEqual({ changed: 0, "left-out": 0, lost: 0, extra: 0 });
  });

  test("and as a new version of itself changes nothing", async () => {
    const book = bookOfEveryFeature();
    const back = await bring(await write(book));
    const known = new Map([
      ...back.pictures.map(({ id }): [string, string] => [id, "dot"]),
      ...back.companions.map(({ id }): [string, string] => [id, "plan"]),
    ]);
    const { changes } = takeInVersion(
      book.chapters.map(({ doc }) => readChapter(writeChapter(doc))),
      null,
      back.chapters.map((doc) => withKnownIds(doc, known)),
      () => "here",
    );
    const changed = changes.flatMap(({ kind, doc, at }) =>
      kind === "same" ? [] : otherLines(doc, at === null ? null : book.chapters[at]!.doc),
    );
    expect(changed.filter((line) => !cannotHold[name]?.test(line))).toEqual([]);
    expect(changes.map(({ kind }) => kind).filter((kind) => kind === "new" || kind === "gone")).toEqual([]);
  });
});

test.each(Object.entries(formats))(
  "parts come back from %s as parts, with their chapters under them",
  async (_, write) => {
    const book = bookWith(
      ["one", "two", "three", "four"].map((id) => chapter(id, `The ${id}`, text("Words."))),
      { conventions: { ...defaultConventions, headings: 1 } },
    );
    book.chapters[1]!.role = "part";
    book.chapters[3]!.role = "companion";
    const { roles, chapters } = await bring(await write(book));
    expect(roles).toEqual(["chapter", "part", "chapter", "companion"]);
    const places = new BookIndex(
      chapters.map((doc, i) => ({ role: roles[i]!, places: placesOf(doc) })),
      book.conventions,
      book,
    );
    const contents = { ...signpostAttrs(signposts({ of: "contents", scope: "book" })), depth: 2 };
    expect(signpostsOf(contents, places, 0).map(({ words, depth }) => [words, depth])).toEqual([
      ["1 The one", 0],
      ["The two", 0],
      ["2 The three", 1],
    ]);
    expect(chapters.map((doc) => places.places.get(doc.firstChild!.attrs["id"] as string)!.number)).toEqual([
      "1",
      null,
      "2",
      null,
    ]);
  },
);

test.each(Object.entries(formats))(
  "a note that begins with its own number, raised, keeps it in %s",
  async (_, write) => {
    const book = bookOf("# Sands\n\nIt is bare[^1].\n\n[^1]: <sup>1</sup> By day.");
    const { chapters } = await bring(await write(book));
    expect(chapters[0]!.lastChild!.textContent).toBe("1 By day.");
  },
);

test.each(["a text document", "an OpenDocument text"])("%s keeps the size of its pages", async (name) => {
  const ownLayout: PageLayout = {
    ...defaultLayout,
    trim: "own",
    width: 170,
    height: 240,
    inner: 25,
    top: 18.5,
  };
  for (const layout of [
    defaultLayout,
    ownLayout,
    { ...defaultLayout, trim: "letter" as const, ...trimSizes.letter },
  ]) {
    const book = bookWith([chapter("c", "C", text("Words."))], { layout });
    expect((await bring(await formats[name]!(book))).layout).toEqual(layout);
  }
  const tooSmall = { ...defaultLayout, trim: "own" as const, width: 60 };
  expect(
    (await bring(await formats[name]!(bookWith([chapter("c", "C")], { layout: tooSmall })))).layout,
  ).toBeNull();
});

describe("what a format cannot hold keeps its words and links", () => {
  const back = async (bytes: Uint8Array): Promise<string[]> => {
    const { chapters } = await bring(bytes);
    return spelledOut(chapters, new Map()).map((line) => line.trim().replace(/ · \{.*?\}/, ""));
  };
  const item = (...content: Node[]): Node => schema.node("list_item", null, content);
  const books = {
    spans: bookWith([
      chapter(
        "c",
        "C",
        schema.node("table", null, [
          schema.node("table_row", null, [schema.node("table_header", { colspan: 2 }, [text("Hours")])]),
          schema.node("table_row", null, [
            schema.node("table_cell", { rowspan: 1 }, [text("nine"), text("ten")]),
            schema.node("table_cell", null, [text("noon")]),
          ]),
        ]),
      ),
    ]),
    listing: bookWith([
      chapter("c", "C", schema.node("code_block", null, [schema.text("at "), linkTo("l", "c", "nine")])),
    ]),
  };

  test.each([
    ["a text document", async (book: Book) => (await writeDocx(book, "c.docx")).bytes],
    ["an OpenDocument text", (book: Book) => writeOdt(book, "c.odt").bytes],
  ])("whatever stands in an item of a list stays in it in %s, whose items hold little", async (_, write) => {
    const [row] = books.spans.chapters[0]!.doc.child(1).children;
    const table = schema.node("table", null, [row!]);
    const book = bookWith([
      chapter(
        "c",
        "C",
        schema.node("ordered_list", { start: 4 }, [
          item(text("one"), table, text("behind it")),
          item(heading("h", 1, "Low water"), text("At nine.")),
          item(text("deep"), schema.node("bullet_list", null, [item(text("deeper"), table)])),
          item(text("last")),
        ]),
        schema.node("ordered_list", null, [item(text("another"))]),
      ),
    ]);
    const { chapters } = await bring(await write(book));
    expect(spelledOut(chapters, new Map())).toEqual(spelledOut([book.chapters[0]!.doc], new Map()));
  });

  test("cells of Markdown go over one column, and have lines for paragraphs", async () => {
    const lines = await back(writeMarkdown(books.spans, "c.md").bytes);
    expect(lines.filter((line) => line === "table_header")).toHaveLength(2);
    expect(lines).toEqual(expect.arrayContaining(['"nine"', "hard_break", '"ten"']));
  });

  test("an aligned paragraph alone in a cell aligns the cell of a text document, and none of Markdown", async () => {
    const lone = schema.node("paragraph", { align: "center" }, [schema.text("noon")]);
    const aligned = bookWith([
      chapter(
        "c",
        "C",
        schema.node("table", null, [
          schema.node("table_row", null, [schema.node("table_header", null, [text("Hours")])]),
          schema.node("table_row", null, [schema.node("table_cell", null, [lone])]),
        ]),
      ),
    ]);
    const aligns = async (bytes: Uint8Array): Promise<unknown[]> => {
      const { chapters } = await bring(bytes);
      const found: unknown[] = [];
      chapters[0]!.descendants(({ type, attrs }) => {
        if (type.name === "table_cell" || type.name === "paragraph") found.push(attrs["align"]);
      });
      return found;
    };
    expect(await aligns((await writeDocx(aligned, "c.docx")).bytes)).toEqual([null, "center", null]);
    expect(await aligns(writeOdt(aligned, "c.odt").bytes)).toEqual([null, "center", null]);
    expect(await aligns(writeMarkdown(aligned, "c.md").bytes)).toEqual([null, null, null]);
    expect(await aligns(writeEpub(aligned))).toEqual([null, null, "center"]);
  });

  test("a listing of Markdown with a link is a paragraph", async () => {
    const lines = await back(writeMarkdown(books.listing, "c.md").bytes);
    expect(lines).toContain("paragraph");
    expect(lines.find((line) => line.startsWith('"nine" · link'))).toBeDefined();
  });
});
