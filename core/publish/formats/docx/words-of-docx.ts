import { Tab, TextRun, type IParagraphOptions, type IRunOptions, type ParagraphChild } from "docx";
import type { Node } from "prosemirror-model";
import { languageOf } from "../../../manuscript/language.ts";
import { ofWordMarks, type ByWordMark } from "../../../manuscript/word-marks.ts";

/** How listings look. */
export const listing: IRunOptions = { font: "Courier New" };

const runOptions: ByWordMark<IRunOptions> = {
  strong: { bold: true },
  emphasis: { italics: true },
  code: { ...listing, style: "HTMLCode" },
  superscript: { superScript: true },
  subscript: { subScript: true },
  strike: { strike: true },
  underline: { underline: {} },
  small_caps: { smallCaps: true },
};

/**
 * Text in its marks; a line of code that ends is a line break. The library takes some words among children, as “SECTION”,
 * for numbers that it is to put there; those of `text` stay words.
 */
export function textRuns(node: Node, look: IRunOptions): ParagraphChild[] {
  const shown = ofWordMarks(node, runOptions).reduce((all, one) => ({ ...all, ...one }), look);
  const style: IRunOptions = { ...shown, ...languageOptions(languageOf(node)) };
  return node.text!.split("\n").flatMap((line, i) =>
    line.split(/(\t)/).map((part, at) => {
      const shows: IRunOptions = part === "\t" ? { children: [new Tab()] } : { text: part };
      return new TextRun({ ...style, ...shows, ...(i > 0 && at === 0 ? { break: 1 } : {}) });
    }),
  );
}

/** A language for letters of all sorts: a program takes that of the letters' own sort (ECMA-376-1, 17.3.2.20). */
export function languageOptions(tag: string | null): IRunOptions {
  return tag === null ? {} : { language: { value: tag, eastAsia: tag, bidirectional: tag } };
}

/** How the paragraphs of a cell are aligned. */
export function alignedAs(cell: Node): IParagraphOptions {
  const align = cell.attrs["align"] as "left" | "center" | "right" | null;
  return align === null ? {} : { alignment: align };
}
