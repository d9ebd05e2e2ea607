import type { Mutation } from "./mutation.ts";
import { markdownLinks } from "./opened/text-links.ts";

/** It is shown as signs, and is no link. */
export const linkAsCode: Mutation = {
  name: "a link within code",
  markdown(file, pick) {
    const link = pick(markdownLinks(file).filter(({ match }) => !match[0].includes("`")));
    if (link) file.replace(link, `\`${link.match[0]}\``);
    return link !== undefined;
  },
};
