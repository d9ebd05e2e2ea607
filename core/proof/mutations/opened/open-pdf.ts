import { PdfObjects } from "../../../pdf/pdf-objects.ts";
import { nameOf, PdfName, PdfRef, PdfString, type PdfDict, type PdfValue } from "../../../pdf/pdf-values.ts";
import { OpenContainer } from "./open-container.ts";

export interface OpenPage {
  ref: PdfRef;
  dictionary: PdfDict;
}

export interface OpenAnnotation {
  page: OpenPage;
  ref: PdfRef;
  dictionary: PdfDict;
}

/** A node of the structure tree (ISO 32000, 14.7.2). */
export interface OpenElement {
  ref: PdfRef;
  dictionary: PdfDict;
  parent: OpenElement | null;
  role: string;
}

/** An exported PDF whose objects can be damaged. */
export class OpenPdf {
  readonly objects: PdfObjects;
  private readonly container: OpenContainer;
  private readonly path: string;

  constructor(bytes: Uint8Array) {
    this.container = new OpenContainer(bytes);
    this.path = this.container.pathOf(/^[^/]*\.pdf$/)!;
    this.objects = new PdfObjects(this.container.files.get(this.path)!);
  }

  /** The files beside it. */
  get beside(): OpenContainer {
    return this.container;
  }

  get catalog(): OpenPage {
    const ref = this.objects.trailer.get("Root") as PdfRef;
    return { ref, dictionary: this.objects.dictionary(ref) };
  }

  pages(ref = this.catalog.dictionary.get("Pages") as PdfRef): OpenPage[] {
    const dictionary = this.objects.dictionary(ref);
    const kids = this.objects.read(dictionary.get("Kids"));
    return Array.isArray(kids) ? kids.flatMap((kid) => this.pages(kid as PdfRef)) : [{ ref, dictionary }];
  }

  /** All link annotations, in the order of pages. */
  links(): OpenAnnotation[] {
    return this.pages().flatMap((page) =>
      this.annotationsOf(page)
        .map((ref) => ({ page, ref, dictionary: this.objects.dictionary(ref) }))
        .filter(({ dictionary }) => nameOf(dictionary.get("Subtype")) === "Link"),
    );
  }

  /** Links to addresses, and links into the book. */
  outward(): OpenAnnotation[] {
    return this.links().filter(({ dictionary }) => this.uri(dictionary) !== null);
  }

  inward(): OpenAnnotation[] {
    return this.links().filter(
      ({ dictionary }) => this.objects.read(dictionary.get("Dest")) instanceof PdfString,
    );
  }

  /** The address to which an annotation leads. */
  uri(dictionary: PdfDict): string | null {
    const action = this.objects.read(dictionary.get("A"));
    const uri = action instanceof Map ? this.objects.read(action.get("URI")) : null;
    return uri instanceof PdfString ? uri.bytes : null;
  }

  /** The place or address to which an annotation leads, in a word to compare. */
  leadsTo(dictionary: PdfDict): string {
    const place = this.objects.read(dictionary.get("Dest"));
    return place instanceof PdfString ? place.bytes : (this.uri(dictionary) ?? JSON.stringify(place));
  }

  annotationsOf({ dictionary }: OpenPage): PdfRef[] {
    return (this.objects.read(dictionary.get("Annots")) ?? []) as PdfRef[];
  }

  /** Changes a page's list of annotations. */
  setAnnotations(page: OpenPage, list: PdfValue[]): void {
    this.objects.change(page.ref, page.dictionary.set("Annots", list));
  }

  /** Lays an annotation of some kind over another. */
  layOver({ page, dictionary }: OpenAnnotation, subtype: string, more: [string, PdfValue][] = []): void {
    const over = this.objects.add(
      new Map<string, PdfValue>([
        ["Type", new PdfName("Annot")],
        ["Subtype", new PdfName(subtype)],
        ["Rect", dictionary.get("Rect")!],
        ["F", 4],
        ...more,
      ]),
    );
    this.setAnnotations(page, [...this.annotationsOf(page), over]);
  }

