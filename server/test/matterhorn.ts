import { PdfObjects } from "@vennet/core/pdf/pdf-objects";
import { ContentOperators } from "@vennet/core/pdf/content-operators";
import {
  PdfName,
  PdfRef,
  PdfString,
  readTextString,
  type PdfDict,
  type PdfValue,
} from "@vennet/core/pdf/pdf-values";

/**
 * What of the Matterhorn Protocol 1.1 a PDF fails (from memory): its checkpoints for real content (01), the structure tree
 * (09), natural language (11), annotations (28) and fonts (31), as far as they are for programs to judge.
 */
export function matterhorn(bytes: Uint8Array): string[] {
  return new Judge(new PdfObjects(bytes)).failures();
}

class Judge {
  private readonly failed = new Set<string>();
  /** The annotations that elements hold, with the name of each element. */
  private readonly held = new Map<number, string>();
  private readonly fonts = new Set<number>();

  constructor(private readonly objects: PdfObjects) {}

  failures(): string[] {
    const catalog = this.dictionary(this.objects.trailer.get("Root"));
    const marks = this.objects.read(catalog.get("MarkInfo"));
    this.want("06-001 it is not marked as tagged", marks instanceof Map && marks.get("Marked") === true);
    const language = catalog.get("Lang");
    this.want(
      "11-006 it has no natural language",
      language instanceof PdfString && isLanguage(language.bytes),
    );
    const structure = this.objects.read(catalog.get("StructTreeRoot"));
    this.want("01-005 it has no structure", structure instanceof Map);
    if (structure instanceof Map) this.judgeElement(structure, null);
    this.judgePages(this.dictionary(catalog.get("Pages")));
    return [...this.failed].sort();
  }

  private judgeElement(element: PdfDict, parent: string | null): void {
    const name = nameOf(element.get("S"));
    if (name === "TOCI") this.want("09-005 a TOCI is in no TOC", parent === "TOC");
    if (name === "LI") this.want("09-004 an LI is in no L", parent === "L");
    if (name === "TR")
      this.want("09-004 a TR is in no table", /^(Table|THead|TBody|TFoot)$/.test(parent ?? ""));
    if (name === "Figure")
      this.want("13-004 a figure has no text alternative", element.has("Alt") || element.has("ActualText"));
    const language = element.get("Lang");
    if (language instanceof PdfString) this.want("11-005 a language is no tag", isLanguage(language.bytes));
    const kids = this.objects.read(element.get("K"));
    for (const kid of Array.isArray(kids) ? kids : [element.get("K")]) {
      const inner = this.objects.read(kid);
      if (!(inner instanceof Map)) continue;
      const annotation = inner.get("Obj");
      if (annotation instanceof PdfRef) this.held.set(annotation.number, name ?? "");
      else this.judgeElement(inner, name ?? parent);
    }
  }

  private judgePages(node: PdfDict): void {
    const kids = this.objects.read(node.get("Kids"));
    if (Array.isArray(kids)) {
      for (const kid of kids) this.judgePages(this.dictionary(kid));
      return;
    }
    const annotations = (this.objects.read(node.get("Annots")) ?? []) as PdfValue[];
    if (annotations.length > 0)
      this.want(
        "28-008 a page with annotations does not follow its structure",
        nameOf(node.get("Tabs")) === "S",
      );
    for (const ref of annotations) {
      const annotation = this.dictionary(ref);
      const number = ref instanceof PdfRef ? ref.number : -1;
      if (nameOf(annotation.get("Subtype")) !== "Link") continue;
      this.want("28-010 a link is in no Link element", this.held.get(number) === "Link");
      const told = readTextString(annotation.get("Contents"));
      this.want("28-012 a link has no alternate description", told !== null && told.trim() !== "");
    }
    this.judgeContent(node);
    const resources = this.objects.read(node.get("Resources"));
    const fonts = resources instanceof Map ? this.objects.read(resources.get("Font")) : null;
    if (fonts instanceof Map) for (const font of fonts.values()) this.judgeFont(font);
  }

  /** All that is shown is real content or an artifact. */
  private judgeContent(page: PdfDict): void {
    const open: boolean[] = [];
    const operators = new ContentOperators(this.objects.content(page));
    for (let name = operators.next(); name !== null; name = operators.next()) {
      const { operands } = operators;
      if (name === "BDC" || name === "BMC") {
        const properties = operands.at(-1);
        const isArtifact = nameOf(operands[0]) === "Artifact";
        open.push(isArtifact || (properties instanceof Map && properties.has("MCID")));
      }
      if (name === "EMC") open.pop();
      if (/^(Tj|TJ|Do|S|f|f\*|B|B\*)$/.test(name))
        this.want("01-005 something is shown that is neither content nor an artifact", open.includes(true));
    }
  }

  private judgeFont(ref: PdfValue): void {
    if (ref instanceof PdfRef && this.fonts.has(ref.number)) return;
    if (ref instanceof PdfRef) this.fonts.add(ref.number);
    const font = this.dictionary(ref);
    this.want("31-027 a font does not tell its letters", font.has("ToUnicode"));
    const inner = this.objects.read(font.get("DescendantFonts"));
    const own = Array.isArray(inner) ? this.dictionary(inner[0]) : font;
    const descriptor = this.objects.read(own.get("FontDescriptor"));
    const isEmbedded =
      descriptor instanceof Map &&
      ["FontFile", "FontFile2", "FontFile3"].some((file) => descriptor.has(file));
    this.want("31-009 a font is not embedded", isEmbedded);
    if (nameOf(own.get("Subtype")) === "CIDFontType2")
      this.want("31-004 a font's letters are not mapped to its shapes", own.has("CIDToGIDMap"));
  }

  private dictionary(value: PdfValue | undefined): PdfDict {
    return this.objects.dictionary(value);
  }

  private want(failure: string, holds: boolean): void {
    if (!holds) this.failed.add(failure);
  }
}

function nameOf(value: PdfValue | undefined): string | null {
  return value instanceof PdfName ? value.name : null;
}

function isLanguage(tag: string): boolean {
  try {
    return new Intl.Locale(tag).language !== "";
  } catch {
    return false;
  }
}
