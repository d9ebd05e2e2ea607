import { DestinationError } from "./errors.ts";
import type { DestinationKindOf } from "./kinds/kind.ts";
import { kinds, type Destination } from "./kinds/kinds.ts";

export interface Recognised {
  destination: Destination;
  /** What was changed to make it a destination, in words for the author; empty when nothing was. */
  mended: string[];
}

// Nearly every word with a dot may be meant as a web address, so that kind, the first, is tried last.
const byTrying = (Object.values(kinds) as unknown as DestinationKindOf<Destination>[]).reverse();

/**
 * Recognises what an author typed or pasted into the link line: an address of any kind, with or without its scheme.
 * @throws DestinationError when it is none; its message says what to do. `disk` is a path on the
 *   author's own disk.
 */
export function recognise(typed: string): Recognised {
  const mended: string[] = [];
  const text = mend(typed, mended);
  if (text === "") throw new DestinationError("empty", "Paste or type where the link leads.");
  if (isDiskPath(text)) {
    throw new DestinationError(
      "disk",
      "That is a place on your own disk, which readers cannot open. Bring the file in, and link to that.",
    );
  }
  for (const { fromTyped } of byTrying) {
    const read = fromTyped?.(text);
    if (read)
      return { destination: read.destination, mended: read.mended ? [...mended, read.mended] : mended };
  }
  throw new DestinationError(
    "address",
    "That is not an address yet. A web address looks like https://tides.example/ or www.tides.example.",
  );
}

/**
 * Whether text is, as a whole, an address that may become a link without asking: it has its scheme,
 * begins with `www.`, or is an email address. A bare domain is not enough (common practice).
 */
export function isPlainlyAnAddress(text: string): boolean {
  const seen = text.trim();
  if (/\s/.test(seen) || !byTrying.some(({ isPlain }) => isPlain?.(seen))) return false;
  try {
    recognise(seen);
    return true;
  } catch {
    return false;
  }
}

/** Whether text is a path on somebody's own disk or network share, or a `file:` address (RFC 8089). */
export function isDiskPath(text: string): boolean {
  return /^([a-z]:[\\/]|\\\\|file:|~\/|\/(home|users|tmp|var|mnt|media|volumes|documents)\/)/i.test(text);
}

type Mend = [pattern: RegExp, replacement: string | ((found: string) => string), told: string];

const clinging = "brackets or quotes around it taken off";
const mends: Mend[] = [
  [/^[\s\u200b\ufeff]+|[\s\u200b\ufeff]+$/g, "", ""],
  [/^\[[^\]]*\]\((\S+)\)$/, "$1", "the words before it taken off"],
  [
    /(^|[,;]\s*)(?:"[^"]*"|[^<>@,;"])+<\s*([^\s<>@]+@[^\s<>@]+?)\s*(?:>|$)/g,
    "$1$2",
    "the name before it taken off",
  ],
  [/^[<[("'“”„‘’«»]+(?=\S)|(?<=\S)[>"'“”’«»]+$/g, "", clinging],
  // The words of a message may well end with one.
  [/^(?!mailto:[^?]*\?)(.*\S)[.,;:!]+$/is, "$1", "the full stop or comma at its end taken off"],
  [/^URL:\s*/i, "", "“URL:” taken off"],
  [/^.+$/s, onceOfTwice, "pasted twice, so one of the two taken off"],
  [/^(mailto:){2,}/i, "mailto:", "the second mailto: taken off"],
  [/^https?:\/*(?=https?:\/\/)/i, "", "the second scheme taken off"],
  [/^(https?):\/?(?=[^/\\])/i, "$1://", "the slashes after its scheme put in"],
  [misspelt("s"), "https://", "its scheme put right"],
  [misspelt(""), "http://", "its scheme put right"],
  [/^\/\/(?=[^\s/]+\.[^\s/])/, "https://", "https: put before it"],
  // An identifier of a publication is shown, and linked, by its resolver (ISO 26324; DOI Handbook, 3.8).
  [
    /^(?:doi:?\s*)?(?=10\.\d{4,9}(?:\.\d+)*\/\S)/i,
    "https://doi.org/",
    "https://doi.org/ put before it, which leads to what it names",
  ],
  [/\?\S*/g, (query) => query.replace(/&amp;/gi, "&"), "“&amp;” made “&”"],
  // A bracket at the end belongs to the address where its partner is inside.
  [/^([^(]*)\)+$|^([^[]*[^[\]])\]+$/, "$1$2", clinging],
];

/** The half of an address that stands there twice, with blanks between or none. */
function onceOfTwice(text: string): string {
  const [first = "", second = "", ...more] = /\s/.test(text)
    ? text.split(/\s+/)
    : [text.slice(0, text.length / 2), text.slice(text.length / 2)];
  const isTwice = more.length === 0 && first.toLowerCase() === second.toLowerCase();
  return isTwice && /^(?:https?:|www\.|mailto:|[^\s@]+@)\S{3}/i.test(first) ? first : text;
}

/** A scheme of the web with letters left out, doubled or in another order, or other signs behind it. */
function misspelt(end: "s" | ""): RegExp {
  const letters = `(?!https?:\\/\\/)(?=[hps]*t)(?=[hts]*p)[ht][htps]{1,6}${end === "" ? "(?<!s)" : end}`;
  return new RegExp(`^${letters}(?:[:;.,]{1,2}[/\\\\]{1,3}|[/\\\\]{2}:?)(?=[^/\\\\\\s])`, "i");
}

/** Takes off what clings to an address, again and again until nothing does, and tells each thing once. */
function mend(typed: string, mended: string[]): string {
  let text = typed;
  for (let before = ""; before !== text;) {
    before = text;
    for (const [pattern, replacement, told] of mends) {
      const next =
        typeof replacement === "string"
          ? text.replace(pattern, replacement)
          : text.replace(pattern, replacement);
      if (next !== text && told !== "" && !mended.includes(told)) mended.push(told);
      text = next;
    }
  }
  return text;
}
