import { ContentOperators } from "./content-operators.ts";
import { PdfError } from "./errors.ts";
import { FontLetters } from "./font-letters.ts";
import { LinesOfGlyphs } from "./lines-of-glyphs.ts";
import { multiplied, unchanged, type Matrix } from "./matrix.ts";
import { PagePaint, type PaintedPage } from "./page-paint.ts";
import type { PdfObjects } from "./pdf-objects.ts";
import {
  nameOf,
  PdfName,
  PdfRef,
  PdfString,
  readTextString,
  type PdfDict,
  type PdfValue,
} from "./pdf-values.ts";
import type { ShownItem } from "./shown-items.ts";

/** How letters are shown from here on (ISO 32000-1, 8.4 and 9.3). */
interface State {
  matrix: Matrix;
  font: FontLetters | null;
  fontName: string;
  size: number;
  charSpacing: number;
  stretched: number;
  leading: number;
  rise: number;
}

/**
 * What pages show, read from their content (ISO 32000-1, 9.4) as far as they are of the common kind: upright letters
 * in fonts that tell what their codes mean. It takes a quarter of the time that pdf.js takes, to which all
 * other pages are left.
 */
export class ContentTexts {
  private readonly fonts = new Map<number, FontLetters | null>();
  private readonly formsWithText = new Map<number, boolean>();

  constructor(private readonly objects: PdfObjects) {}

  /** What a page shows, and how it is painted. @param page the number of its object */
  read(page: number): PageContent {
    return (
      orNull(() => new PageReader(this.objects, page, this.fonts, this.formsWithText).read()) ?? {
        items: null,
        paint: null,
      }
    );
  }
}

/** What the content of a page comes to. */
export interface PageContent {
  /** Null where something of it is of another kind. */
  items: ShownItem[] | null;
  /** Null where it cannot be read. */
  paint: PaintedPage | null;
}

function orNull<T>(read: () => T): T | null {
  try {
    return read();
  } catch (error) {
    if (error instanceof PdfError) return null;
    throw error;
  }
}

class PageReader {
  private readonly lines = new LinesOfGlyphs();
  private readonly page: PdfDict;
  private readonly resources: PdfDict;
  private readonly box: readonly number[];
  private readonly kept: State[] = [];
  private state: State = {
    matrix: unchanged,
    font: null,
    fontName: "",
    size: 0,
    charSpacing: 0,
    stretched: 1,
    leading: 0,
    rise: 0,
  };
  /** Where the next letter is shown, and where its line begins. */
  private text = unchanged;
  private line = unchanged;

  constructor(
    private readonly objects: PdfObjects,
    page: number,
    private readonly fonts: Map<number, FontLetters | null>,
    private readonly formsWithText: Map<number, boolean>,
  ) {
    this.page = objects.dictionary(new PdfRef(page));
    this.resources = objects.dictionary(objects.inherited(this.page, "Resources"));
    const box = objects.inherited(this.page, "CropBox") ?? objects.inherited(this.page, "MediaBox");
    this.box = objects.several(box).map(Number);
    if (this.box.length !== 4) throw ofOtherKind();
  }

  read(): PageContent {
    const operators = new ContentOperators(this.objects.content(this.page));
    const paint = new PagePaint(this.objects, this.resources);
    const next = (): string | null => {
      const name = operators.next();
      if (name !== null) paint.perform(name, operators.operands);
      return name;
    };
    const items = orNull(() => {
      for (let name = next(); name !== null; name = next()) this.perform(name, operators.operands);
      return this.lines.items;
    });
    // What is of another kind is painted all the same.
    while (items === null && next() !== null);
    return { items, paint: paint.page };
  }

  private perform(operator: string, operands: PdfValue[]): void {
    const { state, lines } = this;
    const [first, second, third] = operands;
    switch (operator) {
      case "q":
        this.kept.push({ ...state });
        break;
      case "Q":
        this.state = this.kept.pop() ?? state;
        break;
      case "cm":
        state.matrix = multiplied(state.matrix, matrixOf(operands));
        break;
      case "gs":
        if (this.resource("ExtGState", first).has("Font")) throw ofOtherKind();
        break;
      case "Do":
        if (this.showsText(this.resourceRef("XObject", first))) throw ofOtherKind();
        break;
      case "BMC":
        this.begin(nameOf(first), new Map());
        break;
      case "BDC":
        this.begin(nameOf(first), second);
        break;
      case "EMC":
        lines.end();
        break;
      case "BT":
        this.text = this.line = unchanged;
        break;
      case "Tf":
        this.setFont(nameOf(first), Number(second));
        break;
      case "Tc":
        state.charSpacing = Number(first);
        break;
      case "Tz":
        state.stretched = Number(first) / 100;
        break;
      case "TL":
        state.leading = Number(first);
        break;
      case "Ts":
        state.rise = Number(first);
        break;
      case "Tm":
        this.text = this.line = matrixOf(operands);
        break;
      case "TD":
        state.leading = -Number(second);
        this.move(Number(first), Number(second));
        break;
      case "Td":
        this.move(Number(first), Number(second));
        break;
      case "T*":
        this.move(0, -state.leading);
        break;
      case '"':
        state.charSpacing = Number(second);
        this.move(0, -state.leading);
        this.show([third ?? null]);
        break;
      case "'":
        this.move(0, -state.leading);
        this.show(operands);
        break;
      case "Tj":
        this.show(operands);
        break;
      case "TJ":
        this.show(this.objects.several(first));
        break;
    }
  }

