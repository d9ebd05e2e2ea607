import { PdfString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { withHref } from "./opened/open-pages.ts";
import { markdownLinks, odtLinks } from "./opened/text-links.ts";

/** It leads to another page of the web. */
export const addressChanged: Mutation = {
  name: "an address changed by a letter",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ href }) => /^https?:/.test(href)));
    if (link) file.relink(link, { tag: withHref(link.tag, `${link.href}x`) });
    return link !== undefined;
  },
  pdf(file, pick) {
    const link = pick(file.outward());
    if (!link) return false;
    const action = new Map(file.objects.dictionary(link.dictionary.get("A")));
    file.set(link, "A", action.set("URI", new PdfString(`${file.uri(link.dictionary)}x`)));
    return true;
  },
  markdown(file, pick) {
    const link = pick(markdownLinks(file, /^https?:/));
    if (link) file.replace(link, link.match[0].replace("](http", "](http:x"));
    return link !== undefined;
  },
  docx(file, pick) {
    const target = pick(file.find([file.pathOf(/document\.xml\.rels$/)!], /Target="(https?:[^"]*)"/));
    if (target) file.replace(target, `Target="${target.match[1]}x"`);
    return target !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file, /xlink:href="https?:/));
    if (link) file.replace(link, link.match[0].replace(/(xlink:href="[^"]*)"/, '$1x"'));
    return link !== undefined;
  },
};
