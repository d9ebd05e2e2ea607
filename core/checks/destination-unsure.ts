import { answerOf, type LinkRule } from "./finding.ts";

/** A destination of which asking did not show whether it is there. */
export const destinationUnsure: LinkRule = {
  id: "destination-unsure",
  title: "A destination could not be judged",
  severity: "consider",
  source: "RFC 9110, section 15.6 (from memory); common practice for pages that are not what they seem",
  find: (links, context) =>
    links.flatMap((use) => {
      const answer = answerOf(use, context);
      return answer?.state === "unsure"
        ? [{ subject: use.id, message: `${answer.reason} Look at it yourself, or ask again later.` }]
        : [];
    }),
};