  private setFont(name: string, size: number): void {
    this.state.size = size;
    if (name === this.state.fontName) return;
    this.state.fontName = name;
    const ref = this.resourceRef("Font", new PdfName(name));
    let font = this.fonts.get(ref.number);
    if (font === undefined)
      this.fonts.set(ref.number, (font = FontLetters.of(this.objects, this.objects.dictionary(ref))));
    this.state.font = font;
  }

  private move(x: number, y: number): void {
    this.text = this.line = multiplied(this.line, [1, 0, 0, 1, x, y]);
  }

  private begin(tag: string, given: PdfValue | undefined): void {
    const properties =
      given instanceof PdfName ? this.resource("Properties", given) : this.objects.dictionary(given);
    const number = this.objects.read(properties.get("MCID"));
    this.lines.begin({
      tag,
      // Those that are named in the resources have none, by pdf.js.
      id: Number.isInteger(number) && !(given instanceof PdfName) ? `mc${String(number)}` : null,
      actual: readTextString(this.objects.read(properties.get("ActualText"))),
    });
  }

  /** Shows strings, with numbers between them by which what follows is moved to the left, in thousandths of the size. */
  private show(parts: readonly PdfValue[]): void {
    const { font, size, stretched, charSpacing, rise, matrix } = this.state;
    const [a, b, c, d, e, f] = multiplied(matrix, this.text);
    if (!font || b !== 0 || c !== 0 || a <= 0 || d <= 0) throw ofOtherKind();
    const [left = 0, low = 0, right = 0, high = 0] = this.box;
    const y = f + rise * d;
    const kind = `${this.state.fontName} ${size}`;
    let along = 0;
    for (const part of parts) {
      if (typeof part === "number") along -= (part / 1000) * size * stretched;
      if (!(part instanceof PdfString)) continue;
      const { bytes } = part;
      for (let i = 0; i < bytes.length; i += 2) {
        const glyph = font.glyph((bytes.charCodeAt(i) << 8) | bytes.charCodeAt(i + 1));
        if (!glyph) throw ofOtherKind();
        const x = e + along * a;
        const width = (glyph.width / 1000) * size * stretched;
        along += width + charSpacing * stretched;
        const isOnPage = x + width * a >= left && x <= right && y >= low && y <= high;
        if (isOnPage) this.lines.add(glyph, x, y, width * a, size * d, kind);
      }
    }
    this.text = multiplied(this.text, [1, 0, 0, 1, along, 0]);
  }

  private resourceRef(kind: string, name: PdfValue | undefined): PdfRef {
    const ref = this.objects.dictionary(this.resources.get(kind)).get(nameOf(name));
    if (!(ref instanceof PdfRef)) throw ofOtherKind();
    return ref;
  }

  private resource(kind: string, name: PdfValue | undefined): PdfDict {
    return this.objects.dictionary(this.objects.dictionary(this.resources.get(kind)).get(nameOf(name)));
  }

  /** Whether a form that is drawn shows text of its own, or draws others. */
  private showsText(ref: PdfRef): boolean {
    let shows = this.formsWithText.get(ref.number);
    if (shows === undefined) {
      const isForm = nameOf(this.objects.dictionary(ref).get("Subtype")) === "Form";
      shows = isForm && /\b(?:BT|Do|BDC|BMC|gs)\b/.test(this.objects.stream(ref));
      this.formsWithText.set(ref.number, shows);
    }
    return shows;
  }
}

function matrixOf(operands: readonly PdfValue[]): Matrix {
  if (operands.length !== 6 || operands.some((one) => typeof one !== "number")) throw ofOtherKind();
  return operands as unknown as Matrix;
}

function ofOtherKind(): PdfError {
  return new PdfError("kind", "The page shows something of a kind that is not read here.");
}
