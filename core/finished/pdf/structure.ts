import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRef,
  type PDFDocument,
  type PDFObject,
} from "@cantoo/pdf-lib";
import { dictionaryAt, dictionaryIn, entry } from "./open-pdf.ts";

/** How deep a tree of numbers is followed. */
const deepest = 40;

/** The structure tree of a tagged PDF (ISO 32000-1, 14.7), into which links are put. */
export class Structure {
  private next: number;
  private heldObjects: ReadonlySet<string> | null = null;

  private constructor(
    private readonly document: PDFDocument,
    private readonly root: PDFDict,
    private readonly rootRef: PDFRef,
    private readonly parents: PDFDict,
    /** Told of each object that was changed. */
    private readonly touch: (object: PDFRef) => void,
  ) {
    const said = entry(root, "ParentTreeNextKey");
    this.next = Math.max(said instanceof PDFNumber ? said.asNumber() : 0, this.greatestKey(parents) + 1);
  }

  /** Null where a PDF is not tagged. */
  static of(document: PDFDocument, touch: (object: PDFRef) => void): Structure | null {
    const ref = document.catalog.get(PDFName.of("StructTreeRoot"));
    const root = dictionaryIn(document.catalog, "StructTreeRoot");
    const parents = dictionaryIn(root, "ParentTree");
    return root && parents && ref instanceof PDFRef
      ? new Structure(document, root, ref, parents, touch)
      : null;
  }

  /**
   * Whether an element of the tree holds an annotation, as that says itself (14.7.4.4) or as the tree does (14.7.4.3).
   * @param from what the annotation is called: its object
   */
  has(annotation: PDFDict, from: string): boolean {
    const key = entry(annotation, "StructParent");
    const value = key instanceof PDFNumber ? this.valueOf(this.parents, key.asNumber()) : undefined;
    const element = value instanceof PDFRef ? this.document.context.lookup(value) : value;
    return element instanceof PDFDict || this.held.has(`${from} R`);
  }

  /** The objects that the tree refers to. It is walked where an annotation says nothing itself. */
  private get held(): ReadonlySet<string> {
    if (this.heldObjects) return this.heldObjects;
    const held = new Set<string>();
    const seen = new Set<PDFObject>();
    const open: (PDFObject | undefined)[] = [this.root];
    while (open.length > 0) {
      const next = open.pop();
      const node = next instanceof PDFRef ? this.document.context.lookup(next) : next;
      if (!node || seen.has(node)) continue;
      seen.add(node);
      if (node instanceof PDFArray) for (const kid of node.asArray()) open.push(kid);
      if (!(node instanceof PDFDict)) continue;
      const object = node.get(PDFName.of("Obj"));
      if (object instanceof PDFRef) held.add(object.toString());
      open.push(node.get(PDFName.of("K")));
    }
    this.heldObjects = held;
    return held;
  }

  /**
   * Puts a link beside the words that it lies on: an element Link with a reference to its annotation (14.7.4.3).
   * @param contents the marked content beneath it, the first that is known counts
   */
  add(
    page: { ref: PDFRef; node: PDFDict },
    annotation: { ref: PDFRef; dictionary: PDFDict },
    contents: readonly number[],
  ): void {
    const { context } = this.document;
    const { ref: parentRef, content } = this.parentOf(page, contents);
    const parent = context.lookup(parentRef, PDFDict);
    const reference = context.obj({ Type: "OBJR", Obj: annotation.ref, Pg: page.ref });
    const element = context.register(
      context.obj({ Type: "StructElem", S: "Link", P: parentRef, Pg: page.ref, K: [reference] }),
    );
    this.touch(element);
    this.putInto(parent, parentRef, element, content);
    const key = this.next++;
    annotation.dictionary.set(PDFName.of("StructParent"), PDFNumber.of(key));
    this.register(key, element);
    page.node.set(PDFName.of("Tabs"), PDFName.of("S"));
  }

  /** Takes the reference to an annotation out of the tree; an element that holds nothing else stays, empty. */
  remove(annotation: PDFDict, ref: PDFRef | null): void {
    const key = entry(annotation, "StructParent");
    if (!(key instanceof PDFNumber) || !ref) return;
    const elementRef = this.valueOf(this.parents, key.asNumber());
    const element = elementRef instanceof PDFRef ? this.document.context.lookup(elementRef) : undefined;
    if (!(elementRef instanceof PDFRef) || !(element instanceof PDFDict)) return;
    const isOwn = (kid: PDFObject | undefined): boolean =>
      kid instanceof PDFDict && kid.get(PDFName.of("Obj"))?.toString() === ref.toString();
    const kids = entry(element, "K");
    if (kids instanceof PDFArray) {
      const left = kids.asArray().filter((_, i) => !isOwn(kids.lookup(i)));
      element.set(PDFName.of("K"), this.document.context.obj(left));
    } else if (isOwn(kids)) element.delete(PDFName.of("K"));
    this.touch(elementRef);
  }

