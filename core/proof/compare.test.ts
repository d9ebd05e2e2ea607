import { describe, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { writeEpub } from "../publish/formats/epub/write-epub.ts";
import { emptyReading, paged } from "../test/readings.ts";
import { bookOf } from "../test/sample-book.ts";
import { compareLinks, type LinkProof } from "./compare.ts";
import { likeAllOthers, type ExportedLink, type ExportReading } from "./exported-link.ts";
import { manuscriptLinks } from "./manuscript-links.ts";
import { readEpub } from "../publish/formats/epub/read-back.ts";

const book = bookOf(`# One

[office](https://tides.example/ "Tide office") and [office](https://tides.example/) and [low water](#low)[^1]

## Low

[mail](mailto:a@b.example?subject=Hi%20there)

[^1]: [in a note](https://n.example/)
`);
const epub = writeEpub(book);

/** The proof of the book against its e-book, after somebody has meddled with the first chapter. */
function proofOf(meddle: (page: string) => string = (page) => page): LinkProof {
  const files = unzipSync(epub);
  const name = "EPUB/chapter-001.xhtml";
  const page = strFromU8(files[name]!);
  const changed = meddle(page);
  files[name] = strToU8(changed);
  const { mimetype, ...others } = files;
  const reading = readEpub(zipSync({ mimetype: [mimetype!, { level: 0 }], ...others }));
  return compareLinks(manuscriptLinks(book, reading), reading);
}

const wrong = (proof: LinkProof): [string, string][] =>
  proof.rows.filter((row) => row.verdict !== "intact").map((row) => [row.link.text, row.verdict]);

describe("the proof of an e-book", () => {
  test("is complete when nothing is lost", () => {
    expect(proofOf()).toMatchObject({ complete: true, intact: 5, total: 5, extra: [] });
    expect(proofOf().apparatus).toBeGreaterThan(3);
  });

  test.each([
    ["a lost link", /<a class="email" href="mailto[^>]*>mail<\/a>/, "mail", [["mail", "missing"]]],
    ["another destination", /mailto:a@b/, "mailto:x@b", [["mail", "other-destination"]]],
    ["other words", />low water</, ">high water<", [["low water", "other-words"]]],
    ["a lost description", / title="Tide office"/, "", [["office", "other-description"]]],
    ["a landing place that is gone", /<h2 id="\w+">/, "<h2>", [["low water", "dead-end"]]],
    ["a subject that was cut", /Hi%20there/, "Hi", [["mail", "other-destination"]]],
  ] as [string, RegExp, string, [string, string][]][])(
    "names %s",
    (_what, pattern, replacement, expected) => {
      const proof = proofOf((page) => {
        expect(page).toMatch(pattern);
        return page.replace(pattern, replacement);
      });
      expect(wrong(proof)).toEqual(expected);
      expect(proof.complete).toBe(false);
    },
  );

  test("names a link that the manuscript does not have", () => {
    const proof = proofOf((page) =>
      page.replace("</h2>", '</h2><p><a href="https://evil.test/">new</a></p>'),
    );
    expect(proof).toMatchObject({ complete: false, intact: 5 });
    expect(proof.extra).toEqual([
      { text: "new", destination: "https://evil.test/", where: "EPUB/chapter-001.xhtml, link 5" },
    ]);
  });

  test("a file that cannot be read is an error, not an empty proof", () => {
    expect(() => readEpub(new Uint8Array([1, 2, 3]))).toThrow(
      expect.objectContaining({ code: "unreadable" }),
    );
    expect(() => proofOf((page) => page.replace("</h2>", ""))).toThrow(
      expect.objectContaining({ code: "unreadable" }),
    );
  });
});

const nothing = emptyReading;

test("a link that cannot travel is missing, with the reason", () => {
  const proof = compareLinks(
    manuscriptLinks(bookOf("# T\n\n[plan](plan.pdf) [x](#nowhere)"), nothing),
    nothing,
  );
  expect(proof.rows.map((row) => [row.verdict, row.note])).toEqual([
    ["missing", expect.stringContaining("plan.pdf")],
    ["missing", expect.stringContaining("nowhere")],
  ]);
});

describe("links with the same words and destination", () => {
  const three = manuscriptLinks(
    bookOf(
      '# T\n\n[tides](https://a.example/ "Of spring"), [tides](https://a.example/ "Of neap"), [tides](https://a.example/)',
    ),
    { ...nothing, traits: paged },
  );
  const tides = (description: string): ExportedLink => ({
    destination: { kind: "address", address: "https://a.example/" },
    text: "tides",
    description,
    where: "page 1",
    page: 1,
    boxes: [],
    apparatus: false,
    ...likeAllOthers,
  });
  const verdicts = (...descriptions: string[]) =>
    compareLinks(three, { ...nothing, traits: paged, pages: 1, links: descriptions.map(tides) }).rows.map(
      ({ verdict }) => verdict,
    );

  test("are told apart by what is said of them, in whatever order the file has them", () => {
    expect(verdicts("tides (a.example)", "Of neap", "Of spring")).toEqual(["intact", "intact", "intact"]);
  });

  test("what an author says of one is not taken for what the format says of another", () => {
    const two = manuscriptLinks(
      bookOf('# T\n\n[tides](https://a.example/), [tides](https://a.example/ "Spring tides (a.example)")'),
      { ...nothing, traits: paged },
    );
    const links = ["Spring tides (a.example)", "tides (a.example)"].map(tides);
    expect(compareLinks(two, { ...nothing, traits: paged, pages: 1, links }).complete).toBe(true);
  });

  test("one of which another thing is said takes none that is another's", () => {
    expect(verdicts("Of neap", "Of storms", "tides (a.example)")).toEqual([
      "other-description",
      "intact",
      "intact",
    ]);
  });
});

describe("the proof of a PDF", () => {
  const manuscript = manuscriptLinks(
    bookOf("# T\n\n[a long co-operative walk](https://a.example/) and [b](https://b.example/)"),
    { ...nothing, traits: paged },
  );
  const link = (text: string, address: string, page: number): ExportedLink => ({
    destination: { kind: "address", address },
    text,
    description: `a long co-operative walk, b (${new URL(address).hostname})`,
    where: `page ${page}`,
    page,
    boxes: [],
    apparatus: false,
    ...likeAllOthers,
  });
  const compare = (links: ExportedLink[]) =>
    compareLinks(manuscript, { ...nothing, traits: paged, pages: 3, links });

  test("a link broken over two pages counts once, with both places", () => {
    const proof = compare([
      link("a long co-", "https://a.example/", 1),
      link("b", "https://b.example/", 1),
      link("operative walk", "https://a.example/", 2),
    ]);
    expect(proof.complete).toBe(true);
    expect(proof.rows[0]!.found).toEqual(["page 1", "page 2"]);
  });

  test("links with the same words that break over one page after another are each their own", () => {
    const peers = manuscriptLinks(
      bookOf(`# T\n\n${"[a long co-operative walk](https://a.example/) ".repeat(3)}`),
      { ...nothing, traits: paged },
    );
    const broken = [1, 2, 3].flatMap((page) => [
      link("a long co-", "https://a.example/", page),
      ...(page > 1 ? [link("operative walk", "https://a.example/", page)] : []),
    ]);
    const links = [...broken, link("operative walk", "https://a.example/", 4)];
    const proof = compareLinks(peers, { ...nothing, traits: paged, pages: 4, links });
    expect(proof.rows.map(({ verdict, found }) => [verdict, ...found])).toEqual([
      ["intact", "page 1", "page 2"],
      ["intact", "page 2", "page 3"],
      ["intact", "page 3", "page 4"],
    ]);
  });

  test("two halves far apart are not one link", () => {
    const proof = compare([
      link("a long co-", "https://a.example/", 1),
      link("operative walk", "https://a.example/", 3),
      link("b", "https://b.example/", 3),
    ]);
    expect(proof.complete).toBe(false);
  });

  test("half a link is not a whole one", () => {
    const proof = compare([link("a long", "https://a.example/", 1), link("b", "https://b.example/", 1)]);
    expect(wrong(proof)).toEqual([["a long co-operative walk", "other-words"]]);
  });

  test("a link that is cut in two on one page is two links, which is told", () => {
    const proof = compare([
      link("a long", "https://a.example/", 1),
      link("b", "https://b.example/", 1),
      link("co-operative walk", "https://a.example/", 1),
    ]);
    expect(wrong(proof)).toEqual([["a long co-operative walk", "cut"]]);
    expect(proof.rows[0]).toMatchObject({
      found: ["page 1", "page 1"],
      note: "In the file it is 2 links: “a long”, “co-operative walk”.",
    });
    expect(proof.extra).toEqual([]);
  });

  test("a link under another one is covered; under itself, or by less than half, it is not", () => {
    const boxed = (one: ExportedLink, ...boxes: ExportedLink["boxes"]): ExportedLink => ({ ...one, boxes });
    const whole = boxed(link("a long co-operative walk", "https://a.example/", 1), [10, 10, 110, 20]);
    const b = link("b", "https://b.example/", 1);
    expect(wrong(compare([whole, boxed(b, [50, 0, 200, 30])]))).toEqual([
      ["a long co-operative walk", "covered"],
    ]);
    expect(wrong(compare([whole, boxed(b, [70, 0, 200, 30])]))).toEqual([]);
    expect(wrong(compare([whole, { ...boxed(b, [10, 10, 110, 20]), page: 2 }]))).toEqual([]);
    // What is laid under it does not cover it.
    expect(wrong(compare([boxed(b, [0, 0, 9, 9]), whole]))).toEqual([]);
  });
});

test("a jump that lands on another heading's text is shifted", () => {
  const two = bookOf("# T\n\n[below](#low)\n\n## Low\n\nSand.\n\n## High\n\nStone.");
  const reading = readEpub(writeEpub(two));
  expect(compareLinks(manuscriptLinks(two, reading), reading).complete).toBe(true);
  const moved: ExportReading = {
    ...reading,
    links: reading.links.map((one) =>
      one.destination.kind === "place" && !one.apparatus
        ? { ...one, destination: { ...one.destination, landing: "High Stone." } }
        : one,
    ),
  };
  const proof = compareLinks(manuscriptLinks(two, moved), moved);
  expect(proof.rows[0]).toMatchObject({ verdict: "shifted", note: "It lands on “High Stone.”." });
  expect(proof.complete).toBe(false);
});
