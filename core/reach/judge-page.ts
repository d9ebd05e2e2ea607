import { percentDecoded } from "../destination/percent-decoded.ts";
import { fingerprintOf, type Fingerprint } from "./fingerprint.ts";
import { isPage } from "./follow.ts";
import { wasLedOn, type Outcome, type OutcomeCode, type ReachState } from "./outcome.ts";
import type { PageFacts } from "./page-reader.ts";
import { tellsMissing, tellsParked, tellsSignIn } from "./page-phrases.ts";
import { wantedPart } from "./part.ts";
import { hasText, textDirectives } from "./text-fragment.ts";

const signInPath = /(?:^|[/._-])(?:log-?in|sign-?in|sso|auth|anmelden|connexion)(?:[/._-]|$)/i;
/** A page of fewer letters may be one that its scripts make. */
const leastToRead = 200;
const fileEnding = /\.(?:pdf|docx?|odt|epub|xlsx?|ods|csv|zip|jpe?g|png|mp3|mp4)$/i;

/**
 * What the page that came tells beyond its server's status: a good answer may still be a note that nothing
 * was found, a sign-in wall, an offer to buy the name, the front page, or a page without the wanted part.
 *
 * @param address the destination, with its fragment
 * @param arrived the outcome by statuses alone; what is neither sound nor moved is given back as it is
 * @param page what was read of the page; null where none was read
 * @param missing the page that the same server gives for a name that cannot exist; null where it refuses one
 */
export function judgePage(
  address: string,
  arrived: Outcome,
  page: PageFacts | null,
  missing: PageFacts | null,
): Outcome {
  if (arrived.state !== "sound" && arrived.state !== "moved") return arrived;
  const told = {
    ...arrived,
    title: page?.title ?? page?.heading ?? null,
    print: page && printOf(page, arrived.movedTo ?? address),
  };
  const instead = (state: ReachState, code: OutcomeCode): Outcome => ({
    ...told,
    state,
    code,
    movedTo: null,
    print: null,
  });
  const from = new URL(address);
  const last = arrived.hops.at(-1)!;
  const to = new URL(last.address);
  if (page) {
    if (tellsParked(page.words) || tellsParked(page.title ?? "")) return instead("broken", "parked");
    if (isSignIn(from, to, page)) return instead("guarded", "sign-in");
    if (tellsMissing(page.title) || tellsMissing(page.heading)) return instead("broken", "says-missing");
    if (missing && !isFront(from) && isSamePage(page, missing, to))
      return instead("unsure", "same-as-missing");
  } else if (signInPath.test(to.pathname) && !signInPath.test(from.pathname)) {
    return instead("guarded", "sign-in");
  }
  if (!isFront(from) && isFront(to)) return instead("unsure", "front-page");
  if (fileEnding.test(from.pathname) && isPage(last.type)) return instead("unsure", "other-type");
  return judgePart(address, told, last.type, page);
}

function judgePart(address: string, told: Outcome, type: string | null, page: PageFacts | null): Outcome {
  const wanted = wantedPart(told.movedTo ?? address);
  // The fragment stays behind where a page leads on, but scripts of some carry it along.
  const isThere = (): Outcome => (wasLedOn(told) ? unread(told) : told);
  const words = textDirectives(told.movedTo ?? address);
  if (words.length > 0 && wanted.kind !== "script") {
    if (!page || page.text === null) return isPage(type) ? unread(told) : told;
    if (words.some((one) => hasText(page.text!, one))) return isThere();
    return page.isWhole && page.content.length >= leastToRead
      ? { ...told, state: "broken", code: "no-text", movedTo: null }
      : unread(told);
  }
  if (wanted.kind === "top") return told;
  // The parts of other kinds of file have their own rules, which their readers' programs know.
  if (!page) return isPage(type) ? unread(told) : told;
  if (wanted.kind === "script") return unread(told);
  if (wanted.names.some((name) => page.parts.has(name))) return isThere();
  const isMade = page.hasScripts && (wanted.isForScripts === true || page.content.length < leastToRead);
  return page.isWhole && !isMade
    ? { ...told, state: "broken", code: "no-part", movedTo: null }
    : unread(told);
}

/** What a page is like now, with the words at the part that an address names. */
function printOf(page: PageFacts, address: string): Fingerprint {
  const wanted = wantedPart(address);
  const name = wanted.kind === "element" ? wanted.names.find((one) => page.parts.has(one)) : undefined;
  return fingerprintOf({
    title: page.title,
    headings: page.headings,
    language: page.language,
    words: page.content,
    part: name === undefined ? null : page.parts.get(name)!,
  });
}

function unread(told: Outcome): Outcome {
  return { ...told, state: "unsure", code: "part-unread", movedTo: null };
}

function isSignIn(from: URL, to: URL, page: PageFacts): boolean {
  // Whoever links to a sign-in page means it.
  if (signInPath.test(from.pathname)) return false;
  const asks = tellsSignIn(page.title) || tellsSignIn(page.heading);
  return (signInPath.test(to.pathname) && (page.hasPasswordField || asks)) || (page.hasPasswordField && asks);
}

function isFront(url: URL): boolean {
  return /^\/(?:index\.\w+|[a-z]{2}\/?)?$/i.test(url.pathname) && url.search === "";
}

/** Whether two pages are the same but for the address that they may repeat. */
function isSamePage(page: PageFacts, missing: PageFacts, at: URL): boolean {
  const name = percentDecoded(at.pathname.split("/").filter(Boolean).at(-1) ?? "");
  const plain = ({ title, heading, words }: PageFacts): string =>
    [title, heading, words].map((text) => withoutName(text ?? "", name)).join("\n");
  return plain(page) === plain(missing);
}

function withoutName(text: string, name: string): string {
  const bare = name === "" ? text : text.replaceAll(name, "").replaceAll(name.replace(/[-_]/g, " "), "");
  return bare
    .replaceAll(impossibleName, "")
    .replaceAll(impossibleName.replace(/-/g, " "), "")
    .replace(/\d+/g, "")
    .replace(/\s+/g, " ");
}

/** A path that no site has, to see how a server answers for what is not there. */
export const impossibleName = "vennet-asks-for-a-page-that-cannot-exist";
