import { expect, test } from "@jest/globals";
import { suggest, type KnownDestination } from "./suggest.ts";
import { withoutTracking } from "./tracking.ts";

const file = (id: string, name: string, uses = 0): KnownDestination => ({
  destination: { kind: "file", file: id },
  name,
  detail: "Companion file",
  uses,
});
const known = [
  file("a", "R3 refuge plan.pdf"),
  file("b", "Tide table 2027.pdf", 4),
  file("c", "Émile’s tide notes.txt"),
  {
    destination: { kind: "web" as const, address: "https://tides.example/today" },
    name: "tides.example",
    detail: "/today",
    uses: 9,
  },
];
const names = (typed: string) => suggest(typed, known).map(({ name }) => name);

test("a file is found by any part of its name, accents and case aside", () => {
  expect(names("plan")).toEqual(["R3 refuge plan.pdf"]);
  expect(names("emile")).toEqual(["Émile’s tide notes.txt"]);
  expect(names("table tide")).toEqual(["Tide table 2027.pdf"]);
  expect(names("chart")).toEqual([]);
  expect(names(" ")).toEqual([]);
});

test("letters left out are forgiven, after everything that fits better", () => {
  expect(names("rfgpln")).toEqual(["R3 refuge plan.pdf"]);
  expect(names("tdtbl")).toEqual(["Tide table 2027.pdf"]);
  expect(names("zz")).toEqual([]);
  expect(names("plnr")).toEqual([]);
});

test("names that begin so come first, then those with such a word, then the most used", () => {
  expect(names("tide")).toEqual(["tides.example", "Tide table 2027.pdf", "Émile’s tide notes.txt"]);
});

test("of equal names the places of the book come before files", () => {
  const refuges = {
    destination: { kind: "place" as const, target: "h" },
    name: "The refuges",
    detail: "Heading",
    uses: 0,
  };
  expect(suggest("refuge", [...known, refuges]).map(({ name }) => name)).toEqual([
    "The refuges",
    "R3 refuge plan.pdf",
  ]);
});

test("the same destination is offered once", () => {
  expect(suggest("plan", [...known, ...known])).toHaveLength(1);
});

test("tracking parameters are found, and nothing else of the address is touched", () => {
  expect(withoutTracking("https://tides.example/a?b=1&utm_source=x&c=%20d&FBCLID=2#low")).toEqual({
    address: "https://tides.example/a?b=1&c=%20d#low",
    removed: ["utm_source", "FBCLID"],
  });
  expect(withoutTracking("https://tides.example/a?utm_medium=x")!.address).toBe("https://tides.example/a");
  expect(withoutTracking("https://tides.example/a?source=utm")).toBeNull();
});
