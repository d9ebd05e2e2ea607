import type { BookIndex } from "../manuscript/book-index.ts";
import { indexOf, type Book } from "../manuscript/book.ts";
import { compareLinks, type LinkProof } from "./compare.ts";
import { foldBlanks, valueOf, type ExportReading, type Fault } from "./exported-link.ts";
import { judgeLists } from "./judge-lists.ts";
import { judgeNotes } from "./judge-notes.ts";
import { judgeWays } from "./judge-ways.ts";
import { manuscriptLinks, type ManuscriptLink } from "./manuscript-links.ts";
import { lettersOf } from "./letters.ts";

/** Compares all that an exported file was read to have with what a book ought to have in it. */
export function prove(book: Book, reading: ExportReading): LinkProof {
  const index = indexOf(book);
  const links = manuscriptLinks(book, reading);
  const faults = [
    ...reading.faults,
    ...judgeLists(book, index, reading.lists, reading.traits.isPaged),
    ...judgeNotes(book, index, reading),
    ...judgeWays(book, reading.linkedPages),
    ...judgeAside(index, reading),
    ...judgeOrder(index, reading),
    ...judgeLikeWords(links, reading),
    ...judgeWaysBack(links, reading),
    ...judgeApparatus(reading),
  ];
  return compareLinks(links, { ...reading, faults });
}

const orderOfReading = "The order of reading";

/** Whether all chapters come to who reads on. */
function judgeAside({ inOrder, companions }: BookIndex, { placesAside }: ExportReading): Fault[] {
  return inOrder
    .filter(({ id, chapter, level }) => level === 0 && !companions.has(chapter) && placesAside.has(id))
    .map(({ words }) => ({ where: orderOfReading, what: `“${words}” stands beside it.` }));
}

/** Whether chapters, headings, anchors and captions come in their order. */
function judgeOrder({ inOrder, places }: BookIndex, { placesInOrder }: ExportReading): Fault[] {
  const at = new Map(placesInOrder.map((id, i) => [id, i]));
  // Notes stand where the format has its notes.
  const inText = inOrder.filter(
    (place) => places.get(place.id) === place && place.note === null && at.has(place.id),
  );
  return inText.flatMap((place, i): Fault[] => {
    const before = inText[i - 1];
    return before && at.get(before.id)! > at.get(place.id)!
      ? [{ where: orderOfReading, what: `“${place.words}” comes before “${before.words}”.` }]
      : [];
  });
}

/** Whether links with the same words lead where they should in the order in which they stand in the text. */
function judgeLikeWords(links: readonly ManuscriptLink[], reading: ExportReading): Fault[] {
  if (reading.traits.isPaged) return [];
  const wanted = byWords(
    links
      .filter(({ isMade, isInNote, expected }) => !isMade && !isInNote && expected !== null)
      .flatMap(({ parts, expected }) =>
        parts.map((words) => ({ words: foldBlanks(words), value: expected!.value })),
      ),
  );
  const found = byWords(
    reading.links
      .filter(({ apparatus, isInNote, role }) => !apparatus && !isInNote && role === null)
      .map(({ text, destination }) => ({ words: text, value: valueOf(destination) })),
  );
  return [...wanted].flatMap(([words, values]): Fault[] => {
    const there = found.get(words);
    // Where some are missing, or are others, the links themselves are told.
    const isSame = !there || [...there].sort().join("\n") !== [...values].sort().join("\n");
    return isSame || there.join("\n") === values.join("\n")
      ? []
      : [{ where: "The text", what: `The links “${words}” lead where the others of these words should.` }];
  });
}

function byWords(all: readonly { words: string; value: string }[]): Map<string, string[]> {
  const groups = new Map<string, string[]>();
  for (const { words, value } of all) {
    const values = groups.get(words);
    if (values) values.push(value);
    else groups.set(words, [value]);
  }
  return groups;
}

/** Whether each note leads back to its own marks. */
function judgeWaysBack(links: readonly ManuscriptLink[], reading: ExportReading): Fault[] {
  if (!reading.traits.hasRoles) return [];
  const wanted = links
    .filter(({ role }) => role === "doc-backlink")
    .map(({ expected }) => expected?.value ?? "");
  const found = reading.links
    .filter(({ role }) => role === "doc-backlink")
    .map(({ destination }) => valueOf(destination));
  const wrong = wanted.findIndex((value, i) => found[i] !== value);
  const isOther = wrong !== -1 && wanted.length === found.length;
  return isOther ? [{ where: "The notes", what: "A note leads back to another mark than its own." }] : [];
}

/** Whether the links that a PDF has by itself are within reach, and say where they lead (ISO 14289-1, 7.18.5). */
function judgeApparatus({ traits, links }: ExportReading): Fault[] {
  if (!traits.isPaged) return [];
  return links
    .filter(({ apparatus }) => apparatus)
    .flatMap(({ where, text, description, unreachable }): Fault[] => {
      if (unreachable !== null) return [{ where, what: `The link “${text}”: ${unreachable}` }];
      const [said, words] = [lettersOf(description ?? ""), lettersOf(text)];
      // What is no word of a heading, a reference or a picture, is shown and not told, or told with its page.
      const start = (words.replace(/\p{N}+$/u, "") || words.slice(0, 1)).slice(0, leastAlike);
      const isSaid =
        said !== "" && (said.includes(words) || words.startsWith(said) || said.startsWith(start));
      return isSaid ? [] : [{ where, what: `The link “${text}” is described as “${description ?? ""}”.` }];
    });
}

/** With so many letters both begin. */
const leastAlike = 3;
