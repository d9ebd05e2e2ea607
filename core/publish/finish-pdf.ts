import type { MarkedLink } from "./typeset.ts";

/** A PDF was not as the typesetter writes it, so it could not be finished. */
export class FinishError extends Error {
  override readonly name = "FinishError";
  constructor(
    readonly code: "trailer" | "marker" | "page",
    message: string,
  ) {
    super(message);
  }
}

/** Where a landing place stands: its page, counted from 1, and points from the page's top left corner. */
export interface PdfPlace {
  id: string;
  /** The place that holds it, where it is inside a heading; else itself. */
  by: string;
  page: number;
  x: number;
  y: number;
}

// From a line's foot to where a reader's window begins, so that the line is seen whole.
const lineHeight = 10;

/**
 * Finishes the typesetter's PDF: puts each marked link's true address or place and its alternate
 * description (ISO 14289-1, 7.18.5) in place of its marker, and names every landing place as a destination
 * with coordinates (ISO 32000, 12.3.2.4), unless the typesetter has named it. Areas of a picture that is a link itself
 * are laid over that link. It does so by an incremental update (ISO 32000, 7.5.6): changed and new objects and a cross-reference
 * section for them are appended, and nothing before them is touched.
 * @throws FinishError where a marker, a page, or the trailer is not found.
 */
export function finishPdf(pdf: Uint8Array, marked: MarkedLink[], places: PdfPlace[]): Uint8Array {
  if (marked.length === 0 && places.length === 0) return pdf;
  // One character a byte, so that positions in the text are positions in the file.
  const text = new TextDecoder("latin1").decode(pdf);
  const trailer = /trailer\s*<<([\s\S]*?)>>\s*startxref\s+(\d+)\s+%%EOF\s*$/.exec(text);
  if (!trailer)
    throw new FinishError("trailer", "The typesetter's PDF has no trailer that can be continued.");
  const size = Number(/\/Size (\d+)/.exec(trailer[1]!)![1]);
  const read = readerOf(text, Number(trailer[2]));
  const pages = places.length > 0 ? pagesOf(read, trailer[1]!) : [];
  const named =
    places.length > 0 ? namePlaces(read, trailer[1]!, size, places, pages) : { objects: [], size };
  const objects = [...linkObjects(text, marked), ...named.objects, ...reorderedPages(read, pages)];
  objects.sort((a, b) => a.number - b.number);
  let offset = pdf.length + 1;
  let update = "\n";
  let table = "xref\n";
  for (const { number, body } of objects) {
    table += `${number} 1\n${String(offset).padStart(10, "0")} 00000 n \n`;
    update += body;
    offset += body.length;
  }
  const kept = trailer[1]!.replace(/\/Size \d+/, `/Size ${named.size}`);
  update += `${table}trailer\n<<${kept} /Prev ${trailer[2]!}\n>>\nstartxref\n${offset}\n%%EOF\n`;
  const out = new Uint8Array(pdf.length + update.length);
  out.set(pdf);
  // Everything in the update is Latin-1: literal strings are ASCII, text strings hexadecimal.
  for (let i = 0; i < update.length; i++) out[pdf.length + i] = update.charCodeAt(i);
  return out;
}

interface PdfObject {
  number: number;
  body: string;
}

/** The annotations of the marked links, written anew. */
function linkObjects(text: string, marked: MarkedLink[]): PdfObject[] {
  const byMarker = new Map(marked.map((link) => [link.marker, link]));
  const missing = new Set(byMarker.keys());
  const objects: PdfObject[] = [];
  for (const match of text.matchAll(/\/URI \((https:\/\/vennet\.invalid\/\d+)\)/g)) {
    const link = byMarker.get(match[1]!);
    if (!link) continue;
    const start = text.lastIndexOf(" 0 obj", match.index);
    const end = text.indexOf("endobj", match.index);
    const number = Number(/(\d+)$/.exec(text.slice(Math.max(0, start - 10), start))![1]);
    const body = text
      .slice(start, end)
      .replace(/\/A <<[^>]*>>/, (action) =>
        "place" in link.to
          ? `/Dest (${link.to.place})`
          : action.replace(`(${link.marker})`, () => literalString((link.to as { address: string }).address)),
      )
      .replace(`/Contents (${link.marker})`, () => `/Contents ${textString(link.description)}`);
    objects.push({ number, body: `${number}${body}endobj\n` });
    missing.delete(link.marker);
  }
  if (missing.size > 0)
    throw new FinishError("marker", `The typesetter's PDF lacks ${missing.size} of the marked links.`);
  return objects;
}

