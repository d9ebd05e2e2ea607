import { webDestination } from "../destination/kinds/web.ts";
import { answerOf, type LinkRule } from "./finding.ts";

/** An http address whose server was seen to answer by https too. */
export const httpsAnswers: LinkRule = {
  id: "https-answers",
  title: "An address works with https too",
  severity: "consider",
  source: "RFC 9110, section 4.2.2 (from memory): https keeps what readers ask to themselves",
  find: (links, context) =>
    links.flatMap((use) =>
      answerOf(use, context)?.secure
        ? [
            {
              subject: use.id,
              message:
                "The address says http, and the same page answers by https. Readers are safer with https.",
            },
          ]
        : [],
    ),
  mend: (use, context) => {
    const to = answerOf(use, context)?.secure;
    return to && use.destination.kind === "web" ? { destination: webDestination(to) } : null;
  },
};
