import type { Mutation } from "./mutation.ts";
import { markdownLinks } from "./opened/text-links.ts";

/** The link is not there for who reads. */
export const linkInComment: Mutation = {
  name: "a link within a comment",
  markdown(file, pick) {
    const link = pick(markdownLinks(file));
    if (link) file.replace(link, `<!-- ${link.match[0]} -->`);
    return link !== undefined;
  },
};
