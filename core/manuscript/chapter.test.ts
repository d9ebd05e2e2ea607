import { describe, expect, test } from "@jest/globals";
import { bringIn } from "../test/sample-book.ts";
import { chapterTitle, countWords, emptyChapter, readChapter, withTitle, writeChapter } from "./chapter.ts";
import { newId } from "./ids.ts";
import { linkUses } from "./links.ts";
import { numberNotes } from "./notes.ts";
import { HeadingLevels, placesOf } from "./outline.ts";

const chapter = (markdown: string) => bringIn(markdown).chapters[0]!;

describe("a chapter's JSON", () => {
  test("comes back as it went", () => {
    const doc = chapter(
      "# Tides\n\nSee [the *office*](https://tides.example/ 'Tide office').[^1]\n\n[^1]: A note.",
    );
    expect(readChapter(JSON.parse(JSON.stringify(writeChapter(doc)))).eq(doc)).toBe(true);
  });

  test.each([
    ["an unsafe link", (json: string) => json.replace("https://tides.example/", "javascript:alert(1)")],
    ["an unknown node", (json: string) => json.replace('"paragraph"', '"script"')],
    ["a heading of level 9", (json: string) => json.replace('"level":1', '"level":9')],
    ["an id that is no id", (json: string) => json.replace(/"id":"\w+"/, '"id":"a b<"')],
    ["a list that begins nowhere", (json: string) => json.replace('"start":3', '"start":1.5')],
    ["a cell over no column", (json: string) => json.replace('"colspan":1', '"colspan":0')],
    ["a cell over a million rows", (json: string) => json.replace('"rowspan":1', '"rowspan":1000000')],
    ["widths that are none", (json: string) => json.replace('"colwidth":null', '"colwidth":{"a":1}')],
    ["a listing in two languages", (json: string) => json.replace('"language":"sh"', '"language":"sh bash"')],
    ["a picture that is an object", (json: string) => json.replace('"file":null', '"file":{"id":"p"}')],
    ["a picture from elsewhere", (json: string) => json.replace('"file":null', '"file":"../p"')],
    [
      "a source that is a list",
      (json: string) => json.replace('"source":"pier.png"', '"source":["pier.png"]'),
    ],
    [
      "a file of another computer",
      (json: string) =>
        json.replace(/"destination":\{.*?\}/, '"destination":{"kind":"file","path":"//host/x"}'),
    ],
    ["a missing title", (json: string) => json.replace('"title"', '"paragraph"')],
  ])("with %s is refused", (_what, spoil) => {
    const markdown =
      "# T\n\n## Two\n\n[office](https://tides.example/)\n\n3. c\n\n```sh\nls\n```\n\n![p](pier.png)\n\n|a|\n|-|\n|b|\n";
    const json = JSON.stringify(writeChapter(chapter(markdown)));
    expect(spoil(json)).not.toBe(json);
    expect(() => readChapter(JSON.parse(spoil(json)))).toThrow(expect.objectContaining({ code: "document" }));
  });

  test.each([null, "text", 4, [], { type: "paragraph" }])("%j is no chapter", (json) => {
    expect(() => readChapter(json)).toThrow(expect.objectContaining({ code: "document" }));
  });
});

test("a new title keeps a link that covered the old one", () => {
  const doc = withTitle(chapter("# [Tides](https://tides.example/)"), "Low water");
  expect(chapterTitle(doc)).toBe("Low water");
  expect(linkUses(doc)[0]).toMatchObject({
    text: "Low water",
    destination: { address: "https://tides.example/" },
  });
  expect(chapterTitle(withTitle(emptyChapter("A"), ""))).toBe("");
});

test("words are counted in any script, with the title and the notes", () => {
  expect(
    countWords(chapter("# Low water\n\nThe warden's hut – half-way. Ебб и поток[^n]\n\n[^n]: Two words")),
  ).toBe(11);
});

describe("the links of a chapter", () => {
  test("a link over bold and plain words is one", () => {
    const uses = linkUses(chapter("# T\n\nSee [the **tide** *tables* `now`](https://tides.example/) there."));
    expect(uses).toHaveLength(1);
    expect(uses[0]!.text).toBe("the tide tables now");
  });

  test("neighbours are two, and tables, lists, listings and notes are looked into", () => {
    const markdown = `# T\n\n[a](https://a.example/)[b](https://b.example/)\n\n| x |\n|---|\n| [c](https://c.example/) |\n\n- [d](https://d.example/)\n  > [e](https://e.example/)\n\nn[^1]\n\n[^1]: [f](https://f.example/)`;
    expect(linkUses(chapter(markdown)).map((use) => use.text)).toEqual(["a", "b", "c", "d", "e", "f"]);
  });

  test("a picture in a link gives its text alternative as words", () => {
    expect(linkUses(chapter("# T\n\n[![Map of the Sound](map.png) here](https://a.example/)"))[0]!.text).toBe(
      "Map of the Sound here",
    );
    expect(linkUses(chapter("# T\n\n[![](maps/sound.png?x)](https://a.example/)"))[0]!.text).toBe(
      "sound.png",
    );
  });

  test("positions cover the words exactly", () => {
    const doc = chapter("# T\n\nSee [low water](https://a.example/) now.");
    const { from, to } = linkUses(doc)[0]!;
    expect(doc.textBetween(from, to)).toBe("low water");
  });
});

test("notes are numbered by their first reference; unused ones come last", () => {
  const doc = chapter("# T\n\nOne[^b] two[^a] again[^b].\n\n[^a]: A\n\n[^b]: B\n\n[^c]: C");
  expect(
    numberNotes(doc).map(({ number, references, node }) => [number, references, node.textContent]),
  ).toEqual([
    [1, 2, "B"],
    [2, 1, "A"],
    [3, 0, "C"],
  ]);
});

test("titles, headings and anchors are landing places, in reading order", () => {
  const places = placesOf(chapter('# Tides\n\n## Low\n\n<a name="here"></a>Here.\n\n### Lower'));
  expect(places.map(({ kind, level, text }) => [kind, level, text])).toEqual([
    ["title", 0, "Tides"],
    ["heading", 1, "Low"],
    ["anchor", null, "here"],
    ["heading", 2, "Lower"],
  ]);
});

// ISO 14289-1, 7.4.2: heading levels are not skipped.
test("heading levels are made consecutive", () => {
  const levels = new HeadingLevels();
  expect([0, 3, 4, 1, 3].map((level) => levels.next(level))).toEqual([1, 2, 3, 2, 3]);
});

test("ids are unique and serve as XML names", () => {
  const ids = new Set(Array.from({ length: 5000 }, newId));
  expect(ids.size).toBe(5000);
  for (const id of ids) expect(id).toMatch(/^[a-z][a-z0-9]{11}$/);
});
