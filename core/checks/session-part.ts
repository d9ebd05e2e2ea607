import { webDestination } from "../destination/kinds/web.ts";
import { session, sessionHandle, withoutParts } from "../destination/address-parts.ts";
import type { LinkRule } from "./finding.ts";

/** An address that was copied with the author’s own visit in it: it ends, or shows readers what is not theirs. */
export const sessionPart: LinkRule = {
  id: "session-part",
  title: "An address carries the author’s own visit",
  severity: "fix",
  source: "OWASP ASVS 4.0.3, 3.1.1 (from memory): the sign of a visit never stands in an address",
  find: ({ destination }) => {
    if (destination.kind !== "web") return null;
    const { left } = withoutParts(destination, session, sessionHandle);
    return left.length === 0
      ? null
      : `“${left.join("”, “")}” is the sign of your own visit: it soon ends, and readers may then get another page. Take it out, and check the rest.`;
  },
  isSure: () => false,
  mend: ({ destination }) =>
    destination.kind === "web"
      ? { destination: webDestination(withoutParts(destination, session, sessionHandle).address) }
      : null,
};
