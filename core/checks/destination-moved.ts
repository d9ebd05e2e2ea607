import { webDestination } from "../destination/kinds/web.ts";
import { answerOf, type BookRule } from "./finding.ts";

/** A destination whose server says that another address should be used from now on. */
export const destinationMoved: BookRule = {
  id: "destination-moved",
  title: "A destination has moved",
  severity: "fix",
  source: "RFC 9110, sections 15.4.2 and 15.4.9 (from memory): 301 and 308 are permanent",
  findInBook: (_link, _context, answer) => (answer?.state === "moved" ? answer.reason : null),
  mend: (use, context) => {
    const { destination } = use;
    const to = answerOf(use, context)?.movedTo;
    if (!to) return null;
    if (destination.kind === "web") return { destination: webDestination(to) };
    return destination.kind === "file" && "share" in destination
      ? { destination: { kind: "file", share: to } }
      : null;
  },
};