  /** The element in which a link is to stand, and the content in it behind which it does. */
  private parentOf(
    page: { node: PDFDict },
    contents: readonly number[],
  ): { ref: PDFRef; content: number | null } {
    const key = entry(page.node, "StructParents");
    const list = key instanceof PDFNumber ? this.valueOf(this.parents, key.asNumber()) : undefined;
    const array = list instanceof PDFRef ? this.document.context.lookup(list) : list;
    if (array instanceof PDFArray) {
      for (const content of contents) {
        const ref = content < array.size() ? array.get(content) : undefined;
        if (ref instanceof PDFRef) return { ref, content };
      }
      // On a picture or on nothing: with what else the page has.
      for (const ref of array.asArray()) if (ref instanceof PDFRef) return { ref, content: null };
    }
    const kids = this.root.get(PDFName.of("K"));
    const first = kids instanceof PDFArray ? kids.get(0) : kids;
    return { ref: first instanceof PDFRef ? first : this.rootRef, content: null };
  }

  private putInto(parent: PDFDict, ref: PDFRef, element: PDFRef, content: number | null): void {
    const given = parent.get(PDFName.of("K"));
    const listed = given instanceof PDFRef ? this.document.context.lookup(given) : given;
    const kids = listed instanceof PDFArray ? listed.asArray() : given ? [given] : [];
    const at = kids.findIndex((kid) => content !== null && contentOf(kid) === content);
    const next = [...kids];
    next.splice(at === -1 ? next.length : at + 1, 0, element);
    parent.set(PDFName.of("K"), this.document.context.obj(next));
    this.touch(ref);
  }

  /** Enters an element into the tree of parents, which may have its entries in branches (7.9.7). */
  private register(key: number, element: PDFRef): void {
    const { context } = this.document;
    const numbers = entry(this.parents, "Nums");
    const kids = entry(this.parents, "Kids");
    const parentsRef = this.root.get(PDFName.of("ParentTree"));
    if (numbers instanceof PDFArray || !(kids instanceof PDFArray)) {
      const all = numbers instanceof PDFArray ? numbers.asArray() : [];
      this.parents.set(PDFName.of("Nums"), context.obj([...all, PDFNumber.of(key), element]));
    } else {
      const leaf = context.register(context.obj({ Limits: [key, key], Nums: [key, element] }));
      this.touch(leaf);
      this.parents.set(PDFName.of("Kids"), context.obj([...kids.asArray(), leaf]));
    }
    if (parentsRef instanceof PDFRef) this.touch(parentsRef);
    this.root.set(PDFName.of("ParentTreeNextKey"), PDFNumber.of(key + 1));
    this.touch(this.rootRef);
  }

  private valueOf(node: PDFDict, key: number, depth = 0): PDFObject | undefined {
    const numbers = entry(node, "Nums");
    if (numbers instanceof PDFArray)
      for (let i = 0; i + 1 < numbers.size(); i += 2) {
        const one = numbers.lookup(i);
        if (one instanceof PDFNumber && one.asNumber() === key) return numbers.get(i + 1);
      }
    const kids = entry(node, "Kids");
    if (depth > deepest || !(kids instanceof PDFArray)) return undefined;
    for (let i = 0; i < kids.size(); i++) {
      const kid = dictionaryAt(kids, i);
      const limits = kid && entry(kid, "Limits");
      const [low, high] =
        limits instanceof PDFArray ? [limits.lookup(0), limits.lookup(1)] : [undefined, undefined];
      const mayHave =
        !(low instanceof PDFNumber && high instanceof PDFNumber) ||
        (low.asNumber() <= key && key <= high.asNumber());
      const found = kid && mayHave ? this.valueOf(kid, key, depth + 1) : undefined;
      if (found) return found;
    }
    return undefined;
  }

  private greatestKey(node: PDFDict, depth = 0): number {
    let greatest = -1;
    const numbers = entry(node, "Nums");
    if (numbers instanceof PDFArray)
      for (let i = 0; i < numbers.size(); i += 2) {
        const one = numbers.lookup(i);
        if (one instanceof PDFNumber) greatest = Math.max(greatest, one.asNumber());
      }
    const kids = entry(node, "Kids");
    if (kids instanceof PDFArray && depth <= deepest)
      for (let i = 0; i < kids.size(); i++) {
        const kid = dictionaryAt(kids, i);
        if (kid) greatest = Math.max(greatest, this.greatestKey(kid, depth + 1));
      }
    return greatest;
  }
}

/** The marked content that a kid of an element is; null for any other. */
function contentOf(kid: PDFObject): number | null {
  if (kid instanceof PDFNumber) return kid.asNumber();
  const id = kid instanceof PDFDict ? entry(kid, "MCID") : undefined;
  return id instanceof PDFNumber ? id.asNumber() : null;
}
