import { addressInWord, addressRuns } from "@vennet/core/destination/addresses-in-text";
import { recognise } from "@vennet/core/destination/recognise";
import { groundIn, stretchesOfLinks } from "@vennet/core/finished/epub/ground";
import type { EpubLink, EpubPage, LinkGround } from "@vennet/core/finished/epub/epub-page";
import { linkElements } from "@vennet/core/finished/epub/xhtml-source";
import { FinishedError } from "@vennet/core/finished/errors";
import { newId } from "@vennet/core/manuscript/ids";
import type { BareAddress, LookForBare } from "../bare-addresses";
import type { KeptPage } from "../use-pages";
import type { OpenBook } from "./open-book";

/** An address of a page of an e-book, with where it stands. */
export interface BareInText extends BareAddress {
  on: LinkGround;
}

/** Looks through the pages of an e-book for addresses that no link covers. */
export function bareInText(book: OpenBook, pages: readonly KeptPage<EpubPage>[]): LookForBare<BareInText> {
  return async (tell, isLeft) => {
    for (const { document } of pages) {
      // Between pages the screen is drawn.
      await new Promise((resolve) => setTimeout(resolve));
      if (isLeft()) return;
      tell(document.stays === null ? bareOn(book, document) : [], document.number);
    }
  };
}

/** A link on words or a picture that had none. */
export function newLink(
  { on, words }: { on: LinkGround; words: string },
  destination: EpubLink["destination"],
  description: string | null,
): EpubLink {
  const fresh = { id: newId(), from: null, hasOwnWords: false, isNoteSign: false, href: null };
  return { ...fresh, on, words, destination, description };
}

/** A link on an address that had none. */
export function linkOnBare(bare: BareInText): EpubLink {
  return newLink(bare, recognise(bare.address).destination, null);
}

function bareOn(book: OpenBook, page: EpubPage): BareInText[] {
  const source = book.source(page.path);
  const fresh = page.links.filter(({ from }) => from === null);
  const others = stretchesOfLinks(linkElements(source), page);
  return wordsBetween(source.text, page).flatMap(([begin, word]): BareInText[] => {
    const address = addressInWord(word);
    if (address === null) return [];
    const from = begin + word.indexOf(address);
    const on: LinkGround = { kind: "words", from, to: from + address.length, element: 0 };
    if (fresh.some((link) => link.on.from < on.to && link.on.to > on.from)) return [];
    try {
      groundIn(source, others, { on, words: address });
    } catch (error) {
      // What is a link already, or cannot be one as it stands, is not offered.
      if (error instanceof FinishedError) return [];
      throw error;
    }
    return [{ number: page.number, where: page.title, words: address, address, on }];
  });
}

/** The words of a text with where they begin. A link ends a word, as the sign of a note behind an address does. */
function wordsBetween(text: string, { links, untouched }: EpubPage): [number, string][] {
  const cuts = [...new Set([...links, ...untouched].flatMap(({ on }) => [on.from, on.to]))].sort(
    (a, b) => a - b,
  );
  let next = 0;
  return [...text.matchAll(addressRuns)].flatMap(({ 0: word, index }) => {
    // No address is without a full stop.
    if (!word.includes(".")) return [];
    while (next < cuts.length && cuts[next]! <= index) next++;
    let last = next;
    while (last < cuts.length && cuts[last]! < index + word.length) last++;
    const ends = cuts.slice(next, last);
    const begins = [index, ...ends];
    return begins.map((begin, i): [number, string] => [
      begin,
      text.slice(begin, begins[i + 1] ?? index + word.length),
    ]);
  });
}
