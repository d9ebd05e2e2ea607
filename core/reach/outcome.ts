import type { PolicyRefusal } from "./address-policy.ts";
import type { Fingerprint } from "./fingerprint.ts";

/** The state of a destination. */
export type ReachState = "sound" | "moved" | "guarded" | "broken" | "unsure";

/** Why no answer came. */
export type Failure =
  | { code: "unknown-name" }
  | { code: "name-server" }
  | { code: "refused" }
  | { code: "dropped" }
  /** `connected` where the server took the question, and did not answer it. */
  | { code: "timeout"; connected?: true }
  | { code: "tls-expired" }
  | { code: "tls-name" }
  | { code: "tls-self-signed" }
  | { code: "tls-chain" }
  | { code: "tls-none" }
  | { code: "tls-handshake"; detail: string }
  | { code: "tls"; detail: string }
  | { code: "protocol"; detail: string }
  | { code: "undecodable" }
  | PolicyRefusal;

/** One question and its answer: either a status or a failure. */
export interface Hop {
  method: "HEAD" | "GET";
  address: string;
  status: number | null;
  location: string | null;
  /** The answer's media type without its parameters, in lower case. */
  type: string | null;
  failure: Failure | null;
  /** The address, whole, to which the page that came leads its readers by itself, soon. */
  leadsOn?: string;
  /** Whether it asks who somebody is (`WWW-Authenticate`), as a door for members does. */
  asksWho?: true;
  /** Whether it set a cookie, or another value, than had been set before in its visit (RFC 6265). */
  setsCookies?: true;
  /** When its certificate ends, ISO 8601, where that is soon. */
  certificateEnds?: string;
  /** Milliseconds from asking to the answer's head. */
  ms: number;
}

/** Why a destination is in its state. */
export type OutcomeCode =
  | "ok"
  | "redirected"
  | "moved"
  | "guarded"
  | "not-found"
  | "gone"
  | "status"
  | "asked-to-wait"
  | "loop"
  | "too-many-redirects"
  | "bad-redirect"
  // What the page itself tells.
  | "no-part"
  | "part-unread"
  | "no-text"
  | "shut-to-programs"
  | "refuses-all"
  | "says-missing"
  | "same-as-missing"
  | "sign-in"
  | "parked"
  | "front-page"
  | "other-type"
  // What a mail domain's records tell.
  | "takes-mail"
  | "mail-by-address"
  | "no-mail"
  | "no-exchanger"
  | Failure["code"];

/** What asking a destination showed, with its evidence. */
export interface Outcome {
  state: ReachState;
  code: OutcomeCode;
  hops: Hop[];
  /** The address that a permanent redirect gave, where the state is `moved`. */
  movedTo: string | null;
  /** What the page calls itself, where it was read. */
  title: string | null;
  /** The https address that answered as well, where the destination is an http one. */
  secure: string | null;
  /** What the page is like, where it was read and is well. */
  print: Fingerprint | null;
}

const failureWords: Record<Failure["code"], string> = {
  "unknown-name": "No server has this name.",
  "name-server": "The name could not be looked up just now, since its name server failed. It may work later.",
  refused: "The server refuses connections.",
  dropped: "The server dropped the connection before it answered.",
  timeout: "The server did not answer in time.",
  "tls-expired": "The server's certificate has run out, so browsers warn readers away.",
  "tls-name": "The server's certificate is for another name, so browsers warn readers away.",
  "tls-self-signed": "The server vouches for itself: nobody else has signed its certificate.",
  "tls-chain":
    "The server does not show who signed its certificate. Some browsers find that out by themselves, others warn readers away.",
  "tls-none": "The server does not answer by https at this address.",
  "tls-handshake": "The server and Vennet have no way of encrypting in common. Browsers may have one.",
  tls: "The server's certificate cannot be trusted.",
  protocol: "The server's answer could not be understood.",
  undecodable: "The answer is packed in a way in which it cannot be unpacked, so that browsers show nothing.",
  scheme: "It leads to an address that is neither http nor https.",
  credentials: "The address carries a user name or password. Take it out.",
  port: "The address names a port that Vennet does not ask.",
  "not-public": "The address lies in a private network, where readers cannot reach it.",
};

