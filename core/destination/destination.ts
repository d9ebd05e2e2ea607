import { DestinationError } from "./errors.ts";
import { readMailto } from "./mailto.ts";

/** A page on the web. `address` is an absolute http or https URL as the WHATWG URL standard writes it. */
export interface WebDestination {
  kind: "web";
  address: string;
}

/** A message to somebody. `address` is a `mailto:` URI (RFC 6068). */
export interface EmailDestination {
  kind: "email";
  address: string;
}

/**
 * A file. `file` is the id of a companion file, which stays when the file is renamed or replaced; `share`
 * the http or https address under which a shared folder gives the file out; `path` a relative reference
 * (RFC 3986) from a manuscript whose file was not brought along.
 */
export type FileDestination =
  { kind: "file"; file: string } | { kind: "file"; share: string } | { kind: "file"; path: string };

/** A place in the book: the id of a heading or an anchor. */
export interface PlaceDestination {
  kind: "place";
  target: string;
}

/** Where a link leads. It is kept in the link's own mark, so a chapter can be read by itself. */
export type Destination = WebDestination | EmailDestination | FileDestination | PlaceDestination;

export type DestinationKind = Destination["kind"];

const webSchemes = new Set(["http:", "https:"]);
const schemePattern = /^[a-z][a-z0-9+.-]*:/i;

/**
 * The scheme of an address, in lower case with its colon, or null where it has none. Characters that
 * the WHATWG URL parser removes (tabs, line ends, leading controls) are removed first, so that
 * `java\nscript:` is read as what a browser would make of it.
 */
export function schemeOf(address: string): string | null {
  const seen = withoutIgnoredCharacters(address);
  return schemePattern.exec(seen)?.[0].toLowerCase() ?? null;
}

function withoutIgnoredCharacters(address: string): string {
  return (
    address
      // WHATWG URL drops these before it looks at the scheme.

      .replace(/^[\u0000-\u0020]+|[\u0000-\u0020]+$/g, "")
      .replace(/[\t\n\r]/g, "")
  );
}

/**
 * Reads a web address into a destination.
 * @throws DestinationError `scheme` for another scheme than http and https, `address` for no valid URL.
 */
export function webDestination(address: string): WebDestination {
  const scheme = schemeOf(address);
  if (scheme !== null && !webSchemes.has(scheme)) {
    throw new DestinationError(
      "scheme",
      `An address that begins with “${scheme}” cannot be a link. Web addresses begin with http:// or https://.`,
    );
  }
  const url = URL.canParse(address) ? new URL(address) : null;
  if (!url || url.hostname === "") {
    throw new DestinationError(
      "address",
      `“${shorten(address)}” is not a web address. It needs a host, as in https://tides.example/.`,
    );
  }
  return { kind: "web", address: url.href };
}

/**
 * Reads an href as it stands in a manuscript file. A relative one is resolved against `base` where
 * there is one, and is a file beside the book where there is none; `#name` is a place.
 * @throws DestinationError `scheme` or `address`, as `webDestination`; `empty` for an empty href.
 */
export function readHref(href: string, base: string | null): Destination {
  const seen = withoutIgnoredCharacters(href);
  if (seen === "") throw new DestinationError("empty", "The link has no destination.");
  const scheme = schemeOf(seen);
  if (scheme === "mailto:") return { kind: "email", address: seen };
  if (scheme !== null) return webDestination(seen);
  // WHATWG HTML: the empty fragment is the top, as `#top` is.
  if (seen.startsWith("#")) return { kind: "place", target: safeDecode(seen.slice(1)) || "top" };
  if (seen.startsWith("//")) return webDestination("https:" + seen);
  if (base !== null) return webDestination(new URL(seen, base).href);
  return { kind: "file", path: seen };
}

/** Percent-decodes a fragment; one that is not valid UTF-8 stays as it is. */
function safeDecode(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    return fragment;
  }
}

/**
 * Says whether a value read from outside (JSON, a request) is a destination that may stand in a
 * manuscript.
 * @throws DestinationError with what is wrong.
 */
export function assertDestination(value: unknown): asserts value is Destination {
  const given = (value ?? {}) as Record<string, unknown>;
  const text = (key: string): string => {
    const field = given[key];
    if (typeof field !== "string" || field === "" || field.length > 8000) {
      throw new DestinationError("address", `A destination needs “${key}”, of at most 8,000 characters.`);
    }
    return field;
  };
  switch (given["kind"]) {
    case "web":
      webDestination(text("address"));
      return;
    case "email":
      if (schemeOf(text("address")) !== "mailto:") {
        throw new DestinationError("scheme", "An email destination begins with mailto:.");
      }
      return;
    case "file":
      if (given["file"] !== undefined) {
        if (!/^[\w-]{1,64}$/.test(text("file")))
          throw new DestinationError("address", "A companion file is named by its id.");
        return;
      }
      if (given["share"] !== undefined) {
        webDestination(text("share"));
        return;
      }
      if (schemeOf(text("path")) !== null) {
        throw new DestinationError("scheme", "A file destination is a relative path.");
      }
      return;
    case "place":
      text("target");
      return;
    default:
      throw new DestinationError("kind", "This kind of destination is not known.");
  }
}

/** One line of text that stands for a destination, and for no other: what lists are grouped by. */
export function writeDestination(destination: Destination): string {
  switch (destination.kind) {
    case "web":
    case "email":
      return destination.address;
    case "file":
      if ("file" in destination) return "companion:" + destination.file;
      return "share" in destination ? destination.share : destination.path;
    case "place":
      return "#" + destination.target;
  }
}

/** Whether two destinations are the same place, to the letter. */
export function sameDestination(a: Destination, b: Destination): boolean {
  return a.kind === b.kind && writeDestination(a) === writeDestination(b);
}

/** What companion files and places are called; a destination holds only their ids. */
export interface DestinationNames {
  files: ReadonlyMap<string, string>;
  places: ReadonlyMap<string, string>;
}

const noNames: DestinationNames = { files: new Map(), places: new Map() };

/** A destination as the author reads it, whole: names in place of ids. */
export function nameDestination(destination: Destination, names: DestinationNames = noNames): string {
  if (destination.kind === "place")
    return names.places.get(destination.target) ?? writeDestination(destination);
  if (destination.kind === "file" && "file" in destination)
    return names.files.get(destination.file) ?? "a file that is gone";
  return writeDestination(destination);
}

/** The host of a web destination, without `www.`; the recipients of an email; else its name. */
export function shortDestination(destination: Destination, names: DestinationNames = noNames): string {
  if (destination.kind === "web") return hostOf(destination.address);
  if (destination.kind === "email") {
    const { to, cc, bcc } = readMailto(destination.address);
    return (to.length > 0 ? to : [...cc, ...bcc]).join(", ");
  }
  if (destination.kind === "file" && "share" in destination) return hostOf(destination.share);
  return nameDestination(destination, names);
}

function hostOf(address: string): string {
  return new URL(address).host.replace(/^www\./, "");
}

function shorten(text: string): string {
  return text.length > 80 ? text.slice(0, 79) + "…" : text;
}
