import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNull,
  PDFRef,
  PDFString,
  type PDFDocument,
  type PDFPage as LibraryPage,
} from "@cantoo/pdf-lib";
import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { behindPath } from "../../destination/kinds/file.ts";
import { kindOf } from "../../destination/kinds/kinds.ts";
import { FinishedError } from "../errors.ts";
import type { SavedFile } from "../saved-file.ts";
import type { FileEncryption } from "./encryption.ts";
import { frameEntries } from "./frames.ts";
import { lettersOf, lettersWithin } from "./letters.ts";
import { annotationsOf, annotsOf } from "./open-pdf.ts";
import { hasSoundTable } from "./object-table.ts";
import { openFinished } from "./open-finished.ts";
import { boxAround, samePdfLink, spotsOf, type PdfLink, type PdfPage, type Spot } from "./pdf-page.ts";
import { opened, pagesOf } from "./read-finished.ts";
import { Structure } from "./structure.ts";

/** How links of a file are told to a PDF: the names of the files beside it, by their ids. */
export interface SavingNames {
  files: ReadonlyMap<string, string>;
}

/**
 * Writes links as they are to be behind the bytes of the PDF that came, which stay as they are (ISO 32000-1, 7.5.6). In
 * a tagged PDF new links are put into the structure tree (14.8.4.4.2; Matterhorn 28-011).
 * @param pages all pages, as they are to be
 * @throws FinishedError where the file cannot be read, or has other pages
 */
export async function saveFinishedPdf(
  bytes: Uint8Array,
  pages: readonly PdfPage[],
  names: SavingNames,
  password = "",
): Promise<SavedFile> {
  const { document, encryption } = await openFinished(bytes, password);
  const before = pagesOf(document);
  if (before.length !== pages.length)
    throw new FinishedError("changed", "The file has other pages than those whose links are to be written.");
  const writing = new Writing(document, encryption, pages, names);
  let shown: PDFDocumentProxy | null = null;
  try {
    for (const [i, page] of pages.entries()) {
      const was = new Map(before[i]!.links.map(({ from, isInStructure }) => [from, isInStructure]));
      const goesIn = page.links.some(({ from, isInStructure }) => isInStructure && was.get(from) !== true);
      if (goesIn && writing.isTagged) shown ??= await opened(bytes, password);
      await writing.page(before[i]!, page, goesIn ? shown : null);
    }
  } finally {
    await shown?.loadingTask.destroy();
  }
  return writing.end(bytes);
}

/** What is being changed of a document. */
class Writing {
  private readonly touched = new Set<PDFRef>();
  private readonly structure: Structure | null;
  private readonly done = { added: 0, changed: 0, removed: 0 };
  private readonly snapshot: ReturnType<PDFDocument["takeSnapshot"]>;
  private readonly spots: ReadonlyMap<string, Spot>;

  constructor(
    private readonly document: PDFDocument,
    private readonly encryption: FileEncryption | null,
    pages: readonly PdfPage[],
    private readonly names: SavingNames,
  ) {
    this.snapshot = document.takeSnapshot();
    // The library would look through all objects for each change; what is changed is told it at the end.
    Object.assign(document.context, { snapshot: undefined });
    this.structure = Structure.of(document, (ref) => this.touched.add(ref));
    this.spots = spotsOf(pages);
  }

  get isTagged(): boolean {
    return this.structure !== null;
  }

