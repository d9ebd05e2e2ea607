import { textString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { docxLinks, markdownLinks, odtLinks } from "./opened/text-links.ts";

/** Who cannot see the page is told something else. */
export const descriptionChanged: Mutation = {
  name: "a description changed",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ tag }) => / (xlink:)?title="/.test(tag)));
    if (link) file.relink(link, { tag: link.tag.replace(/title="/, 'title="Not ') });
    return link !== undefined;
  },
  pdf(file, pick) {
    const link = pick(file.links().filter(({ dictionary }) => dictionary.has("Contents")));
    if (link) file.set(link, "Contents", textString("Somewhere else"));
    return link !== undefined;
  },
  markdown(file, pick) {
    const link = pick(markdownLinks(file).filter(({ match }) => match[3]));
    if (link) file.replace(link, link.match[0].replace(link.match[3]!, ' "Somewhere else"'));
    return link !== undefined;
  },
  docx(file, pick) {
    const link = pick(docxLinks(file).filter(({ match }) => match[1]!.includes("w:tooltip=")));
    if (link) file.replace(link, link.match[0].replace(/w:tooltip="/, 'w:tooltip="Not '));
    return link !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file, /office:title=/));
    if (link) file.replace(link, link.match[0].replace('office:title="', 'office:title="Not '));
    return link !== undefined;
  },
};
