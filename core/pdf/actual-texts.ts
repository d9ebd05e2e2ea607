import { ContentOperators } from "./content-operators.ts";
import { PdfError } from "./errors.ts";
import type { PdfObjects } from "./pdf-objects.ts";
import { PdfName, PdfRef, readTextString, type PdfDict, type PdfValue } from "./pdf-values.ts";

/**
 * What a PDF says that its marked content stands for (ISO 32000-1, 14.9.4): letters of which some are drawn together, as
 * those of Devanagari, are told by nothing else.
 */
export class ActualTexts {
  constructor(private readonly objects: PdfObjects) {}

  /**
   * What each marked-content sequence of a page stands for, in the order in which they begin; null for one that says
   * nothing. Empty where a page has more than its own, as in forms that it draws, or pictures between its operators.
   * @param page the number of its object
   * @param sequences how many there are
   */
  ofPage(page: number, sequences: number): readonly (string | null)[] {
    const dictionary = this.objects.dictionary(new PdfRef(page));
    const resources = this.objects.read(this.objects.inherited(dictionary, "Resources"));
    const named = resources instanceof Map ? this.objects.read(resources.get("Properties")) : null;
    const text = this.objects.content(dictionary);
    if (!text.includes("/ActualText") && !(named instanceof Map)) return [];
    try {
      const found = textsOf(text, this.objects, named instanceof Map ? named : new Map());
      return found.length === sequences ? found : [];
    } catch (error) {
      if (error instanceof PdfError && error.code === "kind") return [];
      throw error;
    }
  }
}

/** Each sequence of a page's content with what it stands for. */
function textsOf(content: string, objects: PdfObjects, named: PdfDict): (string | null)[] {
  const found: (string | null)[] = [];
  const operators = new ContentOperators(content);
  for (let name = operators.next(); name !== null; name = operators.next()) {
    if (name === "BMC") found.push(null);
    if (name === "BDC") found.push(textOf(operators.operands.at(-1), objects, named));
  }
  return found;
}

function textOf(given: PdfValue | undefined, objects: PdfObjects, named: PdfDict): string | null {
  const properties = given instanceof PdfName ? objects.read(named.get(given.name)) : given;
  const text = properties instanceof Map ? objects.read(properties.get("ActualText")) : null;
  return readTextString(text);
}
