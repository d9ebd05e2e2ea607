import { describe, expect, test } from "@jest/globals";
import { bring } from "../../test/brought.ts";

const read = (text: string) => bring(new TextEncoder().encode(text));

describe("what stands before a text in Markdown", () => {
  test("gives its title, authors and language, and is no part of it; lines keep their numbers", async () => {
    const { title, author, language, chapters, arrival } = await read(
      "---\ntitle: The Sound\nauthor:\n  - name: Pell\n  - Orla\nlang: de-AT\n---\n\n# Sands\n\n[x](javascript:1)\n",
    );
    expect([title, author, language]).toEqual(["The Sound", "Pell, Orla", "de-AT"]);
    expect(chapters.map((doc) => doc.textContent)).toEqual(["Sandsx"]);
    expect(arrival!.links[0]).toMatchObject({ where: "line 11", verdict: "left-out" });
  });

  test("is words where it says nothing", async () => {
    expect((await read("---\n\nOnly a line\n\n---\n\nabove")).chapters[0]!.textContent).toContain(
      "Only a line",
    );
    expect((await read("---\n: [\n---\n\nx")).chapters[0]!.textContent).toContain("x");
  });
});

test("headings have the ids that are written behind them", async () => {
  const { chapters, arrival } = await read(
    "# One {#first}\n\n[a](#first) [b](#low)\n\n## Low water {#low .wide}\n",
  );
  expect(chapters[0]!.textContent).toBe("Onea bLow water");
  expect(arrival!.counts).toMatchObject({ intact: 2, changed: 0 });
});

test.each<[string, Uint8Array, string | null]>([
  ["UTF-16 with its mark", Uint8Array.from([0xff, 0xfe, ...Buffer.from("# Fährte", "utf16le")]), null],
  ["UTF-16 without", Uint8Array.from(Buffer.from("# Fährte und Weg", "utf16le")), "UTF-16"],
  ["Latin-1", Uint8Array.from(Buffer.from("# Fährte", "latin1")), "Latin-1 (Windows-1252)"],
])("a text in %s is read as what it is", async (_, bytes, guessed) => {
  const { title, leftOut } = await bring(bytes);
  expect(title).toMatch(/^Fährte/);
  expect(leftOut.map(({ what }) => what).join()).toEqual(
    guessed === null ? "" : expect.stringContaining(guessed),
  );
});
