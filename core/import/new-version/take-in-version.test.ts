import { describe, expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { changeLinks } from "../../manuscript/change-links.ts";
import { linkUses } from "../../manuscript/links.ts";
import { placesOf } from "../../manuscript/outline.ts";
import { schema } from "../../manuscript/schema.ts";
import { writeDocx } from "../../publish/formats/docx/write-docx.ts";
import { writeEpub } from "../../publish/formats/epub/write-epub.ts";
import { writeMarkdown } from "../../publish/formats/markdown/write-markdown.ts";
import { writeWebPage } from "../../publish/formats/web/web-page.ts";
import { openExport } from "../../proof/exported-folder.ts";
import { bookOfEveryFeature } from "../../test/book-of-every-feature.ts";
import { bring } from "../../test/brought.ts";
import type { Side } from "./merge-version.ts";
import { takeInVersion, type VersionChange } from "./take-in-version.ts";

const brought = async (text: string): Promise<Node[]> =>
  (await bring(new TextEncoder().encode(text))).chapters;
const manuscript = `# Sands

Ask the [office](https://tides.hesterley.example/ "By day") before you go.

Then take [the path](#boats) at low water.[^1]

## Boats

They go at [ten](https://boats.hesterley.example/).

# Inns

Sleep at [the inn](https://inn.hesterley.example/).

[^1]: Twice a day.
`;
const mine = (): Side => "here";
const kinds = (changes: readonly VersionChange[]): string[] => changes.map(({ kind }) => kind);
const idsOf = (docs: readonly Node[]): string[] =>
  docs.flatMap((doc) => [...linkUses(doc).map(({ id }) => id), ...placesOf(doc).map(({ id }) => id)]).sort();
/** The chapters after a version was taken in. */
const after = (book: readonly Node[], changes: readonly VersionChange[]): Node[] =>
  changes.filter(({ kind }) => kind !== "gone").map(({ at, doc }) => doc ?? book[at!]!);

describe("a new version of a manuscript", () => {
  test("that has not changed changes nothing", async () => {
    const base = await brought(manuscript);
    const { changes } = takeInVersion(base, base, await brought(manuscript), mine);
    expect(kinds(changes)).toEqual(["same", "same"]);
  });

  test("keeps every id that it can: words, headings, chapters may be others, and paragraphs move", async () => {
    const base = await brought(manuscript);
    const next = manuscript
      .replace("before you go", "the day before you set out")
      .replace("## Boats", "## Boats and ferries")
      .replace("# Inns", "# Inns of the coast")
      .replace("Then take [the path](#boats) at low water.[^1]\n\n", "")
      .replace("Sleep at", "Then take [the path](#boats-and-ferries) at low water.[^1]\n\nSleep at");
    const { changes } = takeInVersion(base, base, await brought(next), mine);
    expect(kinds(changes)).toEqual(["changed", "changed"]);
    expect(idsOf(after(base, changes))).toEqual(idsOf(base));
    expect(changes.flatMap(({ difference }) => difference!.links.map(({ kind }) => kind)).sort()).toEqual([
      "added",
      "removed",
    ]);
  });

  test("knows a link again whose words and address were both changed in its paragraph", async () => {
    const base = await brought(manuscript);
    const next = manuscript.replace(
      "[office](https://tides.hesterley.example/",
      "[tide office](https://tides.hesterley.example/new",
    );
    const { changes } = takeInVersion(base, base, await brought(next), mine);
    expect(changes[0]!.difference!.links).toMatchObject([
      { kind: "changed", before: { text: "office" }, after: { text: "tide office" } },
    ]);
  });

  test("takes in what is new and lets go what is gone, links with it", async () => {
    const base = await brought(manuscript);
    const next = manuscript
      .replace("# Inns\n\nSleep at [the inn](https://inn.hesterley.example/).\n\n", "")
      .replace("They go at [ten](https://boats.hesterley.example/).", "They go at nine.")
      .replace("# Sands", "# Before\n\nRead [this](https://new.hesterley.example/).\n\n# Sands");
    const { changes } = takeInVersion(base, base, await brought(next), mine);
    expect(changes.map(({ kind, at, behind }) => [kind, at, behind])).toEqual([
      ["new", null, -1],
      ["changed", 0, 0],
      ["gone", 1, 0],
    ]);
    expect(changes[1]!.difference!.links.map(({ kind }) => kind)).toEqual(["removed"]);
  });

  test("leaves what was done here: descriptions, looks, new paragraphs, other addresses, where only they were changed", async () => {
    const base = await brought(manuscript);
    const [sands, inns] = base as [Node, Node];
    const [office] = linkUses(sands);
    let { doc } = changeLinks(sands, ({ id }) =>
      id === office!.id ? { description: "Hours of the office", newWindow: true } : null,
    );
    doc = new Transform(doc).insert(
      doc.firstChild!.nodeSize,
      schema.node("paragraph", null, [schema.text("Written here.")]),
    ).doc;
    const next = manuscript
      .replace("before you go", "before you set out")
      .replace("go at [ten]", "leave at [ten]");
    const { changes } = takeInVersion([doc, inns], base, await brought(next), mine);
    expect(changes.map(({ clashes }) => clashes)).toEqual([[], []]);
    const [merged] = after([doc, inns], changes);
    expect(merged!.textContent).toContain("Written here.");
    expect(merged!.textContent).toContain("before you set out");
    expect(merged!.textContent).toContain("They leave at");
    expect(linkUses(merged!)[0]).toMatchObject({
      id: office!.id,
      description: "Hours of the office",
      newWindow: true,
    });
  });

  test("keeps links, anchors and notes that were put here into a paragraph that was changed elsewhere, and leaves off what was taken off", async () => {
    const base = await brought(manuscript);
    const [sands, inns] = base as [Node, Node];
    const [office] = linkUses(sands);
    const start = sands.firstChild!.nodeSize + 1;
    const change = new Transform(sands);
    // “Ask the office before you go.”: a link on “before”, an anchor before “you”, a note at the end, none on “office”.
    change.removeMark(office!.from, office!.to, schema.marks.link!);
    const at = start + "Ask the office ".length;
    change.addMark(
      at,
      at + 6,
      schema.mark("link", { id: "made", destination: { kind: "web", address: "https://m.example/" } }),
    );
    change.insert(at + 7, schema.node("anchor", { id: "spot", name: "Spot" }));
    change.insert(at + "before you go.".length + 1, schema.node("note_reference", { note: "own" }));
    change.insert(
      change.doc.content.size,
      schema.node("note", { id: "own" }, [schema.node("paragraph", null, [schema.text("Mine.")])]),
    );
    const next = manuscript.replace("Ask the", "Always ask at the");
    const { changes } = takeInVersion([change.doc, inns], base, await brought(next), mine);
    expect(changes.map(({ clashes }) => clashes)).toEqual([[], []]);
    const [merged] = after([change.doc, inns], changes);
    expect(merged!.child(1).textContent).toBe("Always ask at the office before you go.");
    expect(linkUses(merged!).map(({ id, text }) => [id, text])[0]).toEqual(["made", "before"]);
    expect(merged!.child(1).children.map(({ type, text }) => text ?? type.name)).toEqual([
      "Always ask at the office ",
      "before",
      " ",
      "anchor",
      "you go.",
      "note_reference",
    ]);
    expect(merged!.textContent).toContain("Mine.");
  });

  test("shows both texts where both were changed, and takes the one that is chosen", async () => {
    const base = await brought(manuscript);
    const [sands, inns] = base as [Node, Node];
    const at = sands.firstChild!.nodeSize + 1;
    const here = new Transform(sands).insert(at, schema.text("Always ")).doc;
    const next = manuscript.replace("before you go", "before you set out").replace("Sleep", "Eat");
    for (const [side, words] of [
      ["here", "Always Ask the office before you go."],
      ["elsewhere", "Ask the office before you set out."],
    ] as const) {
      const { changes } = takeInVersion([here, inns], base, await brought(next), () => side);
      expect(changes[0]!.clashes).toEqual([
        { here: "Always Ask the office before you go.", elsewhere: "Ask the office before you set out." },
      ]);
      const [first, second] = after([here, inns], changes);
      expect(first!.child(1).textContent).toBe(words);
      expect(second!.textContent).toContain("Eat at");
    }
  });

  test("brought again and again with what it became changes nothing more", async () => {
    const base = await brought(manuscript);
    const next = manuscript
      .replace("before you go", "before you set out")
      .replace("# Inns", "# Inns and beds");
    const first = takeInVersion(base, base, await brought(next), mine);
    const book = after(base, first.changes);
    const second = takeInVersion(book, first.texts, await brought(next), mine);
    expect(kinds(second.changes)).toEqual(["same", "same"]);
  });
});

describe("what Vennet has exported comes back as a new version of the same book", () => {
  const book = bookOfEveryFeature();
  const chapters = book.chapters.map(({ doc }) => doc);

  test.each<[string, () => Promise<Uint8Array> | Uint8Array]>([
    ["an e-book", () => writeEpub(book)],
    ["a web page", () => writeWebPage(book)],
    ["a text document", async () => openExport((await writeDocx(book, "walks.docx")).bytes).main],
    ["Markdown", () => openExport(writeMarkdown(book, "walks.md").bytes).main],
  ])("from %s with its links under their ids", async (_, write) => {
    const arrived = (await bring(await write())).chapters;
    const { changes } = takeInVersion(chapters, null, arrived, mine);
    const now = new Set(after(chapters, changes).flatMap((doc) => linkUses(doc).map(({ id }) => id)));
    const before = chapters.flatMap((doc) => linkUses(doc)).filter(({ on }) => on === "words");
    // The top of a book is no place of a file’s own.
    const isTop = ({ destination }: (typeof before)[number]): boolean =>
      destination.kind === "place" && destination.target === "book-top";
    const gone = before.filter((use) => !now.has(use.id) && !isTop(use));
    expect(gone.map(({ text }) => text)).toEqual([]);
  });
});