  /** Sets an entry of an annotation. */
  set({ ref, dictionary }: { ref: PdfRef; dictionary: PdfDict }, key: string, value: PdfValue): void {
    this.objects.change(ref, new Map(dictionary).set(key, value));
  }

  unset({ ref, dictionary }: { ref: PdfRef; dictionary: PdfDict }, key: string): void {
    const without = new Map(dictionary);
    without.delete(key);
    this.objects.change(ref, without);
  }

  /** Paints something under and over what a page shows. */
  paint({ dictionary }: OpenPage, before: string, after: string): void {
    const content = dictionary.get("Contents") as PdfRef;
    this.objects.changeStream(content, `${before}\n${this.objects.stream(content)}\n${after}`);
  }

  /** The node of the page tree under which a page stands (7.7.3). */
  parentOf({ dictionary }: OpenPage): OpenPage {
    const ref = dictionary.get("Parent") as PdfRef;
    return { ref, dictionary: this.objects.dictionary(ref) };
  }

  kidsOf({ dictionary }: OpenPage): PdfRef[] {
    return this.objects.read(dictionary.get("Kids")) as PdfRef[];
  }

  setKids(parent: OpenPage, kids: PdfRef[]): void {
    const pages = this.pages().length + kids.length - this.kidsOf(parent).length;
    this.set(parent, "Kids", kids);
    this.set({ ...parent, dictionary: this.objects.dictionary(parent.ref) }, "Count", pages);
  }

  /** Elements of the structure tree, in the order of reading. */
  elements(): OpenElement[] {
    const root = this.catalog.dictionary.get("StructTreeRoot") as PdfRef;
    const found: OpenElement[] = [];
    const walk = (ref: PdfRef, parent: OpenElement | null): void => {
      const dictionary = this.objects.read(ref);
      if (!(dictionary instanceof Map)) return;
      const element = { ref, dictionary, parent, role: nameOf(dictionary.get("S")) };
      found.push(element);
      for (const kid of this.objects.several(dictionary.get("K")))
        if (kid instanceof PdfRef) walk(kid, element);
    };
    walk(root, null);
    return found;
  }

  /** The kids of an element. */
  kids({ dictionary }: Pick<OpenElement, "dictionary">): PdfValue[] {
    return this.objects.several(dictionary.get("K"));
  }

  /** The names of places, and what each leads to, as the file lists them. */
  names(): { list: PdfValue[]; write: (list: PdfValue[]) => void } {
    const { ref, dictionary: catalog } = this.catalog;
    const names = this.objects.dictionary(catalog.get("Names"));
    const tree = this.objects.dictionary(names.get("Dests"));
    const list = this.objects.read(tree.get("Names")) as PdfValue[];
    return {
      list,
      write: (next) => {
        const dests: PdfDict = new Map([["Names", next]]);
        this.objects.change(ref, new Map(catalog).set("Names", new Map(names).set("Dests", dests)));
      },
    };
  }

  /** Where in the list of names those stand to which links lead. */
  namesInUse(): number[] {
    const used = new Set(this.inward().map(({ dictionary }) => this.leadsTo(dictionary)));
    const { list } = this.names();
    return [...list.keys()].filter((i) => i % 2 === 0 && used.has((list[i] as PdfString).bytes));
  }

  /** The entries of the outline, in their order. */
  outline(): OpenPage[] {
    const root = this.objects.read(this.catalog.dictionary.get("Outlines"));
    const found: OpenPage[] = [];
    const walk = (first: PdfValue | undefined): void => {
      for (let next = first; next instanceof PdfRef;) {
        const dictionary = this.objects.dictionary(next);
        found.push({ ref: next, dictionary });
        walk(dictionary.get("First"));
        next = dictionary.get("Next");
      }
    };
    if (root instanceof Map) walk(root.get("First"));
    return found;
  }

  bytes(): Uint8Array {
    this.container.files.set(this.path, this.objects.updated());
    return this.container.bytes();
  }
}
