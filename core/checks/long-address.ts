import type { LinkRule } from "./finding.ts";

const longest = 2000;

/** An address of more than 2,000 characters. */
export const longAddress: LinkRule = {
  id: "long-address",
  title: "An address is very long",
  severity: "consider",
  source:
    "RFC 9110, section 4.1 (from memory): at least 8000 octets are recommended; common practice: beyond 2,000 characters some readers’ programs cut it",
  find: ({ destination }) => {
    const length =
      destination.kind === "web" || destination.kind === "email" ? destination.address.length : 0;
    return length <= longest
      ? null
      : `The address has ${length} characters; some readers' programs cut it after ${longest}. Look for a shorter one.`;
  },
};
