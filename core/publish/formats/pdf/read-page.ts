import type { PDFPageProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { fileBeside, hasScheme } from "../../../proof/exported-folder.ts";
import {
  foldBlanks,
  likeAllOthers,
  type Box,
  type ExportedLink,
  type Fault,
} from "../../../proof/exported-link.ts";
import { drawnBoxes } from "../../../pdf/drawn-boxes.ts";
import { OPS } from "../../../pdf/pdf-js.ts";
import type { PaintedPage } from "../../../pdf/page-paint.ts";
import type { PageStructures, StructureNode } from "../../../pdf/page-structures.ts";
import { textOf, type PageLetters, type PdfPageText, type PdfPageTexts } from "../../../pdf/page-text.ts";
import { coveredShare } from "../../../proof/covered.ts";
import { whereOf } from "../../../proof/where-in-pdf.ts";

/** An annotation, as pdf.js gives it. */
export interface Annotation {
  id: string;
  subtype: string;
  url?: string;
  unsafeUrl?: string;
  dest?: unknown;
  contentsObj?: { str: string };
  rect: number[];
  quadPoints?: Float32Array | null;
}

/** What a page has of links, notes and entries of the list of contents, in the order in which they are read. */
export interface ReadPage {
  /** The number of the page's object. */
  object: number;
  links: ExportedLink[];
  marks: { words: string; annotation: Annotation }[];
  /** Marks of notes that stand in notes themselves. */
  marksInNotes: { words: string; annotation: Annotation }[];
  /** Notes by the links on their numbers. */
  notes: { text: string; annotation: Annotation }[];
  entries: { words: string; annotation: Annotation }[];
  /** What keeps its letters from being seen. */
  faults: Fault[];
  /** The boxes of its pictures, where some link of it stands on no words. */
  pictures: Box[];
}

/** Reads a page: where its links are, on what words they stand, and what they are entries or marks of. @param unreachable why presses do not reach annotations, by the numbers of their objects */
export async function readPage(
  page: PDFPageProxy,
  number: number,
  pageTexts: PdfPageTexts,
  structures: PageStructures,
  unreachable: ReadonlyMap<number, string>,
): Promise<ReadPage> {
  const object = (page.ref as { num: number } | null)?.num ?? -1;
  const links: ExportedLink[] = [];
  const read: ReadPage = {
    object,
    links,
    marks: [],
    marksInNotes: [],
    notes: [],
    entries: [],
    faults: [],
    pictures: [],
  };
  // For the screen, pdf.js would read the page's text once more, only to tell what lies under each annotation.
  const all = (await page.getAnnotations({ intent: "print" })) as Annotation[];
  const annotations = all.filter(({ subtype }) => subtype === "Link");
  if (annotations.length === 0) return read;
  const byId = new Map(annotations.map((annotation) => [annotation.id, annotation]));
  const tree = structures.of(object);
  const text = await pageTexts.of(number);
  read.faults = (text.paint?.wrong ?? ["What is painted on it cannot be read."]).map((what) => ({
    where: `page ${number}`,
    what,
  }));

  let standsOnPictures = false;
  const besideWords: { link: ExportedLink; words: Words }[] = [];
  const take = (lines: readonly Annotation[], words: Words, apparatus: boolean): void => {
    const [annotation] = lines as [Annotation];
    for (const { id } of lines) byId.delete(id);
    standsOnPictures ||= words.boxes.length === 0;
    const address = annotation.unsafeUrl ?? annotation.url;
    const boxes = lines.flatMap(boxesOf);
    const hidden = lines.map(({ id }) => unreachable.get(parseInt(id, 10))).find((why) => why !== undefined);
    // An area of a picture stands on no words.
    const hasPicture = words.hasPicture || words.boxes.length === 0;
    const beside =
      words.isCovered || (hasPicture && isPictureCovered(boxes, text.paint))
        ? "Something is painted over it."
        : whyBeside(boxes, words.boxes, page.view);
    const link: ExportedLink = {
      ...likeAllOthers,
      destination:
        address !== undefined
          ? hasScheme(address)
            ? { kind: "address", address }
            : fileBeside(address)
          : { kind: "place", target: nameOf(annotation.dest), landing: null },
      text: words.text,
      description: annotation.contentsObj?.str || null,
      where: whereOf(number, annotation.rect),
      page: number,
      boxes,
      apparatus,
      unreachable: hidden ?? beside,
    };
    links.push(link);
    if (!hidden && beside === partBeside) besideWords.push({ link, words });
  };

  const walk = (node: StructureNode, within: Within): void => {
    if (node.role === "Link") {
      const words = wordsUnder(node, text);
      // Contents entries and note numbers are links that the typesetter makes.
      const apparatus = within.entry || within.label;
      for (const lines of asOneLink(annotationsUnder(node).flatMap((id) => byId.get(id) ?? []))) {
        const [annotation] = lines as [Annotation];
        take(lines, words, apparatus);
        if (within.entry) read.entries.push({ words: words.text, annotation });
        if (within.label && within.note === null) read.marks.push({ words: words.text, annotation });
        if (within.label && within.note?.isUntold === false)
          read.marksInNotes.push({ words: words.text, annotation });
        if (within.label && within.note?.isUntold) {
          read.notes.push({ text: within.note.text, annotation });
          within.note.isUntold = false;
        }
      }
      // Areas of a picture that is a link itself.
      for (const inner of linksIn(node)) walk(inner, within);
      return;
    }
    const inside = {
      // The typesetter's own list refers to what it leads to; an author's is made of links (ISO 32000-1, table 333).
      entry: within.entry || node.role === "Reference",
      // The label of a list's item is the author's, as a term is; that of a note is the typesetter's (table 336).
      label: node.role === "Lbl" ? within.role !== "LI" : within.label,
      role: node.role ?? "",
      note: node.role === "Note" ? { text: wordsUnder(node, text).text, isUntold: true } : within.note,
    };
    for (const child of node.children ?? []) walk(child, inside);
  };
  if (tree) walk(tree, { entry: false, label: false, role: "", note: null });
  for (const orphan of [...byId.values()]) take([orphan], noWords, false);
  if (standsOnPictures || besideWords.length > 0) {
    const pictures = await picturesOn(page);
    if (standsOnPictures) read.pictures = pictures;
    for (const { link, words } of besideWords)
      if (liesOn(link.boxes, [...words.boxes, ...picturesOf(words, pictures)])) link.unreachable = null;
  }
  // In the order in which they are laid over the page, so that a later one covers those before it.
  const order = new Map(annotations.map(({ rect }, i) => [whereOf(number, rect), i]));
  links.sort((a, b) => order.get(a.where)! - order.get(b.where)!);
  return read;
}

/** Whether a shape is painted over the picture on which a link stands, or another picture. */
function isPictureCovered(boxes: readonly Box[], paint: PaintedPage | null): boolean {
  const over = (paint?.covers ?? []).filter(({ box }) => coveredShare(boxes, [box]) > mostCovered);
  const own = over.findIndex(({ isPicture }) => isPicture);
  return own !== -1 && own < over.length - 1;
}

/** The annotations of one element that lead to one place are one link: some files have one for each line. */
function asOneLink(annotations: readonly Annotation[]): Annotation[][] {
  const links = new Map<string, Annotation[]>();
  for (const annotation of annotations) {
    const way = JSON.stringify([annotation.unsafeUrl ?? annotation.url, annotation.dest]);
    const lines = links.get(way);
    if (lines) lines.push(annotation);
    else links.set(way, [annotation]);
  }
  return [...links.values()];
}

/** In what a link stands. */
interface Within {
  entry: boolean;
  label: boolean;
  /** What the element is in which it stands. */
  role: string;
  /** The note, and whether the link on its number is still to come. */
  note: { text: string; isUntold: boolean } | null;
}

interface Words {
  text: string;
  boxes: Box[];
  /** Whether there is a picture among them. */
  hasPicture: boolean;
  /** Whether most of them lies under what is painted later. */
  isCovered: boolean;
}

const noWords: Words = { text: "", boxes: [], hasPicture: false, isCovered: false };
/** More than this share of letters is covered where they are not seen. */
const mostCovered = 0.5;

/** The boxes in which a page draws pictures. */
async function picturesOn(page: PDFPageProxy): Promise<Box[]> {
  return drawnBoxes(await page.getOperatorList({ intent: "print" }), OPS).pictures;
}

const partBeside = "A part of its area does not lie on its words.";

// A picture that says nothing stands no further from the words of its link, in points.
const besideLetters = 24;

// A press on most of a link's words has to reach it.
const leastOnWords = 0.8;

// Smaller letters than this share of the tallest may stand above and below the line, at a sum's sign say.
const small = 0.75;

// What has no width lies on an area that begins where it stands, in points.
const touching = 0.5;

// A narrower part of an area may be a blank between words, in points.
const leastWords = 8;

/** Whether two boxes have something in common. */
function meets(one: Box, other: Box): boolean {
  return one[0] < other[2] && other[0] < one[2] && one[1] < other[3] && other[1] < one[3];
}

/** Why a press on a link's words does not reach it: its area lies beside them, or off the page; null where it does. */
function whyBeside(
  boxes: readonly Box[],
  words: readonly Box[],
  [, , width = 0, height = 0]: number[],
): string | null {
  const hasSize = boxes.some(([left, low, right, high]) => right - left > 0.5 && high - low > 0.5);
  if (!hasSize) return "Its area has no size.";
  const isOnPage = boxes.every(
    ([left, low, right, high]) => right > 0 && high > 0 && left < width && low < height,
  );
  if (!isOnPage) return "Its area lies off the page.";
  const tallest = Math.max(...words.map(([, low, , high]) => high - low));
  let on = 0;
  let all = 0;
  for (const [left, low, right, high] of words) {
    const across = right - left;
    const [x, y] = [(left + right) / 2, (low + high) / 2];
    const over = 1 + (high - low < tallest * small ? high - low : 0);
    all += across;
    if (boxes.some((box) => x >= box[0] - 1 && x <= box[2] + 1 && y >= box[1] - over && y <= box[3] + over))
      on += across;
  }
  if (all > 0 && on < all * leastOnWords) return "Its area does not lie on its words.";
  return words.length > 0 && !liesOn(boxes, words) ? partBeside : null;
}

/** Whether each part of an area lies on something of what it belongs to, or between. */
function liesOn(boxes: readonly Box[], all: readonly Box[]): boolean {
  return boxes.every(
    (box) =>
      box[2] - box[0] <= leastWords ||
      all.some((one) => meets(one, grown(box, touching))) ||
      liesBetween(box, all),
  );
}

/** Of a page's pictures those that a link may have among its words: all, where it tells of one, else those beside them. */
function picturesOf(words: Words, pictures: readonly Box[]): readonly Box[] {
  if (words.hasPicture) return pictures;
  return pictures.filter((picture) => words.boxes.some((one) => meets(one, grown(picture, besideLetters))));
}

/** A box with some points more around it. */
function grown([left, low, right, high]: Box, by: number): Box {
  return [left - by, low - by, right + by, high + by];
}

/** Whether a box lies between words of one line, as what leads the eye from an entry to its page. */
function liesBetween(box: Box, words: readonly Box[]): boolean {
  const onLine = words.filter((one) => one[1] < box[3] && box[1] < one[3]);
  return onLine.some((one) => one[2] <= box[0] + 1) && onLine.some((one) => one[0] >= box[2] - 1);
}

function wordsUnder(node: StructureNode, { marked, paint }: PdfPageText): Words {
  let text = "";
  let letters: PageLetters[] = [];
  const boxes: Box[] = [];
  let hasPicture = false;
  let isCovered = false;
  const finish = (): void => {
    text += textOf(letters);
    letters = [];
  };
  const walk = (inner: StructureNode): void => {
    if (inner.role === "Figure") {
      finish();
      text += inner.alt ?? "";
      hasPicture = true;
      return;
    }
    if (inner.type === "content") {
      const own = marked.get(inner.id ?? "") ?? [];
      letters.push(...own);
      // The sign of a root hangs from where it is set, so nothing tells how far down it goes.
      const ownBoxes = own.flatMap(({ words, box }) => (box && words !== "√" ? [box] : []));
      boxes.push(...ownBoxes);
      const shown = paint?.shown.get(inner.id ?? "") ?? Infinity;
      const above = (paint?.covers ?? []).flatMap(({ box, after }) => (after >= shown ? [box] : []));
      isCovered ||= above.length > 0 && coveredShare(ownBoxes, above) > mostCovered;
    }
    for (const child of inner.children ?? []) walk(child);
  };
  walk(node);
  finish();
  return { text: foldBlanks(text), boxes, hasPicture, isCovered };
}

/** The annotations of a link, without those of links in it. */
function annotationsUnder({ children = [] }: StructureNode): string[] {
  return children.flatMap((child) => {
    if (child.type === "object") return [child.id ?? ""];
    return child.role === "Link" ? [] : annotationsUnder(child);
  });
}

/** The links that stand in an element, without those in these. */
function linksIn({ children = [] }: StructureNode): StructureNode[] {
  return children.flatMap((child) => (child.role === "Link" ? [child] : linksIn(child)));
}

/** The name of a destination; empty where it is none, but a place of its own. */
export function nameOf(destination: unknown): string {
  return typeof destination === "string" ? destination : "";
}

/** One box for each line: eight numbers a line, the corners of a quadrilateral (ISO 32000, 12.5.6.5). */
function boxesOf({ rect, quadPoints }: Annotation): Box[] {
  if (!quadPoints?.length) return [rect as unknown as Box];
  const boxes: Box[] = [];
  for (let i = 0; i + 8 <= quadPoints.length; i += 8) {
    const corners = [...quadPoints.subarray(i, i + 8)];
    const xs = corners.filter((_, at) => at % 2 === 0);
    const ys = corners.filter((_, at) => at % 2 === 1);
    boxes.push([Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]);
  }
  return boxes;
}
