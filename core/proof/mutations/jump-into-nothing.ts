import { PdfString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { withHref } from "./opened/open-pages.ts";
import { markdownLinks, odtLinks } from "./opened/text-links.ts";

/** A press on it does nothing. */
export const jumpIntoNothing: Mutation = {
  name: "a jump to a place that is not there",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ href }) => href.includes("#")));
    if (link) file.relink(link, { tag: withHref(link.tag, `${link.href}x`) });
    return link !== undefined;
  },
  pdf(file, pick) {
    const link = pick(file.inward());
    if (link) file.set(link, "Dest", new PdfString("nowhere"));
    return link !== undefined;
  },
  markdown(file, pick) {
    const link = pick(markdownLinks(file, /^#/));
    if (link) file.replace(link, link.match[0].replace("](#", "](#x"));
    return link !== undefined;
  },
  docx(file, pick) {
    const anchor = pick(file.find([file.pathOf(/word\/document\.xml$/)!], /w:anchor="([^"]*)"/));
    if (anchor) file.replace(anchor, 'w:anchor="nowhere"');
    return anchor !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file, /xlink:href="#/));
    if (link) file.replace(link, link.match[0].replace(/xlink:href="#[^"]*"/, 'xlink:href="#nowhere"'));
    return link !== undefined;
  },
};
