import { readMailto, writeMailto, type MailMessage } from "../destination/mailto.ts";
import type { BookRule, CheckContext } from "./finding.ts";
import { isOneSlip } from "./one-slip.ts";

/**
 * An email that was asked and goes nowhere, and whose domain is one slip away from a well-known one, or from one that the
 * book itself uses and that takes mail. One that takes mail is nobody’s slip, however near it is to another.
 */
export const mailSlip: BookRule = {
  id: "mail-slip",
  title: "An email domain looks mistyped",
  severity: "fix",
  source: "common practice: one letter too many, too few, other or swapped",
  findInBook: ({ destination }, context, answer) => {
    if (destination.kind !== "email" || answer?.state !== "broken") return null;
    const slip = slipIn(readMailto(destination.address), context);
    return slip && `Is “${slip.domain}” a slip of “${slip.meant}”?`;
  },
  // Whose mailbox it is, nobody can tell by a letter.
  isSure: () => false,
  mend: ({ destination }, context) => {
    if (destination.kind !== "email") return null;
    const message = readMailto(destination.address);
    const slip = slipIn(message, context);
    if (!slip) return null;
    const right = (address: string): string =>
      domainOf(address) === slip.domain
        ? `${address.slice(0, address.lastIndexOf("@"))}@${slip.meant}`
        : address;
    const { to, cc, bcc } = message;
    const mended = { ...message, to: to.map(right), cc: cc.map(right), bcc: bcc.map(right) };
    return { destination: { kind: "email", address: writeMailto(mended) } };
  },
};

/** Domains at which very many people have their mailboxes (common practice). */
const wellKnown = [
  "gmail.com",
  "googlemail.com",
  "hotmail.com",
  "icloud.com",
  "outlook.com",
  "yahoo.com",
  "gmx.de",
  "gmx.net",
  "web.de",
  "t-online.de",
  "orange.fr",
  "free.fr",
  "laposte.net",
];
/** Of shorter names too many are one slip from another. */
const shortest = 6;

function slipIn(
  { to, cc, bcc }: MailMessage,
  context: CheckContext,
): { domain: string; meant: string } | null {
  const known = new Set([...wellKnown, ...soundDomains(context)]);
  for (const domain of [...to, ...cc, ...bcc].map(domainOf)) {
    if (known.has(domain) || domain.length < shortest) continue;
    for (const meant of known)
      if (meant.length >= shortest && isOneSlip(domain, meant)) return { domain, meant };
  }
  return null;
}

/** The domains of the book's emails that were seen to take mail. */
function soundDomains({ answers }: CheckContext): Set<string> {
  const found = new Set<string>();
  for (const [address, { state }] of answers)
    if (state === "sound" && address.startsWith("mailto:"))
      for (const recipient of readMailto(address).to) found.add(domainOf(recipient));
  return found;
}

function domainOf(address: string): string {
  return address.slice(address.lastIndexOf("@") + 1).toLowerCase();
}
