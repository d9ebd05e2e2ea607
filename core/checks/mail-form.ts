import { readMailto, type MailMessage } from "../destination/mailto.ts";
import { isEmailAddress } from "../destination/kinds/email.ts";
import type { LinkRule } from "./finding.ts";

/** A message to an address that mail programs refuse, or with a header field that they leave out. */
export const mailForm: LinkRule = {
  id: "mail-form",
  title: "An email address is not well formed",
  severity: "fix",
  source: "RFC 5321, section 4.5.3.1 (lengths), RFC 6068, section 4 (header fields), both from memory",
  find: ({ destination }) =>
    destination.kind === "email"
      ? (whatIsWrong(readMailto(destination.address)) ?? whatIsWrittenWrong(destination.address))
      : null,
};

// What RFC 6068 lets a mail program take over without harm.
const safeFields = new Set(["keywords", "in-reply-to", "references", "comments", "reply-to"]);

function whatIsWrong({ to, cc, bcc, other }: MailMessage): string | null {
  const recipients = [...to, ...cc, ...bcc];
  if (recipients.length === 0) return "The message goes to nobody. Give an address.";
  for (const address of recipients) {
    const at = address.lastIndexOf("@");
    // RFC 5321, 4.1.2: dots stand between letters, and no part of a domain begins or ends with a hyphen.
    if (!isEmailAddress(address) || /^\.|\.\.|\.@|[@.]-[^@]*$|-(?:\.[^@]*)?$/.test(address))
      return `“${address}” is not an email address. Look for a slip.`;
    if (at > 64)
      return `The part of “${address}” before the @ is longer than the 64 letters that mail allows.`;
    if (address.length - at - 1 > 255) return `The domain of “${address}” is longer than mail allows.`;
    if (address.length > 254) return `“${address}” is longer than the 254 letters that mail allows.`;
  }
  const unsafe = other.find(([name]) => !safeFields.has(name.toLowerCase()));
  return unsafe
    ? `The message has a field “${unsafe[0]}”, which mail programs leave out. Take it out.`
    : null;
}

/** RFC 6068, section 5: a line ends with two signs, and some mail programs take nothing else for an end. */
function whatIsWrittenWrong(address: string): string | null {
  return /(?<!%0D)%0A/i.test(address)
    ? "Lines of the message end with %0A alone, which some mail programs run together. Write the message anew."
    : null;
}
