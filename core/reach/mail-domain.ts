import { outcome, type Failure, type Outcome } from "./outcome.ts";

/** One mail exchanger of a domain (an MX record). */
export interface MailExchanger {
  preference: number;
  /** Its name; empty for the root. */
  name: string;
}

/** What a domain's name servers say of its mail. */
export type MailRecords =
  | { exchangers: MailExchanger[]; hasAddress: boolean }
  | { failure: Extract<Failure, { code: "unknown-name" | "name-server" }> };

/**
 * Whether a domain takes mail. By RFC 5321, 5.1, a domain without exchangers takes it at its own address;
 * by RFC 7505 one exchanger without a name says that it takes none. No message is ever sent.
 */
export function judgeMailDomain(records: MailRecords): Outcome {
  if ("failure" in records) {
    const { code } = records.failure;
    return outcome(code === "unknown-name" ? "broken" : "unsure", code, []);
  }
  const { exchangers, hasAddress } = records;
  if (exchangers.length === 1 && exchangers[0]!.name === "") return outcome("broken", "no-mail", []);
  if (exchangers.length > 0) return outcome("sound", "takes-mail", []);
  return hasAddress ? outcome("sound", "mail-by-address", []) : outcome("broken", "no-exchanger", []);
}

const rank = { broken: 0, unsure: 1, guarded: 2, moved: 3, sound: 4 };

/** The outcome for a message to several domains: it arrives where all take mail. At least one is given. */
export function worstOf(outcomes: readonly Outcome[]): Outcome {
  return outcomes.reduce((worst, one) => (rank[one.state] < rank[worst.state] ? one : worst));
}
