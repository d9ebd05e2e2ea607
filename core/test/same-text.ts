import { ActualTexts } from "../pdf/actual-texts.ts";
import { ContentTexts } from "../pdf/content-texts.ts";
import { PdfObjects } from "../pdf/pdf-objects.ts";
import { openPdf } from "../pdf/pdf-js.ts";
import { itemsByPdfJs, type LettersOfLine, type ShownItem } from "../pdf/shown-items.ts";

/** How far letters may stand from where the other reader has them, in points. */
const tolerance = 0.05;

const rightToLeft = /[\u0590-\u08ff\u200f\ufb1d-\ufdff\ufe70-\ufefe]/;
/** pdf.js turns words round letter by letter, also where one glyph stands for several. */
const inSomeOrder = (words: string): string => (rightToLeft.test(words) ? [...words].sort().join("") : words);

/** Letters between two marks, as one. */
interface Run {
  words: string;
  /** Left and right end, baseline, height. */
  place: number[];
}

/**
 * The text of each page of a PDF as it is read here beside what pdf.js reads.
 * @returns how many pages are read here, and what the two tell otherwise
 */
export async function textsBesidePdfJs(bytes: Uint8Array): Promise<{ read: number; different: unknown[] }> {
  const task = openPdf(bytes);
  const document = await task.promise;
  try {
    const objects = new PdfObjects(bytes);
    const texts = new ContentTexts(objects);
    const actual = new ActualTexts(objects);
    const different: unknown[] = [];
    let read = 0;
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      const { num } = page.ref as { num: number };
      const own = texts.read(num).items;
      const other = await itemsByPdfJs(page, `p${num}R_`, (count) => actual.ofPage(num, count));
      if (!own) {
        different.push({ page: number, isLeft: true });
        continue;
      }
      read++;
      const pdfJs = runsOf(other);
      // Letters with marks are of no width to pdf.js: what it tells of room beside them is not so.
      const isExact = !/\p{Mn}/u.test(JSON.stringify(own));
      runsOf(own).forEach((run, i) => {
        if (!isSame(run, pdfJs[i], isExact)) different.push({ page: number, own: run, pdfJs: pdfJs[i] });
      });
      if (runsOf(own).length !== pdfJs.length) different.push({ page: number });
    }
    return { read, different };
  } finally {
    await task.destroy();
  }
}

function isSame(one: Run | string, other: Run | string | undefined, isExact: boolean): boolean {
  if (typeof one === "string" || typeof other === "string" || !other) return one === other;
  const [words, others] = [inSomeOrder(one.words), inSomeOrder(other.words)];
  if (!isExact) return words.replace(/\s/g, "") === others.replace(/\s/g, "");
  return (
    // pdf.js tells no blank that is drawn so narrow that what it parts touches, and one where a hyphen is drawn.
    words.replace(/^ /, "") === others.replace(/^ /, "") &&
    one.place.every((value, i) => Math.abs(value - other.place[i]!) < tolerance)
  );
}

/** What a page shows, with the letters between two marks as one: where one of them ends and the next begins is a reader's own. */
function runsOf(items: readonly ShownItem[]): (Run | string)[] {
  const runs: (Run | string)[] = [];
  let letters: LettersOfLine[] = [];
  const finish = (): void => {
    const words = letters.map((one) => one.words + (one.endsLine ? "\n" : "")).join("");
    const seen = letters.filter((one) => one.words.trim() !== "");
    letters = [];
    if (words === "") return;
    const [first, last] = [seen[0], seen.at(-1)];
    runs.push({ words, place: first && last ? [first.x, last.x + last.width, first.y, last.height] : [] });
  };
  for (const item of items) {
    if (item.kind === "letters") letters.push(item);
    else {
      finish();
      runs.push(item.kind === "ends" ? "ends" : JSON.stringify(item));
    }
  }
  finish();
  return runs;
}
