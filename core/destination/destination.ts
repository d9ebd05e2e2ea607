import { DestinationError } from "./errors.ts";
import type { Asked, DestinationKindOf, DestinationNames } from "./kinds/kind.ts";
import { kindOf, kinds, type Destination, type DestinationKind } from "./kinds/kinds.ts";
import { webDestination } from "./kinds/web.ts";
import { isNetworkPath, networkFolder } from "./kinds/file.ts";
import { percentDecoded } from "./percent-decoded.ts";
import { schemeOf, withoutIgnoredCharacters } from "./scheme.ts";

const longestField = 8000;
const noNames: DestinationNames = { files: new Map(), places: new Map() };

/**
 * Reads an href as it stands in a manuscript file. A relative one is resolved against `base` where
 * there is one, and is a file beside the book where there is none; `#name` is a place.
 * @throws DestinationError `scheme` or `address`, as the kind of its scheme does; `empty` for an empty href.
 */
export function readHref(href: string, base: string | null): Destination {
  const seen = withoutIgnoredCharacters(href);
  if (seen === "") throw new DestinationError("empty", "The link has no destination.");
  const scheme = schemeOf(seen);
  if (scheme !== null) return (kindOfScheme(scheme)?.fromAddress ?? webDestination)(seen);
  // WHATWG HTML: the empty fragment is the top, as `#top` is.
  if (seen.startsWith("#")) return { kind: "place", target: percentDecoded(seen.slice(1)) || "top" };
  if (seen.startsWith("//")) return webDestination("https:" + seen);
  if (isNetworkPath(seen)) throw new DestinationError("address", networkFolder);
  if (base !== null) return webDestination(new URL(seen, base).href);
  return { kind: "file", path: seen };
}

function kindOfScheme(scheme: string): DestinationKindOf<Destination> | undefined {
  return Object.values(kinds as unknown as Record<string, DestinationKindOf<Destination>>).find(
    ({ schemes }) => schemes.includes(scheme),
  );
}

/**
 * Says whether a value read from outside (JSON, a request) is a destination that may stand in a
 * manuscript.
 * @throws DestinationError with what is wrong.
 */
export function assertDestination(value: unknown): asserts value is Destination {
  const given = (value ?? {}) as Record<string, unknown>;
  const kind = given["kind"];
  if (typeof kind !== "string" || !Object.hasOwn(kinds, kind))
    throw new DestinationError("kind", "This kind of destination is not known.");
  kinds[kind as DestinationKind].assert(given, (key) => {
    const field = given[key];
    if (typeof field !== "string" || field === "" || field.length > longestField) {
      throw new DestinationError("address", `A destination needs “${key}”, of at most 8,000 characters.`);
    }
    return field;
  });
}

/** One line of text that stands for a destination, and for no other: what lists are grouped by. */
export function writeDestination(destination: Destination): string {
  return kindOf(destination).write(destination);
}

/** Whether two destinations are the same place, to the letter. */
export function sameDestination(a: Destination, b: Destination): boolean {
  return a.kind === b.kind && writeDestination(a) === writeDestination(b);
}

/** A destination as the author reads it, whole: names in place of ids. */
export function nameDestination(destination: Destination, names: DestinationNames = noNames): string {
  return kindOf(destination).name(destination, names);
}

/** The host of a web destination, without `www.`; the recipients of an email; else its name. */
export function shortDestination(destination: Destination, names: DestinationNames = noNames): string {
  return kindOf(destination).short(destination, names);
}

/** The text under which it is known what came of asking a destination; null where nothing is asked. */
export function answerKey(destination: Destination): string | null {
  return askedOf(destination) === null ? null : writeDestination(destination);
}

/** What is asked for each destination that was looked at; rules ask for it again and again. */
const known = new WeakMap<Destination, { asked: Asked | null }>();

/** What is asked to learn how a destination is, and of whom; null where nothing is. A destination never changes. */
export function askedOf(destination: Destination): Asked | null {
  let found = known.get(destination);
  if (!found) known.set(destination, (found = { asked: kindOf(destination).asked(destination) }));
  return found.asked;
}
