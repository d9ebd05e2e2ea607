import { expect, test } from "@jest/globals";
import { zipSync } from "fflate";
import { nameDestination } from "../destination/destination.ts";
import { linkUses } from "../manuscript/links.ts";
import { bring } from "../test/brought.ts";
import { redDot } from "../test/red-dot.ts";
import { FileNames } from "./file-name.ts";
import { importManuscript } from "./import-manuscript.ts";

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

test("a name means a file to the letter, else the one that differs in case or in how its letters are put together", () => {
  const names = new FileNames(["Tides.html", "tides.HTML", "Fähre.pdf".normalize("NFD"), "map.png"]);
  expect(["Tides.html", "MAP.PNG", "Fähre.pdf"].map((name) => names.meant(name))).toEqual([
    "Tides.html",
    "map.png",
    "Fähre.pdf".normalize("NFD"),
  ]);
  // Two are meant as much, and no name is none.
  expect(["TIDES.html", "map.jpg", ""].map((name) => names.meant(name))).toEqual([null, null, null]);
});

test("pages, pictures and files of a folder are found as the disk of their author finds them", async () => {
  const page = (body: string) => bytes(`<html><body><h1>Sands</h1>${body}</body></html>`);
  const folder = zipSync({
    "Index.html": page(
      '<p><a href="huts/refuges.HTML#a">huts</a> <a href="Fähre.pdf">ferry</a> <img src="DOT.png" alt="Dot"></p>',
    ),
    "Huts/Refuges.html": page('<p id="a">Hut A</p><p><a href="../index.html">back</a></p>'),
    ["Fähre.pdf".normalize("NFD")]: bytes("%PDF-1.4"),
    "dot.png": redDot,
  });
  const { chapters, arrival, leftOut, pictures, companions } = await bring(folder);
  const kinds = chapters.flatMap((doc) => linkUses(doc)).map(({ destination }) => destination.kind);
  expect([kinds, arrival!.counts.intact, leftOut]).toEqual([["place", "file", "place"], 3, []]);
  expect([pictures.length, companions.length]).toEqual([1, 1]);
});

test("a file that was brought beside a text is meant by its name in another case", async () => {
  const { chapters, arrival, usedBeside } = await importManuscript(
    { name: "walks.md", bytes: bytes("# Walks\n\nThe [plan](Files/PLAN.pdf) and [another](other.pdf).") },
    {
      fallbackTitle: "Walks",
      baseAddress: null,
      pictureFor: () => null,
      beside: [{ id: "plan-id", name: "plan.pdf" }],
    },
  );
  const names = { files: new Map([["plan-id", "plan.pdf"]]), places: new Map() };
  const led = linkUses(chapters[0]!).map(({ destination }) => nameDestination(destination, names));
  expect([led[0], usedBeside, arrival!.counts.intact, arrival!.counts.changed]).toEqual([
    "plan.pdf",
    ["plan-id"],
    1,
    1,
  ]);
});
