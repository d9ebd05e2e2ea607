import type { WebDestination } from "../destination/kinds/web.ts";
import { urlOf } from "../destination/url-of.ts";
import { answerOf, type CheckedLink, type KnownAnswer, type BookRule } from "./finding.ts";

/** A destination of which asking did not show whether it is there. */
export const destinationUnsure: BookRule = {
  id: "destination-unsure",
  title: "A destination could not be judged",
  severity: "consider",
  source: "RFC 9110, section 15.6 (from memory); common practice for pages that are not what they seem",
  findInBook: (link, _context, answer) => {
    if (answer?.state !== "unsure" || answer.lookedAt !== null) return null;
    return saysOnce(link, answer)
      ? `${urlOf(link.destination as WebDestination).host} answers every address with the same page, so none of its pages can be told from a missing one. Open them yourself.`
      : `${answer.reason} Open it yourself and say so, or check again later.`;
  },
  // What a whole host does is said of it once.
  onceFor: (use, context) => {
    const answer = answerOf(use, context);
    return answer && saysOnce(use, answer) ? urlOf(use.destination as WebDestination).host : null;
  },
};

function saysOnce({ destination }: CheckedLink, { code }: KnownAnswer): boolean {
  return code === "same-as-missing" && destination.kind === "web";
}
