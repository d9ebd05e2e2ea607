import type { PDFPageProxy } from "pdfjs-dist/legacy/build/pdf.mjs";

/** What a page shows, in the order in which it is drawn: letters, and where marked content begins and ends (ISO 32000-1, 14.6). */
export type ShownItem = MarkBegins | { kind: "ends" } | LettersOfLine;

export interface MarkBegins {
  kind: "begins";
  tag: string;
  /** By which the structure names it, on its page. */
  id: string | null;
  /** What it says that its letters stand for (14.9.4). */
  actual: string | null;
}

/** Letters that stand on one line without a gap. */
export interface LettersOfLine {
  kind: "letters";
  words: string;
  /** Where they begin, on their baseline, in points from the page's corner. */
  x: number;
  y: number;
  width: number;
  height: number;
  /** Whether something is drawn, were it a hyphen that stands for nothing, or a blank alone. */
  isDrawn: boolean;
  isRightToLeft: boolean;
  endsLine: boolean;
}

/**
 * What a page shows, as pdf.js tells it.
 * @param prefix with which what is marked on the page is named, and which is left away
 * @param actualOf what so many marked contents stand for
 */
export async function itemsByPdfJs(
  page: PDFPageProxy,
  prefix: string,
  actualOf: (sequences: number) => readonly (string | null)[],
): Promise<ShownItem[]> {
  const { items } = await page.getTextContent({ includeMarkedContent: true });
  const actual = actualOf(items.filter((item) => "type" in item && item.type !== "endMarkedContent").length);
  let begun = 0;
  return items.map((item): ShownItem => {
    if (!("type" in item)) {
      const [, , , , x, y] = item.transform as [number, number, number, number, number, number];
      return {
        kind: "letters",
        words: item.str,
        x,
        y,
        width: item.width,
        height: item.height,
        isDrawn: item.str.trim() !== "",
        isRightToLeft: item.dir === "rtl",
        endsLine: item.hasEOL,
      };
    }
    if (item.type === "endMarkedContent") return { kind: "ends" };
    const { tag } = item as { tag?: string };
    return {
      kind: "begins",
      tag: tag ?? "",
      id: item.id?.replace(prefix, "") ?? null,
      actual: actual[begun++] ?? null,
    };
  });
}
