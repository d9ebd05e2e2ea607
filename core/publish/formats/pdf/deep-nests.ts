import type { SetBlock } from "./set-data.ts";

/** The typesetter sets so many lists, quotes and tables within each other as what they are: its work doubles with each more. */
const deepest = 8;
/** Further ones are shown by their indentation, up to so many steps: then the page has no width left. */
const mostSteps = 6;

/**
 * Blocks in which nothing lies deeper than the typesetter can bear: what does is set behind each other, item by item,
 * with its marker and a deeper indentation. Nothing is left out of them.
 * @param depth how deep the blocks lie themselves
 */
export function withoutDeepNests(blocks: readonly SetBlock[], depth = 0): SetBlock[] {
  return blocks.flatMap((block): SetBlock[] => {
    if (isNest(block) && depth >= deepest) return laidOut(block, depth, null);
    const inner = (content: readonly SetBlock[]): SetBlock[] => withoutDeepNests(content, depth + 1);
    switch (block.kind) {
      case "quote":
        return [{ ...block, content: inner(block.content) }];
      case "bullets":
      case "numbers":
        return [{ ...block, items: block.items.map(inner) }];
      case "definitions":
        return [
          {
            ...block,
            entries: block.entries.map(({ term, meaning }) => ({ term, meaning: inner(meaning) })),
          },
        ];
      case "table": {
        const cells = (rows: typeof block.rows): typeof block.rows =>
          rows.map((row) => row.map((cell) => ({ ...cell, content: inner(cell.content) })));
        return [{ ...block, head: cells(block.head), rows: cells(block.rows) }];
      }
      case "captioned":
        return [{ ...block, body: withoutDeepNests(block.body, depth) }];
      case "notes":
        return [{ ...block, notes: block.notes.map((note) => ({ ...note, content: inner(note.content) })) }];
      default:
        return [block];
    }
  });
}

type Nest = Extract<SetBlock, { kind: "quote" | "bullets" | "numbers" | "definitions" | "table" }>;

function isNest({ kind }: SetBlock): boolean {
  return ["quote", "bullets", "numbers", "definitions", "table"].includes(kind);
}

/** A block as a row of such as hold no other; the marker is that of the item that it begins. */
function laidOut(block: SetBlock, depth: number, marker: string | null): SetBlock[] {
  const step = Math.min(depth - deepest, mostSteps);
  // What holds others without being one of them, such as a table with its caption, may hold deep ones.
  if (!isNest(block)) return [{ kind: "deep", step, marker, content: withoutDeepNests([block], depth) }];
  const inner = (content: readonly SetBlock[], first: string | null): SetBlock[] =>
    content.flatMap((one, i) => laidOut(one, depth + 1, i === 0 ? first : null));
  const rows = (nest: Nest): SetBlock[] => {
    switch (nest.kind) {
      case "quote":
        return inner(nest.content, null);
      case "bullets":
        return nest.items.flatMap((item) => inner(item, nest.marked ? null : "•"));
      case "numbers":
        return nest.items.flatMap((item, i) => inner(item, `${nest.start + i}.`));
      case "definitions":
        return nest.entries.flatMap(({ term, meaning }) =>
          inner(
            [...(term.length > 0 ? [{ kind: "paragraph", content: term } as const] : []), ...meaning],
            null,
          ),
        );
      case "table":
        return [...nest.head, ...nest.rows].flat().flatMap(({ content }) => inner(content, null));
    }
  };
  return rows(block as Nest);
}
