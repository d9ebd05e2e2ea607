import type { PdfObjects } from "../../../pdf/pdf-objects.ts";
import { nameOf, PdfName, PdfRef, type PdfDict, type PdfValue } from "../../../pdf/pdf-values.ts";

/**
 * Makes lists of contents in the structure tree (ISO 32000-1, 14.8.4.3.3: TOC, its entries TOCI) of the paragraphs whose
 * links are signposts: the typesetter knows one such list, its own.
 * @param lists the signpost lists to which link annotations belong, by the numbers of their objects
 */
export function tagSignposts(
  objects: PdfObjects,
  structure: PdfRef,
  lists: ReadonlyMap<number, string>,
): void {
  if (lists.size > 0) new SignpostTags(objects, lists).within(structure);
}

class SignpostTags {
  constructor(
    private readonly objects: PdfObjects,
    private readonly lists: ReadonlyMap<number, string>,
  ) {}

  within(ref: PdfRef): void {
    const open = [ref];
    for (let element = open.pop(); element; element = open.pop()) {
      const dictionary = this.objects.dictionary(element);
      const kids = this.objects.several(dictionary.get("K"));
      const [entries, others] = [
        kids.filter((kid) => this.isEntry(kid)),
        kids.filter((kid) => !this.isEntry(kid)),
      ];
      if (entries.length > 0) this.objects.change(element, dictionary.set("K", this.grouped(element, kids)));
      open.push(...others.filter((kid) => kid instanceof PdfRef));
    }
  }

  /** An element's children, each run of entries of one list within one element. */
  private grouped(parent: PdfRef, kids: readonly PdfValue[]): PdfValue[] {
    const grouped: PdfValue[] = [];
    let run: PdfRef[] = [];
    let list: string | null = null;
    const finish = (): void => {
      if (run.length > 0) grouped.push(this.contentsOf(parent, run));
      run = [];
    };
    for (const kid of kids) {
      const own = kid instanceof PdfRef ? this.listOf(kid) : null;
      if (own !== list) finish();
      list = own;
      if (own === null) grouped.push(kid);
      else run.push(kid as PdfRef);
    }
    finish();
    return grouped;
  }

  private contentsOf(parent: PdfRef, entries: readonly PdfRef[]): PdfRef {
    const contents = this.objects.add(null);
    const items = entries.map((entry) => {
      const item = this.objects.add(element("TOCI", contents, [entry]));
      this.objects.change(entry, this.objects.dictionary(entry).set("P", item));
      return item;
    });
    this.objects.change(contents, element("TOC", parent, items));
    return contents;
  }

  private isEntry(kid: PdfValue): boolean {
    return kid instanceof PdfRef && this.listOf(kid) !== null;
  }

  /** The list of which a paragraph is an entry; null for all else. */
  private listOf(ref: PdfRef): string | null {
    const paragraph = this.objects.read(ref);
    if (!(paragraph instanceof Map) || nameOf(paragraph.get("S")) !== "P") return null;
    for (const kid of this.objects.several(paragraph.get("K"))) {
      const link = kid instanceof PdfRef ? this.objects.read(kid) : null;
      if (!(link instanceof Map) || nameOf(link.get("S")) !== "Link") continue;
      for (const part of this.objects.several(link.get("K"))) {
        const object = this.objects.read(part);
        const annotation = object instanceof Map ? object.get("Obj") : null;
        const list = annotation instanceof PdfRef ? this.lists.get(annotation.number) : undefined;
        if (list !== undefined) return list;
      }
    }
    return null;
  }
}

function element(name: string, parent: PdfRef, kids: PdfValue[]): PdfDict {
  return new Map<string, PdfValue>([
    ["Type", new PdfName("StructElem")],
    ["S", new PdfName(name)],
    ["P", parent],
    ["K", kids],
  ]);
}
