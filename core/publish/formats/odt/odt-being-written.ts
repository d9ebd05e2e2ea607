import { strToU8 } from "fflate";
import type { PictureAttrs } from "../../../manuscript/attributes.ts";
import type { BookIndex } from "../../../manuscript/book-index.ts";
import { pictureSuffix, type Book, type PictureFile } from "../../../manuscript/book.ts";
import { wordsOfMath, type MathElement } from "../../../manuscript/math.ts";
import type { Said } from "../../said-for-coming-back.ts";
import { escapeXml } from "../../xhtml/escape-xml.ts";
import { mathXhtml } from "../../xhtml/math-xhtml.ts";
import { sizeOnPage } from "../picture-on-page.ts";
import { SaidByTags } from "../said-by-tags.ts";
import { TextDocumentLinks } from "../text-document-links.ts";
import { OdtStylesInUse } from "./odt-styles.ts";

/** Pixels of the web in a centimetre. */
const pixelsInCm = 96 / 2.54;

/** What the chapters of a document that is written share. */
export class OdtBeingWritten {
  readonly links: TextDocumentLinks;
  readonly styles = new OdtStylesInUse();
  readonly said = new SaidByTags();
  private readonly pictures: ReadonlyMap<string, PictureFile>;
  private readonly formulas: string[] = [];
  /** The numbers of the notes that have been referred to, by their ids. */
  private readonly noted = new Map<string, number>();
  private wrapped = 0;

  constructor(
    private readonly book: Book,
    index: BookIndex,
    pictures: readonly PictureFile[],
  ) {
    this.links = new TextDocumentLinks(book, index);
    this.pictures = new Map(pictures.map((picture) => [picture.id, picture]));
  }

  /** Blocks that are something for coming back, in a section (part 3, 5.4); names of sections are each there once. */
  section(said: Said, blocks: readonly string[]): string {
    const name = `${this.said.tagOf(said)}-${++this.wrapped}`;
    return `<text:section text:style-name="Section" text:name="${name}">${blocks.join("")}</text:section>`;
  }

  /** Words that are something for coming back (part 3, 6.1.9, text:meta). */
  meta(said: Said, words: string): string {
    return `<text:meta xml:id="${this.said.tagOf(said)}-${++this.wrapped}">${words}</text:meta>`;
  }

  /** The bookmark of a place, where it first comes. */
  place(id: string): string {
    return this.links.isFirst(id) ? `<text:bookmark text:name="${id}"/>` : "";
  }

  noteNumber(id: string): { number: number; isFirst: boolean } {
    const known = this.noted.get(id);
    const number = known ?? this.noted.size + 1;
    this.noted.set(id, number);
    return { number, isFirst: known === undefined };
  }

  /** A picture as wide as its author wants it; null where it did not come along. */
  picture({ file: id, width: share, alt, decorative }: PictureAttrs): string | null {
    const file = id === null ? undefined : this.pictures.get(id);
    if (!file) return null;
    const { width, height } = sizeOnPage(file, share, this.book.layout);
    const said = decorative ? "" : `<svg:desc>${escapeXml(alt)}</svg:desc>`;
    const image = `<draw:image xlink:href="${pathOf(file)}" xlink:type="simple" xlink:show="embed" xlink:actuate="onLoad"/>`;
    return `<draw:frame text:anchor-type="as-char" svg:width="${inCm(width)}" svg:height="${inCm(height)}">${image}${said}</draw:frame>`;
  }

  /** A formula as an object of the document (part 3, 14.5); its size is found by who draws it. */
  formula(math: MathElement, display: boolean): string {
    this.formulas.push(mathXhtml(math, display));
    const object = `<draw:object xlink:href="./Object ${this.formulas.length}" xlink:type="simple" xlink:show="embed" xlink:actuate="onLoad"/>`;
    return `<draw:frame text:anchor-type="as-char">${object}<svg:desc>${escapeXml(wordsOfMath(math))}</svg:desc></draw:frame>`;
  }

  /** The files of pictures and formulas, with their types. */
  files(): [path: string, type: string, bytes: Uint8Array][] {
    const none = new Uint8Array();
    return [
      ...[...this.pictures.values()].map((file): [string, string, Uint8Array] => [
        pathOf(file),
        file.mediaType,
        file.bytes,
      ]),
      ...this.formulas.flatMap((math, i): [string, string, Uint8Array][] => [
        [`Object ${i + 1}/`, "application/vnd.oasis.opendocument.formula", none],
        [
          `Object ${i + 1}/content.xml`,
          "text/xml",
          strToU8(`<?xml version="1.0" encoding="UTF-8"?>\n${math}`),
        ],
      ]),
    ];
  }
}

function pathOf({ id, mediaType }: PictureFile): string {
  return `Pictures/${id}.${pictureSuffix[mediaType]}`;
}

function inCm(pixels: number): string {
  return `${Math.max(0.1, pixels / pixelsInCm).toFixed(3)}cm`;
}