/** A destination object for each place, and the catalog with their names beside those that it has. */
function namePlaces(
  read: ReadObject,
  trailer: string,
  size: number,
  places: PdfPlace[],
  pages: PdfPage[],
): { objects: PdfObject[]; size: number } {
  const root = rootOf(trailer);
  const catalog = read(root);
  const names = new Map(
    [
      ...(/\/Dests <<\s*\/Names \[([^\]]*)\]/.exec(catalog)?.[1] ?? "").matchAll(/\((\w[\w-]*)\) (\d+ 0 R)/g),
    ].map(([, name, reference]) => [name!, reference!]),
  );
  const objects: PdfObject[] = [];
  for (const { id, by, page, x, y } of places) {
    if (names.has(id)) continue;
    const same = names.get(by);
    if (same) {
      names.set(id, same);
      continue;
    }
    const sheet = pages[page - 1];
    if (!sheet) throw new FinishError("page", `The typesetter's PDF lacks page ${page}.`);
    const number = size++;
    const top = Math.min(sheet.height, sheet.height - y + lineHeight);
    objects.push({
      number,
      body: `${number} 0 obj\n[${sheet.number} 0 R /XYZ ${fixed(x)} ${fixed(top)} null]\nendobj\n`,
    });
    names.set(id, `${number} 0 R`);
  }
  // A name tree is sorted by its keys (ISO 32000, 7.9.6).
  const sorted = [...names].sort(([a], [b]) => (a < b ? -1 : 1));
  const tree = `/Names << /Dests << /Names [${sorted.map(([name, to]) => `(${name}) ${to}`).join(" ")}] >> >>`;
  const bare = catalog.replace(/\/Names <<\s*\/Dests <<\s*\/Names \[[^\]]*\]\s*>>\s*/, (dests) => {
    // Other name trees, such as that of embedded files, stay beside it.
    return dests.replace(
      /\/Dests <<\s*\/Names \[[^\]]*\]\s*>>/,
      tree.slice("/Names << ".length, -" >>".length),
    );
  });
  const whole = bare === catalog ? catalog.replace(/>>\s*$/, () => `${tree}\n>>\n`) : bare;
  objects.push({ number: root, body: `${root} 0 obj${whole}endobj\n` });
  return { objects, size };
}

interface PdfPage {
  number: number;
  /** In points. */
  height: number;
  content: string;
}

function rootOf(trailer: string): number {
  return Number(/\/Root (\d+) 0 R/.exec(trailer)![1]);
}

/** The pages in their order. */
function pagesOf(read: ReadObject, trailer: string): PdfPage[] {
  const under = (tree: number): PdfPage[] => {
    const kids = /\/Kids \[([^\]]*)\]/.exec(read(tree))?.[1] ?? "";
    return [...kids.matchAll(/(\d+) 0 R/g)].flatMap(([, kid]) => {
      const number = Number(kid);
      const content = read(number);
      if (/\/Type \/Pages\b/.test(content)) return under(number);
      const box = numbersIn(/\/MediaBox \[([^\]]*)\]/.exec(content)![1]!);
      return [{ number, height: box[3]! - box[1]!, content }];
    });
  };
  return under(Number(/\/Pages (\d+) 0 R/.exec(read(rootOf(trailer)))![1]));
}

/**
 * The pages on which a link lies over another that it contains, with their annotations the other way round: readers'
 * programs give a press to the last one that it falls on.
 */
function reorderedPages(read: ReadObject, pages: PdfPage[]): PdfObject[] {
  return pages.flatMap(({ number, content }) => {
    const list = /\/Annots \[([^\]]*)\]/.exec(content);
    const annotations = [...(list?.[1] ?? "").matchAll(/(\d+) 0 R/g)].map(([reference, object]) => ({
      reference,
      rect: numbersIn(/\/Rect \[([^\]]*)\]/.exec(read(Number(object)))?.[1] ?? "0 0 0 0"),
    }));
    const isCovered = annotations.some(({ rect }, i) =>
      annotations
        .slice(i + 1)
        .some((later) => areaOf(later.rect) > areaOf(rect) && contains(later.rect, rect)),
    );
    if (!isCovered) return [];
    const order = [...annotations].sort((a, b) => areaOf(b.rect) - areaOf(a.rect));
    const body = content.replace(list![0], `/Annots [${order.map(({ reference }) => reference).join(" ")}]`);
    return [{ number, body: `${number} 0 obj${body}endobj\n` }];
  });
}

function contains([left, low, right, high]: number[], inner: number[]): boolean {
  return left! <= inner[0]! && low! <= inner[1]! && right! >= inner[2]! && high! >= inner[3]!;
}

function areaOf([left, low, right, high]: number[]): number {
  return (right! - left!) * (high! - low!);
}

function numbersIn(text: string): number[] {
  return text.trim().split(/\s+/).map(Number);
}

/** Gives what stands between the first and the last word of an object. */
type ReadObject = (number: number) => string;

/** Finds objects by the cross-reference table (ISO 32000, 7.5.4), whose entries are of 20 bytes each. */
function readerOf(text: string, table: number): ReadObject {
  const head = /^xref\s+0 \d+\s*\n/.exec(text.slice(table, table + 40));
  if (!head) throw new FinishError("trailer", "The typesetter's PDF has no table of its objects.");
  return (number) => {
    const entry = table + head[0].length + number * 20;
    const start = Number(text.slice(entry, entry + 10));
    return text.slice(text.indexOf("obj", start) + 3, text.indexOf("endobj", start));
  };
}

function fixed(points: number): string {
  return String(Math.round(points * 100) / 100);
}

/** A URI as a literal string (ISO 32000, 7.3.4.2); URIs are ASCII (12.6.4.8). */
function literalString(uri: string): string {
  const ascii = uri.replace(/[^\x21-\x7e]+/g, (run) => encodeURIComponent(run));
  return `(${ascii.replace(/[\\()]/g, "\\$&")})`;
}

/** Words as a UTF-16 text string (ISO 32000, 7.9.2.2), written in hexadecimal. */
function textString(words: string): string {
  let hex = "FEFF";
  for (let i = 0; i < words.length; i++) hex += words.charCodeAt(i).toString(16).padStart(4, "0");
  return `<${hex.toUpperCase()}>`;
}
