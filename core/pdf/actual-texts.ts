import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { contentOperators } from "./content-operators.ts";
import { PdfError } from "./errors.ts";
import { PdfObjects } from "./pdf-objects.ts";
import { PdfName, PdfRef, readTextString, type PdfDict, type PdfValue } from "./pdf-values.ts";

/**
 * What a PDF says that its marked content stands for (ISO 32000-1, 14.9.4): letters of which some are drawn together, as
 * those of Devanagari, are told by nothing else.
 */
export class ActualTexts {
  private constructor(
    private readonly document: PDFDocumentProxy,
    /** Null where the file's objects cannot be read one by one. */
    private readonly objects: PdfObjects | null,
  ) {}

  static async of(document: PDFDocumentProxy): Promise<ActualTexts> {
    const bytes = await document.getData();
    try {
      return new ActualTexts(document, new PdfObjects(bytes));
    } catch (error) {
      if (error instanceof PdfError) return new ActualTexts(document, null);
      throw error;
    }
  }

  /**
   * What each marked-content sequence of a page stands for, in the order in which they begin; null for one that says
   * nothing. Empty where a page has more than its own, as in forms that it draws.
   * @param number of the page, from 1
   * @param sequences how many there are
   */
  async ofPage(number: number, sequences: number): Promise<readonly (string | null)[]> {
    const page = await this.document.getPage(number);
    const ref = page.ref as { num: number } | null;
    if (!this.objects || !ref) return [];
    const dictionary = this.objects.dictionary(new PdfRef(ref.num));
    const contents = this.objects.read(dictionary.get("Contents"));
    const streams = Array.isArray(contents) ? contents : [dictionary.get("Contents")];
    const text = streams.map((stream) => this.objects!.stream(stream)).join("\n");
    if (!text.includes("/ActualText")) return [];
    const resources = this.objects.read(dictionary.get("Resources"));
    const found = textsOf(text, this.objects, resources instanceof Map ? resources : new Map());
    return found.length === sequences ? found : [];
  }
}

/** Each sequence of a page's content with what it stands for. */
function textsOf(content: string, objects: PdfObjects, resources: PdfDict): (string | null)[] {
  const found: (string | null)[] = [];
  for (const { name, operands } of contentOperators(content)) {
    if (name === "BMC") found.push(null);
    if (name === "BDC") found.push(textOf(operands.at(-1), objects, resources));
  }
  return found;
}

function textOf(given: PdfValue | undefined, objects: PdfObjects, resources: PdfDict): string | null {
  const named = objects.read(resources.get("Properties"));
  const properties =
    given instanceof PdfName && named instanceof Map ? objects.read(named.get(given.name)) : given;
  const text = properties instanceof Map ? objects.read(properties.get("ActualText")) : null;
  return readTextString(text);
}
