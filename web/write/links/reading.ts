import type { Destination } from "@vennet/core/destination/destination";
import { DestinationError } from "@vennet/core/destination/errors";
import { recognise, type Recognised } from "@vennet/core/destination/recognise";
import { suggest, type KnownDestination } from "@vennet/core/destination/suggest";

/** Something that Enter can take in the link line. */
export type Choice =
  | { is: "recognised"; recognised: Recognised }
  | { is: "known"; known: KnownDestination }
  /** A companion page that does not exist yet, by its title. */
  | { is: "page"; title: string }
  /** A file on the author's own disk, to be brought in. */
  | { is: "upload" };

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
    choices.push({ is: "recognised", recognised: recognise(typed) });
  } catch (error) {
    problem = (error as Error).message;
    isDisk = error instanceof DestinationError && error.code === "disk";
  }
  const words = isDisk ? typed.replace(/^.*[\\/]/, "").replace(/["'<>]+$/, "") : typed;
  for (const found of suggest(words, known)) {
    if (!isSame(choices[0], found.destination)) choices.push({ is: "known", known: found });
  }
  const title = typed.trim();
  if (isDisk) choices.push({ is: "upload" });
  else if (choices[0]?.is !== "recognised" && /\p{L}/u.test(title) && !/^[a-z][a-z0-9+.-]*:/i.test(title)) {
    choices.push({ is: "page", title }, { is: "upload" });
  }
  // A path is refused: what bears its file's name is an offer, and may be another file.
  const fitting = isDisk ? -1 : choices.findIndex(({ is }) => is === "recognised" || is === "known");
  return { choices, fitting, problem };
}

function isSame(choice: Choice | undefined, destination: Destination): boolean {
  return (
    choice?.is === "recognised" &&
    JSON.stringify(choice.recognised.destination) === JSON.stringify(destination)
  );
}
