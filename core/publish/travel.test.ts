import { describe, expect, test } from "@jest/globals";
import type { Destination } from "../destination/kinds/kinds.ts";
import { compareLinks } from "../proof/compare.ts";
import { manuscriptLinks } from "../proof/manuscript-links.ts";
import { indexOf } from "../manuscript/book.ts";
import { likeAllOthers, type ExportedLink } from "../proof/exported-link.ts";
import { noFrame } from "../manuscript/hotspot.ts";
import { schema } from "../manuscript/schema.ts";
import { emptyReading, paged } from "../test/readings.ts";
import { bookOf } from "../test/sample-book.ts";
import { travel } from "./travel.ts";

const index = indexOf(bookOf('# One\n\n# Two\n\n<a id="low"></a>Low water.'));
const low = [...index.places.values()].find(({ text }) => text === "low")!;
const plan = {
  id: "f1",
  path: "files/R1-plan.pdf",
  name: "R1 plan.pdf",
  mediaType: "application/pdf",
  size: 1,
};
const files = new Map([["f1", plan]]);

test.each([
  [
    { kind: "web", address: "https://a.example/" },
    { kind: "address", address: "https://a.example/" },
  ],
  [
    { kind: "email", address: "mailto:a@b.example" },
    { kind: "address", address: "mailto:a@b.example" },
  ],
  [
    { kind: "file", share: "https://drive.example/s/1" },
    { kind: "address", address: "https://drive.example/s/1" },
  ],
  [
    { kind: "file", file: "f1" },
    { kind: "file", file: plan, href: "files/R1-plan.pdf" },
  ],
  [
    { kind: "file", file: "f1", at: "page=12" },
    { kind: "file", file: plan, href: "files/R1-plan.pdf#page=12" },
  ],
  [
    { kind: "place", target: low.id },
    { kind: "place", place: expect.objectContaining({ id: low.id, chapter: 1, words: "Low water" }) },
  ],
] as [Destination, object][])("%j travels", (destination, way) => {
  expect(travel(destination, index, files)).toEqual(way);
});

test.each([
  [{ kind: "place", target: "gone" }, "no place “gone”"],
  [{ kind: "file", path: "plans/r1.pdf" }, "“plans/r1.pdf” does not travel"],
  [{ kind: "file", file: "f2" }, "companion file is gone"],
] as [Destination, string][])("%j stays words, with the reason", (destination, reason) => {
  expect(travel(destination, index, files)).toEqual({
    kind: "words",
    reason: expect.stringContaining(reason),
  });
});

describe("the proof", () => {
  const web = { kind: "web" as const, address: "https://a.example/" };
  const area = {
    id: "area",
    shape: "rectangle" as const,
    points: [
      [0, 0],
      [0.5, 0.5],
    ] as [number, number][],
    destination: web,
    alt: "Refuge",
    description: null,
    frame: noFrame,
  };
  const linked = schema.mark("link", { id: "two", destination: web });
  const doc = schema.node("doc", null, [
    schema.node("title", { id: "t" }, [schema.text("T")]),
    schema.node("paragraph", null, [schema.text("See "), schema.text("the first", [linked])]),
    schema.node("paragraph", null, [schema.text("and second", [linked]), schema.text(" line.")]),
    schema.node("paragraph", null, [schema.node("picture", { file: "p", alt: "Chart", hotspots: [area] })]),
  ]);
  const manuscript = manuscriptLinks(
    bookOf("", { chapters: [{ id: "c", role: "chapter", doc }] }),
    emptyReading,
  );
  const found = (
    text: string,
    description: string | null = null,
    page: number | null = null,
  ): ExportedLink => ({
    destination: { kind: "address", address: web.address },
    text,
    description,
    where: page === null ? "chapter-001.xhtml" : `page ${page}`,
    page,
    boxes: [],
    apparatus: false,
    ...likeAllOthers,
  });
  const prove = (format: "pdf" | "epub", ...links: ExportedLink[]) =>
    compareLinks(manuscript, {
      ...emptyReading,
      traits: format === "pdf" ? paged : emptyReading.traits,
      pages: format === "pdf" ? 1 : null,
      links,
    });

  test("counts a link over two paragraphs once, with both its places", () => {
    const proof = prove("epub", found("the first"), found("and second"), found("Refuge"));
    expect(proof).toMatchObject({ complete: true, intact: 2, total: 2, extra: [] });
    expect(proof.rows[0]).toMatchObject({
      link: { text: "the first and second" },
      found: ["chapter-001.xhtml", "chapter-001.xhtml"],
    });
  });

  test("tells when only one of its paragraphs is linked", () => {
    const proof = prove("epub", found("the first"), found("Refuge"));
    expect(proof).toMatchObject({ complete: false, intact: 1 });
    expect(proof.rows[0]).toMatchObject({ verdict: "missing", note: "The file has only a part of it." });
  });

  test("knows an area of a PDF by its description, since it has no words there", () => {
    const words = ["the first", "and second"].map((said) => found(said, `${said} (a.example)`, 1));
    expect(prove("pdf", ...words, found("", "Refuge", 1)).complete).toBe(true);
    expect(prove("pdf", ...words, found("", "https://a.example/", 1)).rows[1]).toMatchObject({
      verdict: "other-description",
    });
    expect(prove("pdf", ...words).rows[1]).toMatchObject({ verdict: "missing" });
  });
});
