import { describe, expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import type { Destination } from "../destination/kinds/kinds.ts";
import { noFrame, type Hotspot, type Point } from "../manuscript/hotspot.ts";
import { linkUses } from "../manuscript/links.ts";
import { schema } from "../manuscript/schema.ts";
import { bookWith, chapter, text } from "../test/book-of-places.ts";
import { contextOf } from "../test/check-context.ts";
import { knownAnswer } from "./cases/case.ts";
import { checkBook } from "./check-book.ts";
import { nothingKnown } from "./surroundings.ts";
import { checkChapter } from "./check-chapter.ts";
import type { CheckContext, KnownAnswer } from "./finding.ts";
import { isOneSlip } from "./one-slip.ts";

const page = "https://tides.example/tables";
const web = (address: string): Destination => ({ kind: "web", address });
const link = (words: string, destination: Destination): Node =>
  schema.text(words, [schema.mark("link", { id: "l", destination, description: null })]);

const answer = (state: KnownAnswer["state"], more: Partial<KnownAnswer> = {}): KnownAnswer =>
  knownAnswer({ state, ...more });

function check(destination: Destination, more: Partial<CheckContext> = {}, words = "the tide office") {
  const doc = chapter("c", "C", text("See ", link(words, destination)));
  return checkChapter(doc, contextOf([doc], more));
}
const rulesFor = (...given: Parameters<typeof check>): string[] => check(...given).map(({ rule }) => rule);

describe("what a destination answered", () => {
  const told = (known: KnownAnswer, destination = web(page)) =>
    rulesFor(destination, { answers: new Map([[page, known]]) });

  test("is told by its state, and a sound or unasked one not at all", () => {
    expect(told(answer("sound"))).toEqual([]);
    expect(told(answer("broken"))).toEqual(["destination-broken"]);
    expect(told(answer("moved", { movedTo: page }))).toEqual(["destination-moved"]);
    expect(told(answer("guarded"))).toEqual(["destination-guarded"]);
    expect(told(answer("unsure"))).toEqual(["destination-unsure"]);
    expect(told(answer("broken"), web("https://tides.example/other"))).toEqual([]);
    // A part of a page has an answer of its own.
    expect(told(answer("broken"), web(`${page}#low`))).toEqual([]);
  });

  test("gives the new address, the https address and the page's title as mends", () => {
    const mendOf = (rule: string, known: KnownAnswer, destination: Destination, words?: string) => {
      const key =
        "address" in destination ? destination.address : "share" in destination ? destination.share : "";
      return check(destination, { answers: new Map([[key, known]]) }, words).find((one) => one.rule === rule)
        ?.mend;
    };
    const moved = answer("moved", { movedTo: "https://tides.example/now" });
    expect(mendOf("destination-moved", moved, web(page))).toEqual({
      destination: web("https://tides.example/now"),
    });
    expect(mendOf("destination-moved", moved, { kind: "file", share: "https://drive.example/s/1" })).toEqual({
      destination: { kind: "file", share: "https://tides.example/now" },
    });
    expect(
      mendOf("https-answers", answer("sound", { secure: page }), web("http://tides.example/tables")),
    ).toEqual({ destination: web(page) });
    expect(mendOf("raw-address", answer("sound", { title: "Tide tables" }), web(page), page)).toEqual({
      text: "Tide tables",
    });
    expect(mendOf("raw-address", answer("sound"), web(page), page)).toBeNull();
    expect(mendOf("destination-broken", answer("broken"), web(page))).toBeNull();
  });
});

describe("a shared file", () => {
  const share = "https://drive.example/s/1";
  const found = (kind: "owner" | "anyone" | "wardens", audience: string): string[] =>
    rulesFor(
      { kind: "file", share },
      {
        audience,
        shares: new Map([[share, kind === "wardens" ? { kind: "group", name: "Wardens" } : { kind }]]),
        answers: new Map([[share, answer("guarded")]]),
      },
    );

  test("has to open for those who read the book", () => {
    expect(found("anyone", "anyone")).toEqual([]);
    expect(found("wardens", "anyone")).toEqual(["share-too-narrow"]);
    expect(found("wardens", "Wardens")).toEqual([]);
    expect(found("wardens", "Ferrymen")).toEqual(["share-too-narrow"]);
    expect(found("owner", "Wardens")).toEqual(["share-too-narrow"]);
  });
});

describe("a companion file", () => {
  const found = (mediaType: string, size: number): string[] =>
    rulesFor({ kind: "file", file: "f" }, { files: new Map([["f", { name: "plan", mediaType, size }]]) });

  // EPUB 3.3, section 3.2 (from memory); the size is common practice.
  test("is told where it is heavy, or of a type that e-readers do not open", () => {
    expect(found("image/png", 1000)).toEqual([]);
    expect(found("application/pdf", 1000)).toEqual(["file-foreign"]);
    expect(found("image/png", 10_000_001)).toEqual(["file-large"]);
  });
});

describe("an address that ends with a full stop", () => {
  const tails = (address: string, state: KnownAnswer["state"] | null) =>
    check(web(address), { answers: new Map(state ? [[address, answer(state)]] : []) }).filter(
      ({ rule }) => rule === "address-tail",
    );

  test.each(["https://tides.example/Inc.", "https://tides.example/wiki/Dr.", "https://tides.example/Yahoo!"])(
    "%s is right where it answers, and else mended where somebody looks at it",
    (address) => {
      for (const state of ["sound", "moved"] as const) expect(tails(address, state)).toEqual([]);
      expect(tails(address, null)).toMatchObject([{ isSure: false, mend: { destination: { kind: "web" } } }]);
      expect(tails(address, "broken")).toMatchObject([{ isSure: true }]);
    },
  );

  test("what can be no part of it is taken off without a look", () => {
    for (const address of [
      "https://tides.example/a%20",
      "https://tides.example/a%22",
      "https://tides.example/a)",
    ])
      expect(tails(address, null)).toMatchObject([{ isSure: true }]);
  });
});

test("anchors of a file that stays as it is are nobody’s to take out", () => {
  const doc = chapter("c", "C", text(schema.node("anchor", { id: "a", name: "low" }), "Low."));
  const rules = (keepsAnchors: boolean) =>
    checkBook(bookWith([doc]), { ...nothingKnown, keepsAnchors }).map(({ rule }) => rule);
  expect([rules(false).includes("anchor-unused"), rules(true).includes("anchor-unused")]).toEqual([
    true,
    false,
  ]);
});

describe("a page of a companion file", () => {
  const found = (
    at: string | undefined,
    places?: { pages: number | null; places: { at: string; name: string }[] },
  ) =>
    check(
      { kind: "file", file: "f", ...(at ? { at } : {}) },
      { files: new Map([["f", { name: "plan.pdf", mediaType: "application/pdf", size: 1, places }]]) },
    ).filter(({ rule }) => rule === "file-place-gone");
  const known = { pages: 8, places: [{ at: "nameddest=huts", name: "huts" }] };

  // RFC 8118.
  test("is told where the file has no such page or name, and not where nothing is known of it", () => {
    for (const at of ["page=9", "page=0", "nameddest=sheds"])
      expect([at, found(at, known).length]).toEqual([at, 1]);
    for (const at of ["page=8", "nameddest=huts", undefined])
      expect([at, found(at, known)]).toEqual([at, []]);
    expect(found("page=9")).toEqual([]);
    expect(found("page=9", known)[0]!.message).toBe(
      "“plan.pdf” has no page 9 among its 8 pages. Choose where in it the link leads.",
    );
  });
});

describe("an email domain", () => {
  const mailto = (address: string): Destination => ({ kind: "email", address: `mailto:${address}` });
  const known = (typed: string, state: KnownAnswer["state"]) => ({
    answers: new Map([
      ["mailto:orla@causeways.example", answer("sound")],
      [`mailto:${typed}`, answer(state)],
    ]),
  });
  const slips = (typed: string, state: KnownAnswer["state"]) =>
    check(mailto(typed), known(typed, state)).filter(({ rule }) => rule === "mail-slip");

  test.each([
    ["orla@gmial.com", "mailto:orla@gmail.com"],
    ["orla@gmai.com", "mailto:orla@gmail.com"],
    ["orla@gmaill.com?subject=Tide", "mailto:orla@gmail.com?subject=Tide"],
    ["orla@causeway.example", "mailto:orla@causeways.example"],
    ["pell@byre.test,orla@cuaseways.example", "mailto:pell@byre.test,orla@causeways.example"],
  ])("%s that takes no mail is taken for a slip, and what is meant is offered, alone", (typed, mended) => {
    const [finding] = slips(typed, "broken");
    expect(finding).toMatchObject({
      mend: { destination: { kind: "email", address: mended } },
      isSure: false,
    });
  });

  // Domains of mail services that are one letter from others (common practice).
  test.each(["mail.com", "email.com", "ymail.com", "yahoo.co", "freie.fr", "example.co", "gmial.com"])(
    "%s that takes mail is nobody’s slip",
    (domain) => {
      for (const state of ["sound", "unsure", "guarded"] as const)
        expect([state, slips(`orla@${domain}`, state)]).toEqual([state, []]);
      expect(check(mailto(`orla@${domain}`), {}).filter(({ rule }) => rule === "mail-slip")).toEqual([]);
    },
  );

  test.each(["orla@causeways.example", "orla@example.org", "orla@harbour.example", "x@web.test"])(
    "%s that takes none is far from all that are known",
    (typed) => expect(slips(typed, "broken")).toEqual([]),
  );

  test("one slip is a letter more, less, other, or swapped with its neighbour", () => {
    for (const typed of ["tde", "tidee", "tode", "tdie"])
      expect([typed, isOneSlip(typed, "tide")]).toEqual([typed, true]);
    for (const typed of ["tide", "te", "edit", "tides1"])
      expect([typed, isOneSlip(typed, "tide")]).toEqual([typed, false]);
  });
});

// WCAG 2.2 SC 2.5.8. On the page of the PDF the text is 110 mm wide, which is 415.7 CSS px.
describe("a hotspot", () => {
  const found = (size: number, width: number | null): string[] => {
    const points: Point[] = [
      [0.1, 0.1],
      [0.1 + size, 0.1 + size],
    ];
    const hotspot: Hotspot = {
      id: "h",
      shape: "rectangle",
      points,
      destination: web(page),
      alt: "The tide office",
      description: null,
      frame: noFrame,
    };
    const attrs = { file: "p", alt: "A map", decorative: false, source: null, width, hotspots: [hotspot] };
    const doc = chapter("c", "C", text(schema.node("picture", attrs)));
    const pictureSizes = new Map([["p", { width: 2000, height: 2000 }]]);
    return checkChapter(doc, contextOf([doc], { pictureSizes })).map(({ rule }) => rule);
  };

  test("has 24 by 24 px at the size at which its picture is shown", () => {
    expect(found(0.058, null)).toEqual([]);
    expect(found(0.057, null)).toEqual(["hotspot-small"]);
    expect(found(0.058, 50)).toEqual(["hotspot-small"]);
    expect(found(0.116, 50)).toEqual([]);
  });
});

test("the same words that lead to two places are found in different chapters too", () => {
  const one = chapter("a", "A", text("See ", link("the office", web(page))));
  const other = chapter("b", "B", text("See ", link("The  office", web("https://tides.example/other"))));
  const findings = checkBook(bookWith([one, other])).filter(({ rule }) => rule === "same-words");
  expect(findings.map(({ chapter: at }) => at)).toEqual([0, 1]);
  expect(linkUses(one)).toHaveLength(1);
});
