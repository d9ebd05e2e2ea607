import type { BookIndex } from "../manuscript/book-index.ts";
import type { Book } from "../manuscript/book.ts";
import { numberNotes } from "../manuscript/notes.ts";
import type { ExportReading, Fault } from "./exported-link.ts";
import { landingWords, landsRight } from "./landing.ts";

/** The mark of an address that is printed. */
const printed = /^\[\d+\]$/;

/**
 * What is wrong with notes that a format makes by itself: each mark in the text, in the order of reading, shows its own
 * note, which leads back to it.
 */
export function judgeNotes(book: Book, index: BookIndex, { traits, notes }: ExportReading): Fault[] {
  const hasOwn =
    traits.hasOwnNotes || traits.hasRoles || (traits.isPaged && index.conventions.notesAt === "page");
  if (!hasOwn) return [];
  const wanted = book.chapters.flatMap(({ doc }, at) => {
    const ids = new Set(numberNotes(doc).map(({ id }) => id));
    const marks: { number: string; landing: string | null }[] = [];
    doc.descendants((node) => {
      if (node.type.name === "note") return false;
      const id = node.type.name === "note_reference" ? (node.attrs["note"] as string) : null;
      const place = id === null ? undefined : index.places.get(id);
      if (place?.chapter === at && ids.has(place.id))
        marks.push({ number: place.number ?? "", landing: landingWords(place, doc, traits.isPaged) });
      return true;
    });
    return marks;
  });
  const faults: Fault[] = [];
  // An address that is printed stands in a note of its own.
  const own = notes.filter(({ words, landing }) => !(printed.test(words) && landing?.startsWith(words)));
  wanted.forEach(({ number, landing }, i) => {
    const found = own[i];
    if (!found) faults.push({ where: "The notes", what: `The mark ${number} is not there.` });
    else if (found.words !== "" && found.words !== number)
      faults.push({ where: found.where, what: `The mark ${found.words} stands where ${number} should.` });
    else if (found.landing === null)
      faults.push({ where: found.where, what: `The mark ${number} leads to no note.` });
    else if (!landsRight(landing, found.landing, traits.isPaged))
      faults.push({ where: found.where, what: `The mark ${number} leads to another note.` });
    else if (!found.leadsBack)
      faults.push({ where: found.where, what: `The note ${number} does not lead back to its mark.` });
  });
  for (const { where } of own.slice(wanted.length)) faults.push({ where, what: "There is a mark too many." });
  return faults;
}
