import { CodedError } from "../../../errors.ts";
import { PdfObjects } from "../../../pdf/pdf-objects.ts";
import {
  PdfName,
  PdfRef,
  PdfString,
  textString,
  uriString,
  type PdfDict,
  type PdfValue,
} from "../../../pdf/pdf-values.ts";
import { sayMarksOnce } from "./marks-said-once.ts";
import { tagSignposts } from "./tag-signposts.ts";
import type { MarkedLink } from "./book-being-set.ts";

/** A PDF was not as the typesetter writes it, so it could not be finished. */
export class FinishError extends CodedError {
  declare readonly code: "marker" | "page";
  constructor(code: "marker" | "page", message: string) {
    super(code, message);
  }
}

/** Where a reader's window begins who is taken to a place, so that its line is seen whole: its page, counted from 1, and points from the page's top left corner. */
export interface PdfPlace {
  id: string;
  /** The place that holds it, where it is inside a heading; else itself. */
  by: string;
  page: number;
  x: number;
  y: number;
}

interface Page {
  ref: PdfRef;
  /** In points. */
  height: number;
  annotations: { ref: PdfRef; dictionary: PdfDict }[];
}

/**
 * Finishes the typesetter's PDF: puts each marked link's true address or place and its alternate
 * description (ISO 14289-1, 7.18.5) in place of its marker, and names every landing place as a destination
 * with coordinates (ISO 32000, 12.3.2.4), unless the typesetter has named it. Areas of a picture that is a link itself
 * are laid over that link. Languages get their whole tags (14.9.2), and letters with marks are said once.
 * @param languages tags by what the typesetter writes of them
 * @throws FinishError where a marker or a page is not found; PdfError where the file cannot be continued
 */
export function finishPdf(
  pdf: Uint8Array,
  marked: MarkedLink[],
  places: PdfPlace[],
  languages: ReadonlyMap<string, string> = new Map(),
): Uint8Array {
  const objects = new PdfObjects(pdf);
  const catalog = objects.dictionary(objects.trailer.get("Root"));
  const pages = pagesUnder(objects, catalog.get("Pages") as PdfRef);
  const lists = finishLinks(objects, pages, marked);
  const structure = catalog.get("StructTreeRoot");
  if (structure instanceof PdfRef) tagSignposts(objects, structure, lists);
  if (places.length > 0) namePlaces(objects, catalog, pages, places);
  for (const page of pages) layAreasOver(objects, page);
  nameLanguages(objects, catalog, languages);
  sayMarksOnce(
    objects,
    pages.map(({ ref }) => ref),
  );
  return objects.updated();
}

/** Writes whole tags of languages to the file and to the elements of its structure that are in others. */
function nameLanguages(objects: PdfObjects, catalog: PdfDict, languages: ReadonlyMap<string, string>): void {
  const wholeTag = (element: PdfDict): string | undefined => {
    const said = objects.read(element.get("Lang"));
    const whole = said instanceof PdfString ? languages.get(said.bytes) : undefined;
    return whole === (said as PdfString | null)?.bytes ? undefined : whole;
  };
  if (![...languages].some(([said, whole]) => said !== whole)) return;
  const whole = wholeTag(catalog);
  if (whole !== undefined) {
    catalog.set("Lang", new PdfString(whole));
    objects.change(objects.trailer.get("Root") as PdfRef, catalog);
  }
  const open: PdfValue[] = [catalog.get("StructTreeRoot") ?? null];
  while (open.length > 0) {
    const value = open.pop()!;
    const element = objects.read(value);
    if (!(element instanceof Map)) continue;
    const own = wholeTag(element);
    if (own !== undefined && value instanceof PdfRef) {
      element.set("Lang", new PdfString(own));
      objects.change(value, element);
    }
    const kids = objects.read(element.get("K"));
    open.push(...(Array.isArray(kids) ? kids : [kids]).filter((kid) => kid instanceof PdfRef));
  }
}

/** The pages under a node of their tree, in their order (7.7.3). */
function pagesUnder(objects: PdfObjects, ref: PdfRef): Page[] {
  const node = objects.dictionary(ref);
  const kids = objects.read(node.get("Kids"));
  if (Array.isArray(kids)) return kids.flatMap((kid) => pagesUnder(objects, kid as PdfRef));
  const box = objects.read(node.get("MediaBox")) as number[];
  const annotations = (objects.read(node.get("Annots")) ?? []) as PdfValue[];
  return [
    {
      ref,
      height: box[3]! - box[1]!,
      annotations: annotations
        .filter((one) => one instanceof PdfRef)
        .map((one) => ({ ref: one, dictionary: objects.dictionary(one) })),
    },
  ];
}

