import type { Mutation } from "./mutation.ts";
import { docxLinks, markdownLinks, odtLinks } from "./opened/text-links.ts";

/** Neither the link nor its words are there. */
export const linkAndWordsDropped: Mutation = {
  name: "a link and its words dropped",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.replace(link, "");
    return link !== undefined;
  },
  markdown(file, pick) {
    const link = pick(markdownLinks(file));
    if (link) file.replace(link, "");
    return link !== undefined;
  },
  docx(file, pick) {
    const link = pick(docxLinks(file));
    if (link) file.replace(link, "");
    return link !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file));
    if (link) file.replace(link, "");
    return link !== undefined;
  },
};