  /** @param shown the file as pdf.js reads it, where the words beneath new links are asked for */
  async page(before: PdfPage, after: PdfPage, shown: PDFDocumentProxy | null): Promise<void> {
    const page = this.document.getPage(after.number - 1);
    const letters = shown
      ? lettersOf(await (await shown.getPage(after.number)).getTextContent({ includeMarkedContent: true }))
      : [];
    const wanted = new Map(after.links.flatMap((link) => (link.from === null ? [] : [[link.from, link]])));
    const annotations = annotationsOf(page);
    const gone: number[] = [];
    for (const { from } of before.untouched) {
      // What could not be worked on as it was is given another destination.
      const [found, next] = [annotations.find((one) => one.from === from), wanted.get(from)];
      if (!found || !next) continue;
      this.change(page, found, null, next);
      if (this.structure?.has(found.dictionary, found.from) === false)
        this.putIn(page, found, contentsBeneath(letters, next));
    }
    for (const was of before.links) {
      const found = annotations.find(({ from }) => from === was.from);
      const next = wanted.get(was.from!);
      if (!found) continue;
      if (!next) {
        this.remove(page, found);
        gone.push(found.at);
      } else if (!samePdfLink(was, next)) {
        this.change(page, found, was, next);
        if (next.isInStructure && !was.isInStructure) this.putIn(page, found, contentsBeneath(letters, next));
      }
    }
    this.takeOut(page, gone);
    const added = after.links.filter(({ from }) => from === null);
    for (const link of added) this.add(page, link, contentsBeneath(letters, link));
  }

  async end(bytes: Uint8Array): Promise<SavedFile> {
    const { added, changed, removed } = this.done;
    if (added + changed + removed === 0) return { bytes, ...this.done };
    if (!hasSoundTable(bytes)) this.bringAll();
    // A table goes on from a table, and a stream from a stream (7.5.8.2, Prev).
    const { useObjectStreams } = this.document.context.pdfFileDetails;
    if (!useObjectStreams) this.bringLast();
    for (const ref of this.touched) this.snapshot.markRefForSave(ref);
    this.encryption?.encrypt(this.document, [...this.touched], useObjectStreams);
    const update = await this.document.saveIncremental(this.snapshot, { useObjectStreams });
    const whole = new Uint8Array(bytes.length + update.length);
    whole.set(bytes);
    whole.set(update, bytes.length);
    return { bytes: whole, ...this.done };
  }

  /**
   * Appends an empty object where that with the highest number is not among those appended: the library would count one
   * too few, so that readers' programs leave that one out (ISO 32000-1, 7.5.5, Size).
   */
  private bringLast(): void {
    const { context } = this.document;
    const isLastTouched = [...this.touched].some(
      ({ objectNumber }) => objectNumber === context.largestObjectNumber,
    );
    if (!isLastTouched) this.touched.add(context.register(PDFNull));
  }

  /** Appends all objects with a table that goes on from none: those of the file lead readers' programs nowhere. */
  private bringAll(): void {
    for (const [ref] of this.document.context.enumerateIndirectObjects()) this.touched.add(ref);
    this.snapshot.prevStartXRef = 0;
  }

  private add(page: LibraryPage, link: PdfLink, contents: readonly number[]): void {
    const { context } = this.document;
    const dictionary = context.obj({ Type: "Annot", Subtype: "Link", F: 4, P: page.ref });
    this.tell(dictionary, link, null);
    const ref = context.register(dictionary);
    this.touched.add(ref);
    const list = annotsOf(page);
    if (list) list.push(ref);
    else page.node.set(PDFName.of("Annots"), context.obj([ref]));
    this.touchList(page);
    this.structure?.add(page, { ref, dictionary }, contents);
    this.done.added++;
  }

  private change(
    page: LibraryPage,
    { dictionary, at }: ReturnType<typeof annotationsOf>[number],
    was: PdfLink | null,
    link: PdfLink,
  ): void {
    this.tell(dictionary, link, was);
    const ref = annotsOf(page)?.get(at);
    if (ref instanceof PDFRef) this.touched.add(ref);
    else this.touchList(page);
    this.done.changed++;
  }

  /** Puts a link that came into the structure of a tagged file, which knows annotations as objects of their own. */
  private putIn(
    page: LibraryPage,
    { dictionary, at }: ReturnType<typeof annotationsOf>[number],
    contents: readonly number[],
  ): void {
    const list = annotsOf(page)!;
    const known = list.get(at);
    const ref = known instanceof PDFRef ? known : this.document.context.register(dictionary);
    if (ref !== known) {
      list.set(at, ref);
      this.touchList(page);
    }
    this.touched.add(ref).add(page.ref);
    this.structure?.add(page, { ref, dictionary }, contents);
  }

