import { answerOf, type LinkRule } from "./finding.ts";

/** A destination that is gone, or was never there. */
export const destinationBroken: LinkRule = {
  id: "destination-broken",
  title: "A destination is broken",
  severity: "fix",
  source: "RFC 9110, section 15.5; RFC 5321 and 7505 for email; WHATWG HTML for parts of pages (from memory)",
  find: (links, context) =>
    links.flatMap((use) => {
      const answer = answerOf(use, context);
      return answer?.state === "broken"
        ? [{ subject: use.id, message: `${answer.reason} Give another address, or take the link out.` }]
        : [];
    }),
};
