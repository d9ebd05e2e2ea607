import { answerOf, shareOf, type LinkRule } from "./finding.ts";

/** A destination that lets in only those whom it knows. */
export const destinationGuarded: LinkRule = {
  id: "destination-guarded",
  title: "A destination is locked",
  severity: "consider",
  source: "RFC 9110, sections 15.5.2 and 15.5.4 (from memory): 401 asks who somebody is, 403 refuses",
  find: (links, context) =>
    links.flatMap((use) => {
      const answer = answerOf(use, context);
      // Who may open a file of the shared drive is known better.
      return answer?.state === "guarded" && answer.lookedAt === null && !shareOf(use, context)
        ? [
            {
              subject: use.id,
              message: `${answer.reason} If your readers can open it, say that you have looked; else give an open page.`,
            },
          ]
        : [];
    }),
};
