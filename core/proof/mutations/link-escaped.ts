import type { Mutation } from "./mutation.ts";
import { markdownLinks } from "./opened/text-links.ts";

/** It is shown as signs, and is no link. */
export const linkEscaped: Mutation = {
  name: "a link with its bracket escaped",
  markdown(file, pick) {
    const link = pick(markdownLinks(file));
    if (link) file.replace(link, `\\${link.match[0]}`);
    return link !== undefined;
  },
};
