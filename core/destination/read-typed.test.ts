import { describe, expect, test } from "@jest/globals";
import type { KnownDestination } from "./suggest.ts";
import { readTyped } from "./read-typed.ts";

const known: KnownDestination[] = [
  { destination: { kind: "file", file: "f1" }, name: "R1 plan.pdf", detail: "Companion file", uses: 0 },
  { destination: { kind: "place", target: "h1" }, name: "Low water", detail: "Heading in Tides", uses: 2 },
  {
    destination: { kind: "web", address: "https://tides.example/" },
    name: "tides.example",
    detail: "“hours”",
    uses: 1,
  },
];
const taken = (typed: string) => {
  const { choices, fitting } = readTyped(typed, { known });
  return choices[fitting] ?? null;
};

describe("what Enter takes in the link line", () => {
  test("an address is taken as it is, and offered once where it is known", () => {
    const reading = readTyped("https://tides.example/", { known });
    expect(reading.choices).toHaveLength(1);
    expect(taken("https://tides.example/")).toMatchObject({ kind: "recognised" });
  });

  test("words take the best of what the book knows", () => {
    expect(taken("plan")).toMatchObject({ kind: "known", known: { name: "R1 plan.pdf" } });
    expect(taken("low w")).toMatchObject({ kind: "known", known: { name: "Low water" } });
  });

  test("a new page and a file are offered, and never taken unasked", () => {
    const { choices, fitting, problem } = readTyped("Packing list", { known });
    expect(choices).toEqual([{ kind: "page", title: "Packing list" }, { kind: "upload" }]);
    expect(fitting).toBe(-1);
    expect(problem).toContain("not an address yet");
  });

  test("a path on the author's disk is refused; a file of that name is an offer", () => {
    const { choices, fitting, problem } = readTyped("C:\\book\\R1 plan.pdf", { known });
    expect(choices.map(({ kind }) => kind)).toEqual(["known", "upload"]);
    expect(fitting).toBe(-1);
    expect(problem).toContain("own disk");
  });

  const spot = (place: string | null) => ({
    chapterId: "c2",
    chapter: "Tides",
    revision: 3,
    from: 40,
    to: 53,
    text: "Packing lists",
    before: "In our ",
    after: " there are",
    place,
  });

  test("words that stand in the text are taken where nothing bears them as its name", () => {
    const found = readTyped("packing list", { known, spots: [spot(null)] });
    expect(found.choices.map(({ kind }) => kind)).toEqual(["spot", "page", "upload"]);
    expect(found.fitting).toBe(0);
    const named = readTyped("low water", { known, spots: [spot("h1"), spot(null)] });
    expect(named.choices.map(({ kind }) => kind)).toEqual(["known", "spot", "page", "upload"]);
    expect(named.fitting).toBe(0);
  });

  test("an empty line is read by the words to be linked", () => {
    const page = readTyped(" ", { known, words: "Packing list" });
    expect(page).toEqual({ choices: [{ kind: "page", title: "Packing list" }], fitting: 0, problem: "" });
    const named = readTyped("", { known, words: "low water" });
    expect(named.choices[named.fitting]).toMatchObject({ known: { name: "Low water" } });
    expect(readTyped("", { known, words: "12" }).fitting).toBe(-1);
    expect(readTyped("", { known, words: "much ".repeat(40) }).fitting).toBe(-1);
  });

  test.each(["", "javascript:alert(1)", "12 34"])("%j takes nothing and makes nothing", (typed) => {
    expect(taken(typed)).toBeNull();
    expect(readTyped(typed, { known }).choices.every(({ kind }) => kind !== "page")).toBe(true);
  });
});

test.each([
  ["huts.pdf page 3", "page=3"],
  ["plan, p. 3", "page=3"],
  ["page 3 of the plan", "page=3"],
  ["Plan of the huts.pdf#page=3", "page=3"],
  ["plan page 9", null],
  ["plan page 0", null],
  ["notes page 1", null],
])("“%s” is a page of a file that has it", (typed, at) => {
  const file = (id: string, name: string, pages?: number): KnownDestination => ({
    destination: { kind: "file", file: id },
    name,
    detail: "Companion file",
    uses: 0,
    ...(pages ? { pages } : {}),
  });
  const { choices, fitting } = readTyped(typed, {
    known: [file("f1", "Plan of the huts.pdf", 8), file("f2", "notes.txt")],
  });
  const first = choices[fitting];
  const destination = first?.kind === "known" ? first.known.destination : null;
  expect(destination && "at" in destination ? destination.at : null).toBe(at);
});
