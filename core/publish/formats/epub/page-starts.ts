import type { PageStart } from "./page-breaks.ts";
import { openExport } from "../../../proof/exported-folder.ts";
import { openPdf } from "../../../pdf/pdf-js.ts";
import { PageStructures, type StructureNode } from "../../../pdf/page-structures.ts";
import { PdfObjects } from "../../../pdf/pdf-objects.ts";
import { PdfPageTexts, textOf, type PdfPageText } from "../../../pdf/page-text.ts";

const wordsRead = 120;

/** What stands on a page beside its running text: numbers of lists and notes, notes, contents lists. */
const beside = new Set(["Lbl", "Note", "FENote", "TOC", "TOCI", "Artifact"]);

/** Reads the first words of each page of an exported PDF, by its structure tree. */
export async function readPageStarts(bytes: Uint8Array): Promise<PageStart[]> {
  const { main } = openExport(bytes);
  const task = openPdf(main);
  const document = await task.promise;
  try {
    const labels = await document.getPageLabels();
    const objects = new PdfObjects(main);
    const texts = new PdfPageTexts(document, objects);
    const structures = new PageStructures(objects);
    const starts: PageStart[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      const { marked } = await texts.of(number);
      const words = firstWords(structures.of((page.ref as { num: number }).num), marked);
      // A page that has no number where others have one is none of those that are told.
      const label = labels ? labels[number - 1]! : String(number);
      if (words !== "" && label !== "") starts.push({ label, words });
      page.cleanup();
    }
    return starts;
  } finally {
    await task.destroy();
  }
}

function firstWords(tree: StructureNode | null, marked: PdfPageText["marked"]): string {
  if (!tree) return "";
  let words = "";
  const read = (node: StructureNode): void => {
    if (words.length >= wordsRead || beside.has(node.role ?? "")) return;
    if (node.type === "content") words += `${textOf(marked.get(node.id ?? "") ?? [])} `;
    for (const child of node.children ?? []) read(child);
  };
  read(tree);
  return words.replace(/\s+/g, " ").trim();
}
