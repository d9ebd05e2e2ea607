import { expect, test } from "@jest/globals";
import { compareLinks } from "@vennet/core/proof/compare";
import { manuscriptLinks } from "@vennet/core/proof/manuscript-links";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { schema } from "@vennet/core/manuscript/schema";
import {
  anchor,
  bookWith,
  caption,
  chapter,
  heading,
  note,
  noteMark,
  linkTo,
  table,
  text,
} from "@vennet/core/test/book-of-places";
import { kept, tool } from "../test/tools.ts";
import { Typesetter } from "./typesetter.ts";

const letters = (n: number): string => [...String(n)].map((digit) => "abcdefghij"[Number(digit)]).join("");

test("an anchor before any word of a paragraph is landed on with that word's line, also where it begins one", async () => {
  const words = (
    "The oldest of the causeways and the kindest leaves the mainland below the head and reaches an island after two " +
    "kilometres most of it on dressed stone so that whoever walks it keeps dry feet nearly all the way"
  )
    .split(" ")
    .map((word, i) => `${word}${letters(i)}`);
  const book = bookWith([
    chapter(
      "c",
      "Words",
      text(...words.flatMap((word, i) => [anchor(`w${i}`), `${word} `])),
      ...words.map((word, i) => text(linkTo(`l${i}`, `w${i}`, `to ${word}`))),
    ),
  ]);
  const { links } = await readPdf(new Typesetter().write(book, true).pdf);
  const firstLines = links
    .filter(({ apparatus }) => !apparatus)
    .map(({ destination }) => (destination.kind === "place" ? destination.landing?.split("\n")[0] : null));
  expect(firstLines).toHaveLength(words.length);
  expect(new Set(firstLines).size).toBeGreaterThan(3);
  expect(firstLines.filter((line, i) => !line?.split(" ").includes(words[i]!))).toEqual([]);
});

test("anchors at a paragraph's end, behind blanks of their own and before signs are proven on the lines where they are", async () => {
  const long =
    "The oldest of the causeways leaves the mainland below the head and reaches an island after two kilometres, most " +
    "of it on dressed stone";
  // Of forty lengths some end a line right before the anchor.
  const at = Array.from({ length: 40 }, (_, i) => i);
  const book = bookWith([
    chapter(
      "c",
      "Words",
      ...at.flatMap((i) => [
        text(`${long}${"i".repeat(i)}`, anchor(`end${i}`)),
        text(
          `${long} ${"i".repeat(30 + 2 * i)} `,
          anchor(`one${i}`),
          " ",
          anchor(`two${i}`),
          "Huts stand there.",
        ),
        text(`${long} ${"i".repeat(30 + 2 * i)} `, anchor(`sign${i}`), "(Huts stand there.)"),
        text(`${long} ${"i".repeat(30 + 2 * i)}`, anchor(`number${i}`), `${i} Huts stand there.`),
        ...["end", "one", "two", "sign", "number"].map((kind) =>
          text(linkTo(`${kind}-${i}`, `${kind}${i}`, `to ${kind} ${i}`)),
        ),
      ]),
    ),
  ]);
  const { rows, intact, total } = prove(book, await readPdf(new Typesetter().write(book, true).pdf));
  expect(rows.filter(({ verdict }) => verdict !== "intact").map(({ note }) => note)).toEqual([]);
  expect([intact, total]).toEqual([200, 200]);
});

test("after a line's end, in a caption, and in a heading of its own link", async () => {
  const lineEnd = (): ReturnType<typeof text> => schema.node("hard_break");
  const office = schema.text("office", [
    schema.mark("link", { id: "w", destination: { kind: "web", address: "https://tides.example/" } }),
  ]);
  const book = bookWith([
    chapter(
      "c",
      "Words",
      text("First line", lineEnd(), anchor("broken"), "second words"),
      text("To the ", anchor("linked"), office, "."),
      table("x"),
      caption("cap", "table", "Caption line", lineEnd(), anchor("captioned"), "caption words"),
      heading("head", 1, "A heading with ", anchor("headed"), "an anchor"),
      text(
        "Below it, see page ",
        schema.node("cross_reference", { id: "r", target: "headed", form: "page" }),
      ),
      ...["broken", "linked", "captioned", "headed"].map((to) => text(linkTo(`to-${to}`, to, `to ${to}`))),
    ),
  ]);
  const { links, pageOfPlace } = await readPdf(new Typesetter().write(book, true).pdf);
  const landings = new Map(
    links.map(({ destination }) =>
      destination.kind === "place" ? [destination.target, destination.landing?.split("\n")[0]] : ["", ""],
    ),
  );
  expect(landings.get("broken")).toBe("second words");
  expect(landings.get("linked")).toBe("To the office.");
  expect(landings.get("captioned")).toBe("caption words");
  // No place can be set inside a heading that the contents list repeats; it leads to the heading.
  expect(landings.get("headed")).toBe("A heading with an anchor");
  expect(pageOfPlace.get("headed")).toBe(pageOfPlace.get("head"));
});

test("a note in a heading is set with the heading, and not once more in the contents list", async () => {
  const book = bookWith([
    chapter(
      "c",
      "Words",
      heading("h", 1, "A heading", noteMark("n"), " with a note", noteMark("n")),
      text("Again", noteMark("n"), " and ", linkTo("l", "n", "to the note")),
      note("n", "Said once."),
    ),
  ]);
  const reading = await readPdf(new Typesetter().write(book, true).pdf);
  const proof = compareLinks(manuscriptLinks(book, reading), reading);
  expect(proof).toMatchObject({ complete: true, intact: 1, total: 1 });
  const path = kept("note-in-heading.pdf", Buffer.from(new Typesetter().write(book, true).pdf));
  const { output } = await tool("pdftotext", "-raw", path, "-");
  expect(output.match(/Said once\./g)).toHaveLength(1);
});
