import type { Mutation } from "./mutation.ts";
import { docxLinks, markdownLinks, odtLinks } from "./opened/text-links.ts";

/** The words are there, and are no link. */
export const linkDropped: Mutation = {
  name: "a link dropped, its words kept",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.replace(link, link.inner.replace(/<title>.*?<\/title>/s, ""));
    return link !== undefined;
  },
  pdf(file, pick) {
    const link = pick(file.links());
    if (!link) return false;
    file.setAnnotations(
      link.page,
      file.annotationsOf(link.page).filter(({ number }) => number !== link.ref.number),
    );
    return true;
  },
  markdown(file, pick) {
    const link = pick(markdownLinks(file));
    if (link) file.replace(link, link.match[1]!);
    return link !== undefined;
  },
  docx(file, pick) {
    const link = pick(docxLinks(file));
    if (link) file.replace(link, link.match[2]!);
    return link !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file));
    if (link) file.replace(link, link.match[2]!);
    return link !== undefined;
  },
};
