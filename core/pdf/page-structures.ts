import type { PdfObjects } from "./pdf-objects.ts";
import { nameOf, PdfRef, readTextString, type PdfDict, type PdfValue } from "./pdf-values.ts";

/** An element of a page's structure, or something that stands in one. */
export interface StructureNode {
  /** Of an element: what it is (ISO 32000-1, 14.8.4). */
  role?: string;
  /** What is said in its place. */
  alt?: string;
  children?: StructureNode[];
  /** Of what stands in one: marked content of the page, or an object, as an annotation. */
  type?: "content" | "object";
  /** Of what stands in one, as pdf.js names it. */
  id?: string;
}

/** An element as the file has it, read once for all pages on which it has something. */
interface Element {
  role: string;
  alt: string | null;
  parent: Element | null;
  /** Its places in its parent: one, unless a file is damaged. */
  places: readonly number[];
  /** What stands in it itself, by the number of the page's object. */
  contents: Map<number, Placed[]>;
  /** The places of the elements in it, by the numbers of their objects. */
  order: Map<number, number[]>;
}

interface Placed {
  place: number;
  node: StructureNode;
}

/** A table that leads back to itself has no end. */
const deepestTable = 50;

/**
 * The structure of a PDF, page by page (ISO 32000-1, 14.7): of each page the elements to which its marked contents and
 * annotations are said to belong (14.7.4.4), and all above them. One that its parent does not name is left out.
 */
export class PageStructures {
  private readonly elements = new Map<number, Element | null>();
  private readonly root: Element | null = null;
  private readonly roles: PdfDict = new Map();
  /** To what marked contents and annotations belong, by the keys of their pages and their own. */
  private readonly owners = new Map<number, PdfValue>();

  /** @throws PdfError where the objects of the structure cannot be read */
  constructor(private readonly objects: PdfObjects) {
    const ref = objects.dictionary(objects.trailer.get("Root")).get("StructTreeRoot");
    const root = objects.read(ref);
    if (!(root instanceof Map)) return;
    const roles = objects.read(root.get("RoleMap"));
    if (roles instanceof Map) this.roles = roles;
    this.root = this.elementOf(root, null, []);
    if (ref instanceof PdfRef) this.elements.set(ref.number, this.root);
    this.readOwners(root.get("ParentTree"), 0);
  }

  /**
   * What a page has of the structure, in an element for its root; null where the file has no structure.
   * @param page the number of its object
   * @throws PdfError where an object of it cannot be read
   */
  of(page: number): StructureNode | null {
    if (!this.root) return null;
    const top: StructureNode = { role: "Root" };
    const onPage = new Map<Element, { node: StructureNode; inside: Placed[] }>();
    onPage.set(this.root, { node: top, inside: [] });
    for (const owner of this.ownersOn(page)) {
      const chain: Element[] = [];
      let at = this.element(owner);
      for (; at && at.places.length > 0 && !onPage.has(at); at = at.parent) chain.push(at);
      // One that is not in its parent is on no page, nor is what stands in it.
      if (!at || !onPage.has(at)) continue;
      for (const element of chain.reverse()) {
        const { role, alt, parent, places, contents } = element;
        const node: StructureNode = alt === null ? { role } : { role, alt };
        onPage.get(parent!)!.inside.push(...places.map((place) => ({ place, node })));
        onPage.set(element, { node, inside: [...(contents.get(page) ?? [])] });
      }
    }
    for (const { node, inside } of onPage.values())
      node.children = inside.sort((a, b) => a.place - b.place).map((one) => one.node);
    return top;
  }

  /** The elements to which a page's marked contents and its annotations are said to belong, some of them often. */
  private ownersOn(page: number): PdfRef[] {
    const dictionary = this.objects.dictionary(new PdfRef(page));
    const owners = listOf(this.objects.read(this.ownerBy(dictionary.get("StructParents"))));
    for (const one of listOf(this.objects.read(dictionary.get("Annots")))) {
      const annotation = this.objects.read(one);
      if (annotation instanceof Map) owners.push(this.ownerBy(annotation.get("StructParent")));
    }
    return owners.filter((owner) => owner instanceof PdfRef);
  }

  private ownerBy(key: PdfValue | undefined): PdfValue {
    const number = this.objects.read(key);
    return typeof number === "number" ? (this.owners.get(number) ?? null) : null;
  }

  private element(ref: PdfRef): Element | null {
    const known = this.elements.get(ref.number);
    if (known !== undefined) return known;
    // So one that is above itself has none above it.
    this.elements.set(ref.number, null);
    const dictionary = this.objects.read(ref);
    if (!(dictionary instanceof Map)) return null;
    const above = dictionary.get("P");
    // What does not say in what it is may be in the root.
    const parent = above instanceof PdfRef ? this.element(above) : this.root;
    const element = this.elementOf(dictionary, parent, parent?.order.get(ref.number) ?? []);
    this.elements.set(ref.number, element);
    return element;
  }

  private elementOf(dictionary: PdfDict, parent: Element | null, places: readonly number[]): Element {
    const name = nameOf(dictionary.get("S"));
    const wordsOf = (key: string): string | null => readTextString(this.objects.read(dictionary.get(key)));
    const element: Element = {
      role: nameOf(this.roles.get(name)) || name,
      alt: wordsOf("Alt") ?? wordsOf("ActualText"),
      parent,
      places,
      contents: new Map(),
      order: new Map(),
    };
    this.objects.several(dictionary.get("K")).forEach((kid, at) => {
      if (kid instanceof PdfRef)
        element.order.set(kid.number, [...(element.order.get(kid.number) ?? []), at]);
      this.putContent(element, this.objects.read(kid), at, dictionary.get("Pg"));
    });
    return element;
  }

  /** Puts what stands in an element itself on the page on which it is. @param above the page of the element */
  private putContent(element: Element, kid: PdfValue, place: number, above: PdfValue | undefined): void {
    const content = kid instanceof Map ? this.objects.read(kid.get("MCID")) : kid;
    const object = kid instanceof Map ? kid.get("Obj") : null;
    const page = (kid instanceof Map && kid.get("Pg")) || above;
    if (!(page instanceof PdfRef)) return;
    let node: StructureNode;
    if (typeof content === "number") node = { type: "content", id: `p${page.number}R_mc${content}` };
    else if (object instanceof PdfRef) node = { type: "object", id: `${object.number}R` };
    else return;
    const there = element.contents.get(page.number);
    if (there) there.push({ place, node });
    else element.contents.set(page.number, [{ place, node }]);
  }

  /** Reads the table of what belongs to what, a tree of numbers (7.9.7). */
  private readOwners(value: PdfValue | undefined, depth: number): void {
    const table = this.objects.read(value);
    if (!(table instanceof Map) || depth > deepestTable) return;
    const pairs = listOf(this.objects.read(table.get("Nums")));
    for (let i = 0; i + 1 < pairs.length; i += 2)
      if (typeof pairs[i] === "number") this.owners.set(pairs[i] as number, pairs[i + 1]!);
    for (const kid of listOf(this.objects.read(table.get("Kids")))) this.readOwners(kid, depth + 1);
  }
}

function listOf(value: PdfValue): PdfValue[] {
  return Array.isArray(value) ? [...value] : [];
}
