import {
  getDocument,
  VerbosityLevel,
  type PDFDocumentProxy,
  type PDFPageProxy,
} from "pdfjs-dist/legacy/build/pdf.mjs";
import { foldBlanks, ProofError, type ExportedLink, type ExportReading } from "./exported-link.ts";
import { fileBeside, hasScheme, openExport, type ExportedFolder } from "./exported-folder.ts";

interface StructureNode {
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
}

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
    const names = new Map<string, boolean>();
    const links: ExportedLink[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      links.push(...(await readPage(document, page, number, names, beside)));
      page.cleanup();
    }
    const pageOfPlace = await pagesOfPlaces(document);
    return { format: "pdf", pages: document.numPages, pageOfPlace, links };
  } finally {
    await task.destroy();
  }
}

async function readPage(
  document: PDFDocumentProxy,
  page: PDFPageProxy,
  number: number,
  names: Map<string, boolean>,
  beside: ExportedFolder["beside"],
): Promise<ExportedLink[]> {
  const annotations = ((await page.getAnnotations()) as Annotation[]).filter((a) => a.subtype === "Link");
  if (annotations.length === 0) return [];
  const byId = new Map(annotations.map((annotation) => [annotation.id, annotation]));
  const tree = (await page.getStructTree()) as StructureNode | null;
  const texts = await markedText(page);
  const links: ExportedLink[] = [];

  const read = async (annotation: Annotation, text: string, apparatus: boolean): Promise<void> => {
    byId.delete(annotation.id);
    const address = annotation.unsafeUrl ?? annotation.url;
    links.push({
      destination:
        address !== undefined
          ? hasScheme(address)
            ? { as: "address", address }
            : fileBeside(address, beside)
          : {
              as: "place",
              target: nameOf(annotation.dest),
              lands: await lands(document, annotation.dest, names),
            },
      text,
      description: annotation.contentsObj?.str || null,
      where: `page ${number}, at ${annotation.rect.map((n) => Math.round(n)).join(" ")}`,
      page: number,
      apparatus,
    });
  };

  const walk = async (node: StructureNode, apparatus: boolean): Promise<void> => {
    // Contents entries and note numbers are links that the typesetter makes.
    const inside = apparatus || node.role === "TOCI" || node.role === "Lbl";
    if (node.role === "Link") {
      const text = foldBlanks(textUnder(node, texts));
      for (const id of annotationsUnder(node)) {
        const annotation = byId.get(id);
        if (annotation) await read(annotation, text, inside);
      }
      return;
    }
    for (const child of node.children ?? []) await walk(child, inside);
  };
  if (tree) await walk(tree, false);
  for (const orphan of [...byId.values()]) await read(orphan, "", false);
  return links;
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

async function markedText(page: PDFPageProxy): Promise<Map<string, string>> {
  const content = await page.getTextContent({ includeMarkedContent: true });
  const texts = new Map<string, string>();
  const open: (string | null)[] = [];
  for (const item of content.items) {
    if ("type" in item) {
      if (item.type === "endMarkedContent") open.pop();
      else open.push(item.id ?? null);
      continue;
    }
    const id = open.findLast((candidate) => candidate !== null);
    if (id) texts.set(id, (texts.get(id) ?? "") + item.str + (item.hasEOL ? "\n" : ""));
  }
  return texts;
}

function textUnder(node: StructureNode, texts: Map<string, string>): string {
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

async function lands(
  document: PDFDocumentProxy,
  destination: unknown,
  names: Map<string, boolean>,
): Promise<boolean> {
  if (Array.isArray(destination)) return true;
  if (typeof destination !== "string") return false;
  const known = names.get(destination);
  if (known !== undefined) return known;
  const found = (await document.getDestination(destination)) !== null;
  names.set(destination, found);
  return found;
}
