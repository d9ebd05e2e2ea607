import type { Root } from "hast";
import { raw } from "hast-util-raw";
import { fromMarkdown } from "mdast-util-from-markdown";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { toHast } from "mdast-util-to-hast";
import { gfm } from "micromark-extension-gfm";
import { VFile } from "vfile";
import { tooDeep } from "../errors.ts";
import type { ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";
import { linksOfMarkdown } from "./second-reading.ts";
import { lineOfManyTags, lineTooDeep } from "./nest-depth.ts";

/** Markdown: CommonMark 0.31, GFM tables, footnotes and autolinks, HTML inside it. */
export const markdown: ManuscriptReader = {
  // Any text may be Markdown; what has other bytes than text has is none.
  accepts: ({ bytes }) => {
    const text = decode(bytes);
    return text !== null && !text.includes("\0");
  },
  read: ({ bytes }) => readMarkdownText(decode(bytes)!),
  linksOf: ({ bytes }) => linksOfMarkdown(decode(bytes)!),
};

function decode(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

/**
 * The tree of a text in Markdown.
 * @throws ImportError `too-deep` with the line, where lists and quotes lie too deep in each other
 */
export function readMarkdownText(text: string): ReadManuscript {
  const line = lineTooDeep(text);
  if (line !== null) throw tooDeep(`line ${line}`);
  try {
    return readTree(text);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    const html = lineOfManyTags(text);
    throw tooDeep(html === null ? null : `line ${html}`);
  }
}

function readTree(text: string): ReadManuscript {
  const mdast = fromMarkdown(text, { extensions: [gfm()], mdastExtensions: [gfmFromMarkdown()] });
  const tree = raw(
    toHast(mdast, {
      allowDangerousHtml: true,
      handlers: {
        // Notes are kept as notes, not as the list of links that toHast would make of them.
        footnoteReference: (_state, node: { identifier: string }) => ({
          type: "element",
          tagName: "note-reference",
          properties: { dataNote: node.identifier },
          children: [],
        }),
        footnoteDefinition: (state, node) => ({
          type: "element",
          tagName: "note-body",
          properties: { dataNote: (node as { identifier: string }).identifier },
          children: state.all(node as Parameters<typeof state.all>[0]),
        }),
      },
    }) as Root,
    // With the file at hand, raw keeps the lines on which things stand.
    { file: new VFile(text) },
  ) as Root;
  const whereOf: ReadManuscript["whereOf"] = ({ position }) =>
    position ? `line ${position.start.line}` : null;
  return { tree, pictures: [], companions: [], leftOut: [], whereOf };
}
