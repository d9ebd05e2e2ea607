import type { Mutation } from "./mutation.ts";
import { markdownLinks } from "./opened/text-links.ts";

/** The link is not there for who reads. */
export const htmlAroundLink: Mutation = {
  name: "hidden HTML around a link",
  markdown(file, pick) {
    const link = pick(markdownLinks(file));
    if (link) file.replace(link, `<span hidden>${link.match[0]}</span>`);
    return link !== undefined;
  },
};
