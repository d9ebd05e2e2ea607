import { addressInWord, addressRuns } from "@vennet/core/destination/addresses-in-text";
import { recognise } from "@vennet/core/destination/recognise";
import { areasOf, lettersOf, type Letter } from "@vennet/core/finished/pdf/letters";
import type { Area, PdfLink, PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { noFrame } from "@vennet/core/manuscript/hotspot";
import { newId } from "@vennet/core/manuscript/ids";
import type { PDFDocumentProxy } from "pdfjs-dist";
import type { BareAddress, LookForBare } from "../bare-addresses";
import type { KeptPage } from "../use-pages";

/** An address of a page of a PDF, with where it stands. */
export interface BareInPage extends BareAddress {
  areas: Area[];
}

/** Looks through the pages of a PDF for addresses that no link covers. */
export function bareInPages(
  file: PDFDocumentProxy,
  pages: readonly KeptPage<PdfPage>[],
): LookForBare<BareInPage> {
  return async (tell, isLeft) => {
    for (const { document } of pages) {
      const page = await file.getPage(document.number);
      const content = await page.getTextContent({ includeMarkedContent: true });
      if (isLeft()) return;
      tell(bareOn(document, lettersOf(content)), document.number);
    }
  };
}

/** A link on an address that had none. */
export function linkOnBare({ words, areas, address }: BareInPage): PdfLink {
  const { destination } = recognise(address);
  return {
    id: newId(),
    from: null,
    words,
    areas,
    destination,
    description: null,
    frame: noFrame,
    isInStructure: true,
  };
}

/** The addresses of a page that no link covers. */
function bareOn(page: PdfPage, letters: readonly Letter[]): BareInPage[] {
  const covered = [...page.links, ...page.untouched].flatMap(({ areas }) => areas ?? []);
  const found: BareInPage[] = [];
  for (const word of wordsIn(letters)) {
    const text = word.map((letter) => letter.text).join("");
    const address = addressInWord(text);
    if (address === null) continue;
    const at = text.indexOf(address);
    const areas = areasOf(word.slice(at, at + address.length));
    if (areas.length === 0 || areas.some((area) => covered.some((one) => overlap(one, area)))) continue;
    const { number, label } = page;
    found.push({ number, where: `page ${label}`, words: address, address, areas });
  }
  return found;
}

function wordsIn(letters: readonly Letter[]): Letter[][] {
  const words: Letter[][] = [[]];
  for (const letter of letters) {
    if (letter.text.search(addressRuns) === -1) words.push([]);
    else words.at(-1)!.push(letter);
    // An address may go on behind the end of a line, but nobody can tell: it is taken to end with it.
    if (letter.endsLine) words.push([]);
  }
  return words.filter((word) => word.length > 0);
}

function overlap(a: Area, b: Area): boolean {
  return a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];
}
