import { keptCopyOf, type BookRule } from "./finding.ts";

/** A destination that is gone, or was never there. */
export const destinationBroken: BookRule = {
  id: "destination-broken",
  title: "A destination is broken",
  severity: "fix",
  source: "RFC 9110, section 15.5; RFC 5321 and 7505 for email; WHATWG HTML for parts of pages (from memory)",
  findInBook: (link, context, answer) =>
    answer?.state === "broken"
      ? `${answer.reason} ${keptCopyOf(link, context) ? "Lead to the kept copy, give" : "Give"} another address, or take the link out.`
      : null,
  // Whether readers are to get the copy, its author says.
  isSure: () => false,
  mend: (use, context) => {
    const file = keptCopyOf(use, context);
    return file === null ? null : { destination: { kind: "file", file } };
  },
};