  private remove(page: LibraryPage, { dictionary, at }: ReturnType<typeof annotationsOf>[number]): void {
    const ref = annotsOf(page)?.get(at);
    this.structure?.remove(dictionary, ref instanceof PDFRef ? ref : null);
    this.done.removed++;
  }

  private takeOut(page: LibraryPage, gone: readonly number[]): void {
    if (gone.length === 0) return;
    const list = annotsOf(page)!;
    for (const at of gone.toSorted((a, b) => b - a)) list.remove(at);
    this.touchList(page);
  }

  /** The list of a page’s annotations is an object of its own, or a part of the page. */
  private touchList(page: LibraryPage): void {
    const list = page.node.get(PDFName.of("Annots"));
    if (list instanceof PDFRef) this.touched.add(list);
    this.touched.add(page.ref);
  }

  /** Writes into an annotation what differs from what it was. */
  private tell(dictionary: PDFDict, link: PdfLink, was: PdfLink | null): void {
    const { context } = this.document;
    const set = (name: string, value: unknown): void =>
      dictionary.set(PDFName.of(name), context.obj(value as Parameters<typeof context.obj>[0]));
    const differs = (part: keyof PdfLink): boolean =>
      was === null || JSON.stringify(was[part]) !== JSON.stringify(link[part]);
    if (differs("areas")) {
      set("Rect", [...boxAround(link.areas)]);
      if (link.areas.length > 1) set("QuadPoints", link.areas.flatMap(cornersOf));
      else dictionary.delete(PDFName.of("QuadPoints"));
    }
    if (differs("frame"))
      for (const [name, value] of Object.entries(frameEntries(link.frame))) set(name, value);
    if (differs("description")) {
      if (link.description) dictionary.set(PDFName.of("Contents"), PDFHexString.fromText(link.description));
      else dictionary.delete(PDFName.of("Contents"));
    }
    if (differs("destination")) this.lead(dictionary, link);
  }

  private lead(dictionary: PDFDict, { destination }: PdfLink): void {
    const { context } = this.document;
    const outside = kindOf(destination).outside(destination);
    dictionary.delete(PDFName.of("A"));
    dictionary.delete(PDFName.of("Dest"));
    dictionary.delete(PDFName.of("PA"));
    if (outside.kind === "place") {
      const to = this.explicit(outside.target);
      if (to) dictionary.set(PDFName.of("Dest"), to);
      return;
    }
    const address =
      outside.kind === "address"
        ? outside.address
        : outside.kind === "file"
          ? encodeURI(this.names.files.get(outside.file) ?? outside.file) + behindPath(outside.at)
          : outside.path;
    // An address is of ASCII (12.6.4.7).
    const ascii = address.replace(/[^\x20-\x7e]/gu, (one) => encodeURIComponent(one));
    const action = context.obj({ Type: "Action", S: "URI" });
    action.set(PDFName.of("URI"), PDFString.of(ascii.replace(/[\\()]/g, String.raw`\$&`)));
    dictionary.set(PDFName.of("A"), action);
  }

  private explicit(target: string): PDFArray | null {
    const spot = this.spots.get(target);
    if (!spot) return null;
    const page = this.document.getPage(spot.page - 1);
    const { y, height } = page.getCropBox();
    return this.document.context.obj([page.ref, "XYZ", spot.x, spot.y ?? y + height, null]);
  }
}

/** The marked content on which a link lies (14.6), by its numbers. */
function contentsBeneath(letters: ReturnType<typeof lettersOf>, link: PdfLink): number[] {
  return lettersWithin(letters, link.areas).flatMap(({ content }) => {
    const id = /_mc(\d+)$/.exec(content ?? "")?.[1];
    return id === undefined ? [] : [Number(id)];
  });
}

/** The corners of an area as readers take them: upper left, upper right, lower left, lower right (common practice). */
function cornersOf([left, low, right, high]: PdfLink["areas"][number]): number[] {
  return [left, high, right, high, left, low, right, low];
}
