import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRef,
  type PDFDocument,
  type PDFObject,
} from "@cantoo/pdf-lib";
import { dictionaryAt, dictionaryIn, entry, textIn } from "./open-pdf.ts";

/** Where a destination of a PDF leads: a page, from 1, and a spot of it where it says one. */
export interface Landing {
  page: number;
  x: number | null;
  y: number | null;
}

/** How a destination says what of its page is shown (ISO 32000-1, table 151); one that does not say so is none. */
const kinds = new Set(["XYZ", "Fit", "FitH", "FitV", "FitR", "FitB", "FitBH", "FitBV"]);

/** The destinations of a PDF (ISO 32000-1, 12.3.2), and where they lead. */
export class Destinations {
  private readonly pages: ReadonlyMap<string, number>;
  private readonly named = new Map<string, PDFObject>();
  private readonly count: number;

  constructor(private readonly document: PDFDocument) {
    const pages = document.getPages();
    this.count = pages.length;
    this.pages = new Map(pages.map(({ ref }, i) => [ref.toString(), i + 1]));
    const old = dictionaryIn(document.catalog, "Dests");
    for (const [name, value] of old?.entries() ?? []) this.named.set(name.decodeText(), value);
    this.readTree(dictionaryIn(dictionaryIn(document.catalog, "Names"), "Dests"), new Set());
  }

  /** The name that a destination is, where it is one that the file knows; null for any other. */
  nameOf(value: PDFObject | undefined): string | null {
    const name = value instanceof PDFName ? value.decodeText() : textIn(value);
    return name !== null && this.named.has(name) ? name : null;
  }

  /** Where a name leads; null where that is nowhere in the file. */
  landingOfName(name: string): Landing | null {
    return this.landing(this.named.get(name));
  }

  /** The names that lead somewhere. */
  names(): string[] {
    return [...this.named].flatMap(([name, value]) => (this.landing(value) ? [name] : []));
  }

  /** Where a destination leads; null where that is nowhere in the file. */
  landing(value: PDFObject | undefined): Landing | null {
    const name = this.nameOf(value);
    let explicit = name === null ? value : this.named.get(name);
    if (explicit instanceof PDFRef) explicit = this.document.context.lookup(explicit);
    if (explicit instanceof PDFDict) explicit = entry(explicit, "D");
    if (!(explicit instanceof PDFArray)) return null;
    return this.landingOf(explicit);
  }

  private landingOf(array: PDFArray): Landing | null {
    const [target, how] = array.asArray();
    const kind = how instanceof PDFName ? how.decodeText() : "";
    if (!kinds.has(kind)) return null;
    const page =
      target instanceof PDFRef
        ? this.pages.get(target.toString())
        : target instanceof PDFNumber
          ? target.asNumber() + 1
          : undefined;
    if (page === undefined || page < 1 || page > this.count) return null;
    const at = (i: number): number | null => {
      const value = i + 2 < array.size() ? array.lookup(i + 2) : undefined;
      return value instanceof PDFNumber ? value.asNumber() : null;
    };
    switch (kind) {
      case "XYZ":
        return { page, x: at(0), y: at(1) };
      case "FitH":
      case "FitBH":
        return { page, x: null, y: at(0) };
      case "FitR":
        return { page, x: at(0), y: at(3) };
      default:
        return { page, x: null, y: null };
    }
  }

  /** Reads a tree of names (7.9.6). */
  private readTree(node: PDFDict | undefined, seen: Set<PDFDict>): void {
    if (!node || seen.has(node)) return;
    seen.add(node);
    const names = entry(node, "Names");
    if (names instanceof PDFArray)
      for (let i = 0; i + 1 < names.size(); i += 2) {
        const name = textIn(names.lookup(i));
        const value = names.lookup(i + 1);
        if (name !== null && value) this.named.set(name, value);
      }
    const kids = entry(node, "Kids");
    if (kids instanceof PDFArray)
      for (let i = 0; i < kids.size(); i++) this.readTree(dictionaryAt(kids, i), seen);
  }
}
