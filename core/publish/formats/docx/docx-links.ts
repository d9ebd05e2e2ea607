import { Bookmark, InternalHyperlink, TextRun, type IRunOptions, type ParagraphChild } from "docx";
import type { Destination } from "../../../destination/kinds/kinds.ts";
import type { LinkAttrs } from "../../../manuscript/attributes.ts";
import type { BookIndex } from "../../../manuscript/book-index.ts";
import type { Book } from "../../../manuscript/book.ts";
import { travel } from "../../travel.ts";
import { travellingFiles, type TravellingFile } from "../../travelling-files.ts";
import type { DocxLink } from "./finish-docx.ts";

/** Underlines by their names in a text document (ECMA-376, ST_Underline). */
const lines = { solid: "single", dotted: "dotted", dashed: "dash" } as const;

/** The links of a text document that is written, and the bookmarks that they lead to. */
export class DocxLinks {
  /** What finishing the document puts in the place of each marker. */
  readonly written: DocxLink[] = [];
  private readonly files: ReadonlyMap<string, TravellingFile>;
  private readonly placed = new Set<string>();

  constructor(
    private readonly book: Book,
    private readonly index: BookIndex,
  ) {
    this.files = travellingFiles(book);
  }

  /** Where a link leads in the document; null where it stays words. */
  target(destination: Destination): DocxLink["to"] | null {
    const way = travel(destination, this.index, this.files);
    if (way.kind === "words") return null;
    if (way.kind === "place") return { place: way.place.id };
    return { address: way.kind === "file" ? way.file.path : way.address };
  }

  /** The name of a file that cannot be its name in a path; null for any other destination. */
  renamed(destination: Destination): string | null {
    const file = this.files.get("file" in destination ? destination.file : "");
    return file === undefined || file.path.endsWith(`/${file.name}`) ? null : file.name;
  }

  /** How the words of a link look. */
  look({ asText, look, destination }: LinkAttrs): IRunOptions {
    if (asText) return {};
    const { colour, underline, bold } = look ?? this.book.looks[destination.kind];
    return {
      color: colour.replace("#", ""),
      ...(underline === "none" ? {} : { underline: { type: lines[underline] } }),
      ...(bold ? { bold } : {}),
    };
  }

  /** A link whose anchor is a marker, in the place of which finishing puts where it leads. */
  link(to: DocxLink["to"], description: string | null, children: ParagraphChild[]): ParagraphChild {
    const marker = `vennet-link-${this.written.length}`;
    this.written.push({ marker, to, description });
    return new InternalHyperlink({ anchor: marker, children });
  }

  /** A link that the document makes by itself. */
  jump(place: string, words: string): ParagraphChild {
    return this.link({ place }, null, [linkedWords(words)]);
  }

  /** The bookmark of a place, where it first comes. */
  place(id: string): ParagraphChild[] {
    if (this.placed.has(id)) return [];
    this.placed.add(id);
    return [new Bookmark({ id, children: [] })];
  }
}

/** Words in the look that text documents give to links. */
export function linkedWords(text: string): TextRun {
  return new TextRun({ text, style: "Hyperlink" });
}
