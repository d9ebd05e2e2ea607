import { DestinationError } from "./errors.ts";
import { sameDestination } from "./destination.ts";
import type { Destination } from "./kinds/kinds.ts";
import { recognise, type Recognised } from "./recognise.ts";
import { suggest, type KnownDestination } from "./suggest.ts";

/** Something that Enter can take in the link line. */
export type Choice =
  | { kind: "recognised"; recognised: Recognised }
  | { kind: "known"; known: KnownDestination }
  /** Words within the text; where no place stands there yet, an anchor is made. */
  | { kind: "spot"; spot: Spot }
  /** Another publication of the same Shelf, or a place of it; its file is to travel with the book. */
  | { kind: "shelf"; place: ShelfPlace }
  /** A companion page that does not exist yet, by its title. */
  | { kind: "page"; title: string }
  /** A file on the author's own disk, to be brought in. */
  | { kind: "upload" };

/** Words within the text of the book that a link can lead to. */
export interface Spot {
  chapterId: string;
  chapter: string;
  /** The revision of its chapter in which the positions are true; null for the chapter that is being written. */
  revision: number | null;
  from: number;
  to: number;
  text: string;
  /** What stands before and behind it in its paragraph. */
  before: string;
  after: string;
  /** The place that stands there already, or null. */
  place: string | null;
}

/** Another publication of the same Shelf, or a place of it. */
export interface ShelfPlace {
  book: string;
  /** The id of the place; null for the publication itself. */
  place: string | null;
  name: string;
  /** What tells it from others of the same name. */
  detail: string;
}

/** What else the link line knows besides what was typed. */
export interface LineSurroundings {
  known: readonly KnownDestination[];
  /** Where what was typed stands in the text. */
  spots?: readonly Spot[];
  /** What other publications of the Shelf call so. */
  shelf?: readonly ShelfPlace[];
  /** The words that are to be linked, which can name what they lead to while nothing is typed. */
  words?: string;
}

const spotsOffered = 6;
const longestTitle = 120;

/** What was typed into the link line, read: the choices, the best first, and what is wrong if nothing fits. */
export interface Reading {
  choices: Choice[];
  /** The index of the choice that Enter takes by itself, or -1. Nothing is made or brought in unasked. */
  fitting: number;
  problem: string;
}

/**
 * Reads what was typed. An address is taken as it is; words choose among what the book knows, find themselves in its
 * text, choose what another publication of the Shelf calls so, and can name a new companion page.
 * A path on the author's disk is refused with the offer to bring the file in.
 * An empty line offers what the words to be linked name, and a page of that title.
 */
export function readTyped(
  typed: string,
  { known, spots = [], shelf = [], words: linked = "" }: LineSurroundings,
): Reading {
  if (typed.trim() === "" && linked.length <= longestTitle && /\p{L}/u.test(linked))
    return readWords(linked.trim(), known);
  const choices: Choice[] = [];
  let problem = "";
  let isDisk = false;
  try {
    choices.push({ kind: "recognised", recognised: recognise(typed) });
  } catch (error) {
    problem = (error as Error).message;
    isDisk = error instanceof DestinationError && error.code === "disk";
  }
  const page = isDisk ? null : pageTyped(typed, known);
  if (page) choices.unshift({ kind: "known", known: page });
  const words = isDisk ? typed.replace(/^.*[\\/]/, "").replace(/["'<>]+$/, "") : typed;
  for (const found of suggest(words, known)) {
    if (!isSame(choices[0], found.destination)) choices.push({ kind: "known", known: found });
  }
  const offered = choices.flatMap((choice) =>
    choice.kind === "known" && choice.known.destination.kind === "place"
      ? [choice.known.destination.target]
      : [],
  );
  const further = spots.filter(({ place }) => place === null || !offered.includes(place));
  for (const spot of further.slice(0, spotsOffered)) choices.push({ kind: "spot", spot });
  for (const place of shelf) choices.push({ kind: "shelf", place });
  const title = typed.trim();
  if (isDisk) choices.push({ kind: "upload" });
  else if (choices[0]?.kind !== "recognised" && /\p{L}/u.test(title) && !/^[a-z][a-z0-9+.-]*:/i.test(title)) {
    choices.push({ kind: "page", title }, { kind: "upload" });
  }
  // A path is refused: what bears its file's name is an offer, and may be another file.
  const fits = ({ kind }: Choice): boolean => kind === "recognised" || kind === "known" || kind === "spot";
  return { choices, fitting: isDisk ? -1 : choices.findIndex(fits), problem };
}

/** A page of a file that was typed as “plan.pdf page 3”, “page 3 of plan” or with what addresses have; null where none was. */
function pageTyped(typed: string, known: readonly KnownDestination[]): KnownDestination | null {
  const behind = /^(.+?)(?:#page=|[\s,]+(?:page|p\.)\s*)(\d{1,6})$/i.exec(typed.trim());
  const before = /^(?:page|p\.)\s*(\d{1,6})\s+of\s+(.+)$/i.exec(typed.trim());
  const [name, number] = behind
    ? [behind[1]!, Number(behind[2])]
    : before
      ? [before[2]!, Number(before[1])]
      : ["", 0];
  const words = name
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== "the");
  const files = known.filter(
    (one) =>
      number >= 1 &&
      number <= (one.pages ?? 0) &&
      words.every((word) => one.name.toLowerCase().includes(word)),
  );
  const [file] = name === "" ? [] : suggest(name, files, 1);
  if (file?.destination.kind !== "file" || !("file" in file.destination)) return null;
  const destination = { ...file.destination, at: `page=${number}` };
  return { destination, name: `${file.name}, page ${number}`, detail: `One of ${file.pages} pages`, uses: 0 };
}

/** Reads an empty line by the words that are to be linked: what bears them as its name, else a new page. */
function readWords(words: string, known: readonly KnownDestination[]): Reading {
  const named: Choice[] = suggest(words, known)
    .filter(({ name }) => name.localeCompare(words, undefined, { sensitivity: "accent" }) === 0)
    .map((found) => ({ kind: "known", known: found }));
  return { choices: [...named, { kind: "page", title: words }], fitting: 0, problem: "" };
}

function isSame(choice: Choice | undefined, destination: Destination): boolean {
  return choice?.kind === "recognised" && sameDestination(choice.recognised.destination, destination);
}

/**
 * Reads what was typed where only one destination can be meant: an address, else the best of what the book knows by
 * that name; `words` say what it was taken for, what was mended, or what is wrong.
 */
export function readOne(
  typed: string,
  known: readonly KnownDestination[],
): { destination: Destination | null; words: string } {
  const { choices, fitting, problem } = readTyped(typed, { known });
  const choice = choices[fitting];
  if (choice?.kind === "recognised") {
    const { destination, mended } = choice.recognised;
    return { destination, words: mended.length > 0 ? `Mended: ${mended.join("; ")}` : "" };
  }
  if (choice?.kind === "known")
    return { destination: choice.known.destination, words: `${choice.known.name}: ${choice.known.detail}` };
  return { destination: null, words: problem };
}