/** One sentence for the author about an outcome. */
export function explainOutcome({ code, hops, movedTo }: Pick<Outcome, "code" | "hops" | "movedTo">): string {
  const last = hops.at(-1);
  const status = last?.status ?? 0;
  switch (code) {
    case "ok":
      return `The page answers (${status}).`;
    case "redirected":
      return wasLedOn({ hops })
        ? `A page leads on to another by itself, which answers (${status}).`
        : `The page answers after a temporary redirect (${status}).`;
    case "moved":
      return `The page has moved for good to ${movedTo ?? "another address"}.`;
    case "guarded":
      return `The server answers, but lets in only those it knows (${status}).`;
    case "sign-in":
      return "The page asks readers to sign in first.";
    case "not-found":
      return "The server has no page at this address (404).";
    case "gone":
      return "The page is gone for good (410).";
    case "says-missing":
      return `The server answers as if all were well (${status}), but the page itself says that it was not found.`;
    case "same-as-missing":
      return "The server answers with this same page for a name that cannot exist, so the page may be gone.";
    case "parked":
      return "The name is parked: it shows an offer to buy it instead of the page.";
    case "front-page":
      return "The address leads to the front page of the site now. What it once showed may be gone.";
    case "other-type":
      return `The address promises a file, but a web page comes (${last?.type ?? "no type told"}).`;
    case "no-part":
      return "The page answers, but it has no part of the name behind the # sign.";
    case "part-unread":
      return "The page answers; whether it has the part behind the # sign could not be read from it.";
    case "no-text":
      return "The page answers, but has no longer the words that the address points at.";
    case "shut-to-programs":
      return "The server may be shut to programs and open to readers.";
    case "refuses-all":
      return `The server refuses this page as it does one that cannot exist (${status}): the page may be gone, or shut to programs.`;
    case "status":
      if (status === 429) return "The server was asked too much, or is shut to programs (429).";
      return status >= 500
        ? `The server has a fault of its own (${status}). It may be well again later.`
        : `The server answered ${status}, which does not say whether the page is there.`;
    case "asked-to-wait":
      return `The server asked to come back later than this run lasts (${status}).`;
    case "loop":
      return "The redirects lead round in a circle.";
    case "too-many-redirects":
      return "More than 10 redirects, one after the other.";
    case "bad-redirect":
      return "A redirect leads to something that is not a web address.";
    case "takes-mail":
      return "The domain has a server that takes mail. Whether the mailbox exists is never tried.";
    case "mail-by-address":
      return "The domain names no mail server, but has an address to which mail may go.";
    case "no-mail":
      return "The domain says that it takes no mail at all.";
    case "no-exchanger":
      return "The domain has neither a mail server nor an address.";
    default:
      return failureWords[code];
  }
}

/** Where asking ended: the last address that was asked, what came from there, and when its certificate ends if that is soon. */
export function endOf({ hops }: Pick<Outcome, "hops">): {
  endsAt: string | null;
  type: string | null;
  certificateEnds: string | null;
} {
  const last = hops.at(-1);
  return {
    endsAt: last && last.address !== hops[0]!.address ? last.address : null,
    type: last?.type ?? null,
    certificateEnds: last?.certificateEnds ?? null,
  };
}

/** Whether a page on the way led on by itself. */
export function wasLedOn({ hops }: Pick<Outcome, "hops">): boolean {
  return hops.slice(0, -1).some(({ leadsOn }) => leadsOn !== undefined);
}

/** An outcome of what has neither moved nor been read. */
export function outcome(state: ReachState, code: OutcomeCode, hops: Hop[]): Outcome {
  return { state, code, hops, movedTo: null, title: null, secure: null, print: null };
}
