import type { Root } from "hast";
import { raw } from "hast-util-raw";
import { toHast } from "mdast-util-to-hast";
import { VFile } from "vfile";
import { tooDeep } from "../errors.ts";
import { withoutOthersNames } from "../hast-to-manuscript/carried.ts";
import type { LeftOut } from "../left-out.ts";
import type { ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";
import { linksOfMarkdown } from "./second-reading.ts";
import { linksWithinItself, withinItself } from "../own-name.ts";
import { decodeText } from "../text-encoding.ts";
import { withoutAttributeLists } from "./attribute-lists.ts";
import { withoutContentsMarks } from "./contents-marks.ts";
import { definitionsOfLines } from "./definitions.ts";
import { frontMatter } from "./front-matter.ts";
import { idsBehindHeadings } from "./heading-ids.ts";
import { lineOfManyTags, lineTooDeep } from "./nest-depth.ts";
import { treeOfMarkdown } from "./tree-of-markdown.ts";

/** Markdown: CommonMark 0.31, GFM tables, footnotes and autolinks, HTML inside it; and plain text, which is Markdown too. */
export const markdown: ManuscriptReader = {
  // Any text may be Markdown.
  accepts: ({ bytes }) => decodeText(bytes) !== null,
  read: ({ name, bytes }) => {
    const { text, guessed } = decodeText(bytes)!;
    const read = readMarkdownText(text);
    linksWithinItself(read.tree, name);
    return guessed === null ? read : { ...read, leftOut: [toldGuess(guessed), ...read.leftOut] };
  },
  linksOf: ({ name, bytes }) => linksOfMarkdown(decodeText(bytes)!.text, withinItself(name)),
};

function toldGuess(encoding: string): LeftOut {
  return {
    where: null,
    sort: "The encoding of the text",
    what: `The file does not say in which encoding it is, and was read in ${encoding}.`,
    why: "If letters with accents look wrong, save it in UTF-8 and bring it again.",
  };
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

function readTree(given: string): ReadManuscript {
  const { about, text } = frontMatter(given);
  const tree = raw(
    toHast(treeOfMarkdown(text), {
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
  withoutOthersNames(tree, Boolean(about?.conventions));
  // Exports of ours have neither, and words that look like one are an author's.
  if (!about?.conventions) {
    withoutAttributeLists(tree);
    withoutContentsMarks(tree);
  }
  idsBehindHeadings(tree);
  definitionsOfLines(tree);
  const whereOf: ReadManuscript["whereOf"] = ({ position }) =>
    position ? `line ${position.start.line}` : null;
  return { tree, ...(about ? { about } : {}), pictures: [], companions: [], leftOut: [], whereOf };
}
