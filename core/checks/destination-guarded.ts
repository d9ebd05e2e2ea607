import { shareOf, type BookRule } from "./finding.ts";

/** A destination that lets in only those whom it knows. */
export const destinationGuarded: BookRule = {
  id: "destination-guarded",
  title: "A destination is locked",
  severity: "consider",
  source: "RFC 9110, sections 15.5.2 and 15.5.4 (from memory): 401 asks who somebody is, 403 refuses",
  // Who may open a file of the shared drive is known better.
  findInBook: (link, context, answer) =>
    answer?.state === "guarded" && answer.lookedAt === null && !shareOf(link, context)
      ? `${answer.reason} If your readers can open it, say that you have looked; else give an open page.`
      : null,
};