/** Writes the annotations of the marked links anew. @returns the signpost lists of those that are entries of one */
function finishLinks(objects: PdfObjects, pages: Page[], marked: MarkedLink[]): Map<number, string> {
  const lists = new Map<number, string>();
  const byMarker = new Map(marked.map((link) => [link.marker, link]));
  const missing = new Set(byMarker.keys());
  for (const { ref, dictionary } of pages.flatMap(({ annotations }) => annotations)) {
    const action = objects.read(dictionary.get("A"));
    const uri = action instanceof Map ? objects.read(action.get("URI")) : null;
    const link = uri instanceof PdfString ? byMarker.get(uri.bytes) : undefined;
    if (!link) continue;
    missing.delete(link.marker);
    if (link.list !== undefined) lists.set(ref.number, link.list);
    if ("place" in link.to) {
      dictionary.delete("A");
      dictionary.set("Dest", new PdfString(link.to.place));
    } else {
      dictionary.set("A", new Map(action as PdfDict).set("URI", uriString(link.to.address)));
    }
    objects.change(ref, dictionary.set("Contents", textString(link.description)));
  }
  if (missing.size > 0)
    throw new FinishError("marker", `The typesetter's PDF lacks ${missing.size} of the marked links.`);
  return lists;
}

/** Makes a destination of each place, by its name, those that the typesetter has named too. */
function namePlaces(objects: PdfObjects, catalog: PdfDict, pages: Page[], places: PdfPlace[]): void {
  const trees = objects.read(catalog.get("Names"));
  const known = trees instanceof Map ? objects.read(trees.get("Dests")) : null;
  const list = (known instanceof Map ? objects.read(known.get("Names")) : []) as PdfValue[];
  const names = new Map<string, PdfValue>();
  for (let i = 0; i + 1 < list.length; i += 2) names.set((list[i] as PdfString).bytes, list[i + 1]!);
  for (const { id, by, page, x, y } of places) {
    const sheet = pages[page - 1];
    if (!sheet) throw new FinishError("page", `The typesetter's PDF lacks page ${page}.`);
    const top = Math.min(sheet.height, sheet.height - y);
    const here = [sheet.ref, new PdfName("XYZ"), hundredths(x), hundredths(top), null];
    // The outline leads to what a heading's name leads to, so that is changed and not replaced.
    const known = names.get(by);
    if (known instanceof PdfRef) objects.change(known, here);
    names.set(id, known ?? objects.add(here));
  }
  // A name tree is sorted by its keys (ISO 32000, 7.9.6).
  const sorted = [...names].sort(([a], [b]) => (a < b ? -1 : 1));
  const tree: PdfDict = new Map([["Names", sorted.flatMap(([name, to]) => [new PdfString(name), to])]]);
  // Other name trees, such as that of embedded files, stay beside it.
  const all = new Map(trees instanceof Map ? trees : []).set("Dests", tree);
  objects.change(objects.trailer.get("Root") as PdfRef, catalog.set("Names", all));
}

/**
 * Turns the annotations of a page round on which a link lies over another that it contains: readers' programs give a
 * press to the last one that it falls on.
 */
function layAreasOver(objects: PdfObjects, { ref, annotations }: Page): void {
  const boxed = annotations.map((one) => ({
    ref: one.ref,
    rect: (objects.read(one.dictionary.get("Rect")) ?? [0, 0, 0, 0]) as number[],
  }));
  const isCovered = boxed.some(({ rect }, i) =>
    boxed.slice(i + 1).some((later) => areaOf(later.rect) > areaOf(rect) && contains(later.rect, rect)),
  );
  if (!isCovered) return;
  const order = boxed.sort((a, b) => areaOf(b.rect) - areaOf(a.rect));
  objects.change(
    ref,
    objects.dictionary(ref).set(
      "Annots",
      order.map((one) => one.ref),
    ),
  );
}

function contains([left, low, right, high]: number[], inner: number[]): boolean {
  return left! <= inner[0]! && low! <= inner[1]! && right! >= inner[2]! && high! >= inner[3]!;
}

function areaOf([left, low, right, high]: number[]): number {
  return (right! - left!) * (high! - low!);
}

function hundredths(points: number): number {
  return Math.round(points * 100) / 100;
}
