import { webDestination } from "../destination/kinds/web.ts";
import { answerOf, type BookRule } from "./finding.ts";

/** An http address whose server was seen to answer by https too. */
export const httpsAnswers: BookRule = {
  id: "https-answers",
  title: "An address works with https too",
  severity: "consider",
  source: "RFC 9110, section 4.2.2 (from memory): https keeps what readers ask to themselves",
  findInBook: (_link, _context, answer) =>
    answer?.secure
      ? "The address says http, and the same page answers by https. Readers are safer with https."
      : null,
  mend: (use, context) => {
    const to = answerOf(use, context)?.secure;
    return to && use.destination.kind === "web" ? { destination: webDestination(to) } : null;
  },
};
