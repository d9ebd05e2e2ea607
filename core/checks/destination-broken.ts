import { answerOf, keptCopyOf, type LinkRule } from "./finding.ts";

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
        ? [
            {
              subject: use.id,
              message: `${answer.reason} ${keptCopyOf(use, context) ? "Lead to the kept copy, give" : "Give"} another address, or take the link out.`,
            },
          ]
        : [];
    }),
  // Whether readers are to get the copy, its author says.
  isSure: () => false,
  mend: (use, context) => {
    const file = keptCopyOf(use, context);
    return file === null ? null : { destination: { kind: "file", file } };
  },
};
