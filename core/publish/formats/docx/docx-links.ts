import { Bookmark, InternalHyperlink, TextRun, type IRunOptions, type ParagraphChild } from "docx";
import type { LinkAttrs } from "../../../manuscript/attributes.ts";
import { TextDocumentLinks, type DocumentTarget } from "../text-document-links.ts";
import type { DocxLink } from "./finish-docx.ts";

/** Underlines by their names in a text document (ECMA-376, ST_Underline). */
const lines = { solid: "single", dotted: "dotted", dashed: "dash" } as const;

/** The links of a text document that is written, and the bookmarks that they lead to. */
export class DocxLinks extends TextDocumentLinks {
  /** What finishing the document puts in the place of each marker. */
  readonly written: DocxLink[] = [];

  /** How the words of a link look. */
  look(link: LinkAttrs): IRunOptions {
    const look = this.lookOf(link);
    if (look === null) return {};
    const { colour, underline, bold } = look;
    return {
      color: colour.replace("#", ""),
      ...(underline === "none" ? {} : { underline: { type: lines[underline] } }),
      ...(bold ? { bold } : {}),
    };
  }

  /** A link whose anchor is a marker, in the place of which finishing puts where it leads. */
  link(to: DocumentTarget, description: string | null, children: ParagraphChild[]): ParagraphChild {
    const marker = `vennet-link-${this.written.length}`;
    this.written.push({ marker, to: "file" in to ? { address: to.file } : to, description });
    return new InternalHyperlink({ anchor: marker, children: children.flatMap(unrolled) });
  }

  /** A link that the document makes by itself. */
  jump(place: string, words: string): ParagraphChild {
    return this.link({ place }, null, [linkedWords(words)]);
  }

  /** The bookmark of a place, where it first comes. */
  place(id: string): ParagraphChild[] {
    return this.isFirst(id) ? [new Bookmark({ id, children: [] })] : [];
  }
}

/** A bookmark is two signs around what it marks; the library writes it so in a paragraph, and not in a link. */
function unrolled(child: ParagraphChild): ParagraphChild[] {
  return child instanceof Bookmark
    ? ([child.start, ...child.children, child.end] as ParagraphChild[])
    : [child];
}

/** Words in the look that text documents give to links. */
export function linkedWords(text: string): TextRun {
  return new TextRun({ text, style: "Hyperlink" });
}
