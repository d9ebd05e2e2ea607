import { companionOf, type KnownAnswer, type BookRule } from "./finding.ts";
import { isOwnHost } from "./own-network.ts";

/** A companion file that has links of its own which lead its readers nowhere. */
export const fileDeadEnds: BookRule = {
  id: "file-dead-ends",
  title: "A companion file has links that lead nowhere",
  severity: "fix",
  source: "common practice: what goes out with a book is checked like the book",
  findInBook: (link, context) => {
    const file = companionOf(link, context);
    const [first] = file?.deadEnds ?? [];
    if (!file || !first) return null;
    const count = file.deadEnds!.length;
    return `“${file.name}” has ${count === 1 ? "a link" : `${count} links`} of its own that ${count === 1 ? "leads" : "lead"} nowhere, ${count === 1 ? "" : "the first "}on page ${first.page}: “${first.to}”. Mend the file, and put it in its place.`;
  },
  onceFor: ({ destination }) =>
    destination.kind === "file" && "file" in destination ? destination.file : null,
};

/**
 * Whether a link that leaves a file leads its readers nowhere: to a disk or network of its author’s, or to what is broken.
 * @param to the destination as it is written
 * @param state what asking it showed last; null where it was not asked
 */
export function isDeadEnd(to: string, state: KnownAnswer["state"] | null): boolean {
  if (state === "broken") return true;
  if (/^(?:file:|[a-z]:[\\/]|\\\\)/i.test(to)) return true;
  return /^https?:/i.test(to) && URL.canParse(to) && isOwnHost(new URL(to).hostname);
}
