import type { ChapterRule } from "./finding.ts";
import { checkedPage } from "./page-of-file.ts";

/** A link of a finished file that readers’ programs refuse to follow, or that leads to the disk of who made the file. */
export const cannotBeFollowed: ChapterRule = {
  id: "cannot-be-followed",
  title: "A link cannot be followed",
  severity: "fix",
  source:
    "ISO 32000-1 12.6.4, and common practice: programs start nothing and run nothing that a file asks for",
  findInChapter: (_doc, _links, context) =>
    (checkedPage(context)?.dead ?? []).map(({ id, words, why }) => ({
      subject: id,
      message: `${words ? `“${words}”` : "A link"}: ${inShort(why)}. Lead it elsewhere on its page, or take it out.`,
    })),
};

/** The first sentence of a reason, and the address that it is about. */
function inShort(why: string): string {
  const [first = ""] = why.split(/\.(?:\s|$)/);
  const address = / (\(\S.*\))$/.exec(why)?.[1];
  const lower = first.replace(/^[A-Z](?=[a-z])/, (letter) => letter.toLowerCase());
  return address && !first.endsWith(address) ? `${lower} ${address}` : lower;
}
