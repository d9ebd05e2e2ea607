import type { Mutation } from "./mutation.ts";
import { withoutAttribute } from "./opened/open-pages.ts";
import { docxLinks, markdownLinks, odtLinks } from "./opened/text-links.ts";

/** Who cannot see the page is told nothing of where it leads. */
export const descriptionRemoved: Mutation = {
  name: "a description removed",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ tag }) => / (xlink:)?title="/.test(tag)));
    if (link) file.relink(link, { tag: withoutAttribute(link.tag, "title") });
    return link !== undefined;
  },
  pdf(file, pick) {
    const link = pick(file.links().filter(({ dictionary }) => dictionary.has("Contents")));
    if (link) file.unset(link, "Contents");
    return link !== undefined;
  },
  markdown(file, pick) {
    const link = pick(markdownLinks(file).filter(({ match }) => match[3]));
    if (link) file.replace(link, link.match[0].replace(link.match[3]!, ""));
    return link !== undefined;
  },
  docx(file, pick) {
    const link = pick(docxLinks(file).filter(({ match }) => match[1]!.includes("w:tooltip=")));
    if (link) file.replace(link, link.match[0].replace(/ w:tooltip="[^"]*"/, ""));
    return link !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file, /office:title=/));
    if (link) file.replace(link, link.match[0].replace(/ office:title="[^"]*"/, ""));
    return link !== undefined;
  },
};
