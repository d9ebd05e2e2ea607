import type { PDFDocumentProxy, PDFPageProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import {
  foldBlanks,
  ProofError,
  type Box,
  type ExportedLink,
  type ExportReading,
  type FormatTraits,
} from "../../../proof/exported-link.ts";
import { fileBeside, hasScheme, openExport } from "../../../proof/exported-folder.ts";
import { getDocument, VerbosityLevel } from "../../../pdf/pdf-js.ts";
import { Landings } from "./landings.ts";
import { PdfPageTexts } from "../../../pdf/page-text.ts";
import { whereOf } from "../../../proof/where-in-pdf.ts";

/** A node of a page's structure tree, as pdf.js gives it. */
export interface StructureNode {
  role?: string;
  type?: string;
  id?: string;
  alt?: string;
  children?: StructureNode[];
}

interface Annotation {
  id: string;
  subtype: string;
  url?: string;
  unsafeUrl?: string;
  dest?: unknown;
  contentsObj?: { str: string };
  rect: number[];
  quadPoints?: Float32Array | null;
}

const traits: FormatTraits = { isPaged: true, hasOwnNotes: false, hasTitle: true };

/**
 * Reads every link out of a PDF's own bytes with pdf.js: its annotations for the destinations, its
 * structure tree for the words (ISO 14289-1, 7.18.5: each link annotation is inside a Link element).
 * A link annotation outside the structure tree is returned with no text, so that no proof passes it.
 * @throws ProofError where the file cannot be opened.
 */
export async function readPdf(bytes: Uint8Array): Promise<ExportReading> {
  const { main, beside } = openExport(bytes);
  const task = getDocument({
    // pdf.js takes the buffer for itself, so it gets a copy.
    data: new Uint8Array(main),
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    useSystemFonts: false,
  });
  let document: PDFDocumentProxy;
  try {
    document = await task.promise;
  } catch (error) {
    throw new ProofError("unreadable", `The PDF cannot be opened: ${(error as Error).message}`);
  }
  try {
    const texts = new PdfPageTexts(document);
    const landings = new Landings(document, texts);
    const links: ExportedLink[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      links.push(...(await readPage(page, number, texts)));
      page.cleanup();
    }
    for (const { destination } of links)
      if (destination.kind === "place") destination.landing = await landings.at(destination.target);
    const pageOfPlace = await pagesOfPlaces(document);
    return { traits, pages: document.numPages, files: beside, pageOfPlace, links };
  } finally {
    await task.destroy();
  }
}

async function readPage(
  page: PDFPageProxy,
  number: number,
  pageTexts: PdfPageTexts,
): Promise<ExportedLink[]> {
  // For the screen, pdf.js would read the page's text once more, only to tell what lies under each annotation.
  const all = (await page.getAnnotations({ intent: "print" })) as Annotation[];
  const annotations = all.filter(({ subtype }) => subtype === "Link");
  if (annotations.length === 0) return [];
  const byId = new Map(annotations.map((annotation) => [annotation.id, annotation]));
  const tree = (await page.getStructTree()) as StructureNode | null;
  const { marked: texts } = await pageTexts.of(number);
  const links: ExportedLink[] = [];

  const read = (annotation: Annotation, text: string, apparatus: boolean): void => {
    byId.delete(annotation.id);
    const address = annotation.unsafeUrl ?? annotation.url;
    links.push({
      destination:
        address !== undefined
          ? hasScheme(address)
            ? { kind: "address", address }
            : fileBeside(address)
          : { kind: "place", target: nameOf(annotation.dest), landing: null },
      text,
      description: annotation.contentsObj?.str || null,
      where: whereOf(number, annotation.rect),
      page: number,
      boxes: boxesOf(annotation),
      apparatus,
    });
  };

  const walk = (node: StructureNode, apparatus: boolean): void => {
    // Contents entries and note numbers are links that the typesetter makes.
    const inside = apparatus || node.role === "TOCI" || node.role === "Lbl";
    if (node.role === "Link") {
      const text = foldBlanks(textUnder(node, texts));
      for (const id of annotationsUnder(node)) {
        const annotation = byId.get(id);
        if (annotation) read(annotation, text, inside);
      }
      return;
    }
    for (const child of node.children ?? []) walk(child, inside);
  };
  if (tree) walk(tree, false);
  for (const orphan of [...byId.values()]) read(orphan, "", false);
  // In the order in which they are laid over the page, so that a later one covers those before it.
  const order = new Map(annotations.map(({ rect }, i) => [whereOf(number, rect), i]));
  return links.sort((a, b) => order.get(a.where)! - order.get(b.where)!);
}

/** The label of the page (ISO 32000, 12.4.2) on which each named destination lies. */
async function pagesOfPlaces(document: PDFDocumentProxy): Promise<Map<string, string>> {
  const labels = await document.getPageLabels();
  const named = Object.entries((await document.getDestinations()) as Record<string, unknown[]>);
  const pages = new Map<string, string>();
  for (const [name, destination] of named) {
    const at = await document.getPageIndex(destination[0] as Parameters<typeof document.getPageIndex>[0]);
    pages.set(name, labels?.[at] ?? String(at + 1));
  }
  return pages;
}

function textUnder(node: StructureNode, texts: ReadonlyMap<string, string>): string {
  if (node.role === "Figure") return node.alt ?? "";
  if (node.type === "content") return texts.get(node.id ?? "") ?? "";
  return (node.children ?? []).map((child) => textUnder(child, texts)).join("");
}

function annotationsUnder(node: StructureNode): string[] {
  if (node.type === "object" || node.type === "annotation") return [node.id ?? ""];
  return (node.children ?? []).flatMap(annotationsUnder);
}

function nameOf(destination: unknown): string {
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
