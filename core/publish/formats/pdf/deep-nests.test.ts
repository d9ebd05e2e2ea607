import { describe, expect, test } from "@jest/globals";
import { bookOf } from "../../../test/sample-book.ts";
import { breakable } from "./breakable.ts";
import { withoutDeepNests } from "./deep-nests.ts";
import { longWordsOf } from "./long-words.ts";
import type { SetBlock } from "./set-data.ts";

const paragraph = (words: string): SetBlock => ({ kind: "paragraph", content: [{ kind: "text", words }] });
const lists = (depth: number): SetBlock =>
  depth === 0 ? paragraph("end") : { kind: "bullets", items: [[paragraph(`at ${depth}`), lists(depth - 1)]] };

function depthOf(blocks: readonly SetBlock[]): number {
  return Math.max(
    0,
    ...blocks.map((block) =>
      block.kind === "bullets" || block.kind === "numbers"
        ? 1 + Math.max(...block.items.map(depthOf))
        : block.kind === "quote"
          ? 1 + depthOf(block.content)
          : 0,
    ),
  );
}

describe("lists, quotes and tables within each other", () => {
  test("are set as what they are down to a depth, and behind each other with all of their words below it", () => {
    const set = withoutDeepNests([lists(40)]);
    expect(depthOf(set)).toBe(8);
    const json = JSON.stringify(set);
    for (let i = 1; i <= 40; i++) expect(json).toContain(`"at ${i}"`);
    expect(json).toContain('"end"');
    expect(json.match(/"kind":"deep"/g)).toHaveLength(33);
  });
  test("stay as they are where nothing is deep", () => {
    const blocks: SetBlock[] = [
      lists(8),
      { kind: "quote", look: "quotation", content: [paragraph("q")] },
      paragraph("p"),
    ];
    expect(withoutDeepNests(blocks)).toEqual(blocks);
  });
  test("are found in what only holds them, deep as that lies", () => {
    const caption = { kind: "caption" as const, lead: "Table 1", content: [] };
    const captioned: SetBlock = { kind: "captioned", body: [lists(30)], caption, first: true };
    const set = withoutDeepNests([{ kind: "bullets", items: [[captioned]] }], 7);
    const json = JSON.stringify(set);
    expect(json).toContain('"Table 1"');
    expect(json).toContain('"at 30"');
    expect(json.match(/"kind":"bullets"/g)).toHaveLength(1);
  });
  test("keep the numbers of their items", () => {
    const deep: SetBlock = { kind: "numbers", start: 7, items: [[paragraph("a")], [paragraph("b")]] };
    expect(withoutDeepNests([deep], 8).map((block) => (block as { marker: string }).marker)).toEqual([
      "7.",
      "8.",
    ]);
  });
});

describe("endless words", () => {
  test("may be broken, within no letter, and other words may not", () => {
    expect(breakable("low water")).toEqual(["low water"]);
    expect(breakable("Wattwanderwegsicherungsgesellschaft")).toHaveLength(1);
    const parts = breakable("é".repeat(100));
    expect(parts.join("")).toBe("é".repeat(100));
    expect(parts.length).toBe(5);
    for (const part of parts) expect(part.startsWith("\u0301")).toBe(false);
    // Written without blanks, and broken by the typesetter itself.
    expect(breakable("潮".repeat(100))).toHaveLength(1);
  });
  test("of thousands of letters are told with their first ones", () => {
    const { doc } = bookOf(`# T\n\nLow ${"w".repeat(6_000)} water ${"潮".repeat(9_000)}\n`).chapters[0]!;
    const [word, ...others] = longWordsOf(doc);
    expect(word!.told).toMatch(/^“w{30}…” is a word of 6,000 letters/);
    expect(doc.textBetween(word!.from, word!.to)).toBe("w".repeat(6_000));
    expect(others).toEqual([]);
  });
});
