import type { BookRule } from "./finding.ts";

/** A server whose certificate ends within days, after which browsers warn readers away. */
export const certificateEnds: BookRule = {
  id: "certificate-ends",
  title: "A server’s certificate ends soon",
  severity: "consider",
  source:
    "RFC 5280, section 4.1.2.5 (from memory): a certificate is valid until a day; common practice: 14 days",
  findInBook: (_link, _context, answer) => {
    const ends = answer?.state === "sound" || answer?.state === "moved" ? answer.certificateEnds : null;
    return (
      ends &&
      `The server’s certificate ends on ${ends.slice(0, 10)}. If it is not renewed, browsers warn readers away: check again then.`
    );
  },
};
