import type { Node } from "prosemirror-model";
import type { Outside } from "../destination/kinds/kind.ts";
import { inFileKey } from "../destination/kinds/file.ts";
import { kindOf } from "../destination/kinds/kinds.ts";
import { nameDestination, writeDestination } from "../destination/destination.ts";
import type { DestinationNames } from "../destination/kinds/kind.ts";
import type { BookIndex, IndexedPlace } from "../manuscript/book-index.ts";
import { indexOf, type Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { hasPlace } from "../manuscript/file-places.ts";
import { linkUses, type LinkUse } from "../manuscript/links.ts";
import { numberNotes, referenceId } from "../manuscript/notes.ts";
import { referenceWords } from "../manuscript/references.ts";
import { pictureAttrs, referenceAttrs, signpostAttrs } from "../manuscript/attributes.ts";
import { returnName } from "../manuscript/return-name.ts";
import { returnLinksOf, signpostsOf } from "../manuscript/signposts.ts";
import { findCompanion, type ArrivedFile, type FoundFile } from "./companion-path.ts";
import { fileBeside } from "./exported-folder.ts";
import type { ExportReading, ReadArea } from "./exported-link.ts";
import { wordsAroundFormulas } from "./formula-words.ts";
import { landingWords } from "./landing.ts";
import { nodeAt } from "../manuscript/positions.ts";

/** A link of the manuscript, with what an export ought to make of it. */
export interface ManuscriptLink {
  id: string;
  chapter: string;
  text: string;
  /** The words of each paragraph that it runs through. */
  parts: string[];
  /** The words of each of them around its formulas; null for one that has none. */
  aroundFormulas: (string | null)[];
  /** Whether it is an area of a picture. */
  isArea: boolean;
  /** Whether it follows from the text by itself: the way to a note and back, a signpost, a return link. */
  isMade: boolean;
  destination: string;
  /** The destination as the author reads it: a file's name, a heading's words. */
  name: string;
  description: string | null;
  /** What the exported file should say: an address, the name of a place, or a file; null where it cannot travel. */
  expected:
    { kind: "address" | "place"; value: string } | { kind: "file"; value: string; arrived: FoundFile } | null;
  /** Why it cannot travel, where it cannot. */
  reason: string | null;
  /** Whether it leads to a file that the author leaves out of this export. */
  isLeftOut: boolean;
  /** The words that ought to stand where it lands; null for what leads out of the book. */
  landing: string | null;
  /** What a reader is shown of the place to which it leads; null for what leads out of the book. */
  placeWords: string | null;
  /** Whether it stands in a note. */
  isInNote: boolean;
  /** The mark on which a way back from a note lands; null for every other link. */
  mark: string | null;
  /** Whether it opens a window of its own, where a format can. */
  opensWindow: boolean;
  /** What it says that it is, where a format can (DPUB-ARIA 1.1); null for a link like all others. */
  role: "doc-noteref" | "doc-backlink" | null;
  /** What a screen reader calls it where its words are no name. */
  screenName: string | null;
  /** The part of a picture that it takes; null where it stands on words. */
  area: ReadArea | null;
  /** Whether it takes all of a picture, which in pages of HTML needs no area unless it has others. */
  isWholePicture: boolean;
}

/** A link that follows from the text by itself. */
interface MadeLink {
  words: string;
  to: string;
  role?: ManuscriptLink["role"];
  screenName?: string | null;
  mark?: string;
}

/** Where the notes of a chapter begin, which stand behind all else. */
function startOfNotes(doc: Node): number {
  let start = doc.content.size;
  doc.forEach(({ type }, offset) => {
    if (type.name === "note") start = Math.min(start, offset);
  });
  return start;
}

/** The part of a picture that a link takes: an area, or all of it. */
function areaOf({ id, on, from }: LinkUse, doc: Node): ReadArea | null {
  const node = on === "hotspot" || on === "picture" ? nodeAt(doc, from) : null;
  if (!node) return null;
  const { hotspots, file } = pictureAttrs(node);
  // In the place of one that was not brought its words stand.
  if (file === null) return null;
  if (on === "picture")
    return {
      shape: "rectangle",
      points: [
        [0, 0],
        [1, 1],
      ],
    };
  const hotspot = hotspots.find((one) => one.id === id);
  return hotspot ? { shape: hotspot.shape, points: hotspot.points.map(([x, y]) => [x, y]) } : null;
}

/**
 * The links of a book as an export should have them: in reading order the author's own, cross-references
 * among them, and after those of each chapter what follows from it by itself. On which page a
 * cross-reference's target falls is known from the exported file alone.
 */
export function manuscriptLinks(
  book: Book,
  {
    traits,
    pageOfPlace,
    files,
    links: found,
  }: Pick<ExportReading, "traits" | "pageOfPlace" | "files" | "links">,
): ManuscriptLink[] {
  const index = indexOf(book);
  const landings = new Map<string, string | null>();
  const arrived = new Map<string, ArrivedFile>();
  const names: DestinationNames = {
    files: new Map([...book.files].map(([id, { name }]) => [id, name])),
    places: new Map([...index.places].map(([id, { text }]) => [id, text])),
    inFiles: new Map(
      [...book.files].flatMap(([id, { places }]) =>
        (places?.places ?? []).map(({ at, name }) => [inFileKey(id, at), name] as const),
      ),
    ),
  };
  return book.chapters.flatMap(({ doc }, at) => {
    const chapter = chapterTitle(doc);
    const notes = startOfNotes(doc);
    const own = linkUses(doc).map((use): ManuscriptLink => {
      const way = kindOf(use.destination).outside(use.destination);
      const place = way.kind === "place" ? index.places.get(way.target) : undefined;
      const common = {
        id: use.id,
        chapter,
        isArea: use.on === "hotspot",
        isMade: false,
        destination: writeDestination(use.destination),
        name: nameDestination(use.destination, names),
        description: use.description,
        isLeftOut: book.leavesFiles && way.kind === "file",
        landing: place ? landingOf(place) : null,
        placeWords: place?.words ?? null,
        isInNote: use.from > notes,
        mark: null,
        opensWindow: use.newWindow && use.destination.kind === "web",
        role: null,
        screenName: null,
        area: areaOf(use, doc),
        isWholePicture: use.on === "picture",
      };
      if (use.on === "reference") {
        const said = crossReferenceText(use);
        return { ...common, aroundFormulas: [null], ...said };
      }
      return {
        ...common,
        text: use.text,
        parts: use.parts.map((part) => part.text),
        aroundFormulas: use.parts.map(({ from, to }) => wordsAroundFormulas(doc, from, to)),
        ...expectationOf(way, use.text),
      };
    });
    const made = madeLinks(at).map(
      ({ words, to, role = null, screenName = null, mark = null }): ManuscriptLink => {
        const place = index.places.get(to);
        const name = place?.words ?? words;
        return {
          id: to,
          chapter,
          text: words,
          parts: [words],
          aroundFormulas: [null],
          isArea: false,
          isMade: true,
          destination: `#${to}`,
          name,
          description: null,
          expected: { kind: "place", value: to },
          reason: null,
          isLeftOut: false,
          landing: place ? landingOf(place) : null,
          placeWords: place?.words ?? null,
          isInNote: role === "doc-backlink",
          mark,
          opensWindow: false,
          role,
          screenName,
          area: null,
          isWholePicture: false,
        };
      },
    );
    return [...own, ...made];

    function crossReferenceText(
      use: LinkUse,
    ): Pick<ManuscriptLink, "text" | "parts" | "expected" | "reason"> {
      const reference = referenceAttrs(nodeAt(doc, use.from)!);
      const says = referenceWords(reference, index, { chapter: at, position: use.from }, traits.isPaged);
      if (says.kind === "gap")
        return { text: use.text, parts: [use.text], expected: null, reason: says.reason };
      const text =
        says.kind === "words"
          ? says.words
          : says.before + (pageOfPlace.get(reference.target) ?? "?") + says.after;
      return { text, parts: [text], expected: { kind: "place", value: reference.target }, reason: null };
    }
  });

  function expectationOf(way: Outside, words: string): Pick<ManuscriptLink, "expected" | "reason"> {
    if (way.kind === "relative") {
      if (!traits.keepsRelative) return { expected: null, reason: way.reason };
      const beside = fileBeside(way.path);
      const value = beside.kind === "file" ? beside.path : way.path;
      return { expected: { kind: "file", value, arrived: "whole" }, reason: null };
    }
    if (way.kind === "address") return { expected: { kind: "address", value: way.address }, reason: null };
    if (way.kind === "place")
      return index.places.has(way.target)
        ? { expected: { kind: "place", value: way.target }, reason: null }
        : { expected: null, reason: `The book has no place “${way.target}”.` };
    const file = book.files.get(way.file);
    if (!file)
      return { expected: null, reason: "The companion file is gone. Give the link another destination." };
    let there = arrived.get(way.file);
    if (!there) {
      there = findCompanion(file, book.fileBytes.get(way.file), words, { files, links: found });
      arrived.set(way.file, there);
    }
    const { path: value } = there;
    const leads = way.at === null ? { kind: "file" as const, path: value } : fileBeside(`${value}#${way.at}`);
    const lacks = way.at !== null && file.places !== undefined && !hasPlace(file.places, way.at);
    const arrivedAs = there.arrived === "whole" && lacks ? "without-place" : there.arrived;
    return {
      expected: { kind: "file", value: leads.kind === "file" ? leads.path : value, arrived: arrivedAs },
      reason: null,
    };
  }

  /** The words where links to a place land, which many do. */
  function landingOf(place: IndexedPlace): string | null {
    const known = landings.get(place.id);
    if (known !== undefined) return known;
    const words = wordsAt(place);
    landings.set(place.id, words);
    return words;
  }

  function wordsAt(place: IndexedPlace): string | null {
    // The top of the book stands in no chapter; not every format has a title above them.
    if (place.chapter === -1) return traits.hasTitle ? book.title : null;
    const words = landingWords(place, book.chapters[place.chapter]!.doc, traits.isPaged);
    // On a page a caption's words may stand on the line below its label.
    const isCaption = place.kind === "figure" || place.kind === "table";
    return traits.isPaged && isCaption && words !== null ? `${index.labelOf(place) ?? ""} ${words}` : words;
  }

  function madeLinks(at: number): MadeLink[] {
    const { doc } = book.chapters[at]!;
    const links = noteLinks(at, index);
    doc.descendants((node) => {
      if (node.type.name !== "signposts") return;
      for (const { words, id } of signpostsOf(signpostAttrs(node), index, at))
        // On pages the whole row is the link, and tells the page.
        links.push({ words: traits.isPaged ? `${words} ${pageOfPlace.get(id) ?? "?"}` : words, to: id });
    });
    for (const { words, list } of returnLinksOf(doc, at, index)) links.push({ words, to: list });
    return links;
  }

  function noteLinks(at: number, index: BookIndex): MadeLink[] {
    const { places, conventions } = index;
    const links: MadeLink[] = [];
    // These formats have notes of their own, whose ways there and back their readers make.
    if (traits.hasOwnNotes) return links;
    // The typesetter makes the way from a reference to a note at the foot of a page.
    const madeByTypesetter = traits.isPaged && conventions.notesAt === "page";
    for (const { id, references } of numberNotes(book.chapters[at]!.doc)) {
      for (let which = 1; which <= references; which++) {
        if (!madeByTypesetter) links.push({ words: places.get(id)!.number!, to: id, role: "doc-noteref" });
        links.push({
          words: conventions.returnWords,
          to: referenceId(id, which),
          role: "doc-backlink",
          screenName: returnName(index, which, references),
          mark: places.get(id)!.number!,
        });
      }
    }
    return links;
  }
}
