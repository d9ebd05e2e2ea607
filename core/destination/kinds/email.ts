import { DestinationError } from "../errors.ts";
import { inAscii } from "../in-ascii.ts";
import { emptyMessage, readMailto, writeMailto } from "../mailto.ts";
import { schemeOf } from "../scheme.ts";
import type { DestinationKindOf } from "./kind.ts";

/** A message to somebody. `address` is a `mailto:` URI (RFC 6068). */
export interface EmailDestination {
  kind: "email";
  address: string;
}

/** Who is asked about emails: not a host, but the name servers of their domains. */
export const mailHost = "mail:";

/** Whether text is one email address, as far as its form tells. */
export function isEmailAddress(text: string): boolean {
  return /^[^\s@<>"(),:;[\]\\]+@[^\s@/,;:<>"()[\]\\?&]+\.[^\s@/.,;:<>"()[\]\\?&]+$/.test(text);
}

/** Email: a message to one or more people, with all that is filled in before (RFC 6068). */
export const email: DestinationKindOf<EmailDestination> = {
  schemes: ["mailto:"],
  becomes: "Open a message with subject, copies and first lines filled in.",
  fromAddress: (address) => ({ kind: "email", address }),
  fromTyped: (text) => {
    const recipients = text.split(/\s*[,;]\s*|\s+/);
    if (recipients.every(isEmailAddress))
      return {
        destination: { kind: "email", address: writeMailto({ ...emptyMessage(), to: recipients }) },
      };
    // A message without its scheme: recipients, then what is filled in.
    const isBareMessage = /^[^?\s]+@[^?\s]+\?(subject|cc|bcc|body)=/i.test(text);
    if (schemeOf(text) !== "mailto:" && !isBareMessage) return null;
    const message = readMailto(isBareMessage && schemeOf(text) === null ? `mailto:${text}` : text);
    if (message.to.length + message.cc.length + message.bcc.length === 0)
      throw new DestinationError(
        "address",
        "An email needs somebody to go to, as in wardens@causeways.example.",
      );
    return { destination: { kind: "email", address: writeMailto(message) } };
  },
  isPlain: (word) => isEmailAddress(word) || /^mailto:[^\s@]+@/i.test(word),
  assert: (_, text) => {
    if (schemeOf(text("address")) !== "mailto:")
      throw new DestinationError("scheme", "An email destination begins with mailto:.");
  },
  write: ({ address }) => address,
  name: ({ address }) => address,
  short: ({ address }) => {
    const { to, cc, bcc } = readMailto(address);
    return (to.length > 0 ? to : [...cc, ...bcc]).join(", ");
  },
  asked: ({ address }) => ({ address, host: mailHost }),
  // Manuscripts have letters and blanks in it that a URI is not written with (RFC 6068, 2 and 5).
  outside: ({ address }) => ({ kind: "address", address: inAscii(address) }),
};
