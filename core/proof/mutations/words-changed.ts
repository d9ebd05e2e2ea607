import type { Mutation } from "./mutation.ts";
import { docxLinks, markdownLinks, odtLinks } from "./opened/text-links.ts";

/** The link stands on other words. */
export const wordsChanged: Mutation = {
  name: "a link’s words changed",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ inner }) => /[a-z]{3}/.test(inner) && !inner.includes("<")));
    if (link) file.relink(link, { inner: `${link.inner}, or not` });
    return link !== undefined;
  },
  markdown(file, pick) {
    const link = pick(markdownLinks(file));
    if (link) file.replace(link, link.match[0].replace("](", ", or not]("));
    return link !== undefined;
  },
  docx(file, pick) {
    const link = pick(docxLinks(file).filter(({ match }) => match[2]!.includes("</w:t>")));
    if (link) file.replace(link, link.match[0].replace("</w:t>", ", or not</w:t>"));
    return link !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file).filter(({ match }) => /[^>]$/.test(match[2]!)));
    if (link) file.replace(link, link.match[0].replace("</text:a>", ", or not</text:a>"));
    return link !== undefined;
  },
};
