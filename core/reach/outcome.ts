import type { PolicyRefusal } from "./address-policy.ts";

/** The state of a destination. */
export type ReachState = "sound" | "moved" | "guarded" | "broken" | "unsure";

/** Why no answer came. */
export type Failure =
  | { code: "unknown-name" }
  | { code: "name-server" }
  | { code: "refused" }
  | { code: "dropped" }
  | { code: "timeout" }
  | { code: "tls"; detail: string }
  | { code: "protocol"; detail: string }
  | PolicyRefusal;

/** One question and its answer: either a status or a failure. */
export interface Hop {
  method: "HEAD" | "GET";
  address: string;
  status: number | null;
  location: string | null;
  failure: Failure | null;
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
  | "loop"
  | "too-many-redirects"
  | "bad-redirect"
  | Failure["code"];

/** What asking a destination showed, with its evidence. */
export interface Outcome {
  state: ReachState;
  code: OutcomeCode;
  hops: Hop[];
  /** The address that a permanent redirect gave, where the state is `moved`. */
  movedTo: string | null;
}

/** One sentence for the author about an outcome. */
export function explainOutcome(outcome: Outcome): string {
  const last = outcome.hops.at(-1);
  const status = last?.status ?? 0;
  switch (outcome.code) {
    case "ok":
      return `The page answers (${status}).`;
    case "redirected":
      return `The page answers after a temporary redirect (${status}).`;
    case "moved":
      return `The page has moved for good to ${outcome.movedTo ?? "another address"}.`;
    case "guarded":
      return `The server answers, but lets in only those it knows (${status}).`;
    case "not-found":
      return "The server has no page at this address (404).";
    case "gone":
      return "The page is gone for good (410).";
    case "status":
      return status >= 500
        ? `The server has a fault of its own (${status}). It may be well again later.`
        : `The server answered ${status}, which does not say whether the page is there.`;
    case "loop":
      return "The redirects lead round in a circle.";
    case "too-many-redirects":
      return "More than 10 redirects, one after the other.";
    case "bad-redirect":
      return "A redirect leads to something that is not a web address.";
    case "unknown-name":
      return "No server has this name.";
    case "name-server":
      return "The name could not be looked up just now. It may work later.";
    case "refused":
      return "The server refuses connections.";
    case "dropped":
      return "The server dropped the connection before it answered.";
    case "timeout":
      return "The server did not answer in time.";
    case "tls":
      return "The server's certificate cannot be trusted.";
    case "protocol":
      return "The server's answer could not be understood.";
    case "scheme":
      return "It leads to an address that is neither http nor https.";
    case "credentials":
      return "The address carries a user name or password. Take it out.";
    case "port":
      return "The address names a port that Vennet does not ask.";
    case "not-public":
      return "The address lies in a private network, where readers cannot reach it.";
  }
}
