import { DestinationError } from "./errors.ts";
import { sameDestination } from "./destination.ts";
import type { Destination } from "./kinds/kinds.ts";
import { recognise, type Recognised } from "./recognise.ts";
import { suggest, type KnownDestination } from "./suggest.ts";

/** Something that Enter can take in the link line. */
export type Choice =
  | { kind: "recognised"; recognised: Recognised }
  | { kind: "known"; known: KnownDestination }
  /** A companion page that does not exist yet, by its title. */
  | { kind: "page"; title: string }
  /** A file on the author's own disk, to be brought in. */
  | { kind: "upload" };

/** What was typed into the link line, read: the choices, the best first, and what is wrong if nothing fits. */
export interface Reading {
  choices: Choice[];
  /** The index of the choice that Enter takes by itself, or -1. Nothing is made or brought in unasked. */
  fitting: number;
  problem: string;
}

/**
 * Reads what was typed. An address is taken as it is; words choose among what the book knows, and can
 * name a new companion page. A path on the author's disk is refused with the offer to bring the file in.
 */
export function readTyped(typed: string, known: readonly KnownDestination[]): Reading {
  const choices: Choice[] = [];
  let problem = "";
  let isDisk = false;
  try {
    choices.push({ kind: "recognised", recognised: recognise(typed) });
  } catch (error) {
    problem = (error as Error).message;
    isDisk = error instanceof DestinationError && error.code === "disk";
  }
  const words = isDisk ? typed.replace(/^.*[\\/]/, "").replace(/["'<>]+$/, "") : typed;
  for (const found of suggest(words, known)) {
    if (!isSame(choices[0], found.destination)) choices.push({ kind: "known", known: found });
  }
  const title = typed.trim();
  if (isDisk) choices.push({ kind: "upload" });
  else if (choices[0]?.kind !== "recognised" && /\p{L}/u.test(title) && !/^[a-z][a-z0-9+.-]*:/i.test(title)) {
    choices.push({ kind: "page", title }, { kind: "upload" });
  }
  // A path is refused: what bears its file's name is an offer, and may be another file.
  const fitting = isDisk ? -1 : choices.findIndex(({ kind }) => kind === "recognised" || kind === "known");
  return { choices, fitting, problem };
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
  const { choices, fitting, problem } = readTyped(typed, known);
  const choice = choices[fitting];
  if (choice?.kind === "recognised") {
    const { destination, mended } = choice.recognised;
    return { destination, words: mended.length > 0 ? `Mended: ${mended.join("; ")}` : "" };
  }
  if (choice?.kind === "known")
    return { destination: choice.known.destination, words: `${choice.known.name}: ${choice.known.detail}` };
  return { destination: null, words: problem };
}
