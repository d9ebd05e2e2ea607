import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";
import { docxLinks, markdownLinks, odtLinks } from "./opened/text-links.ts";

/** Who cannot see the page is told what nobody wrote. */
export const descriptionAdded: Mutation = {
  name: "a description that the author did not give",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ tag }) => !/ title="/.test(tag) && / class="/.test(tag)));
    if (link) file.relink(link, { tag: withAttribute(link.tag, "title", "Elsewhere") });
    return link !== undefined;
  },
  markdown(file, pick) {
    const link = pick(markdownLinks(file).filter(({ match }) => !match[3]));
    if (link) file.replace(link, `${link.match[0].slice(0, -1)} "Elsewhere")`);
    return link !== undefined;
  },
  docx(file, pick) {
    const link = pick(docxLinks(file).filter(({ match }) => !match[1]!.includes("w:tooltip=")));
    if (link) file.replace(link, link.match[0].replace("<w:hyperlink", '<w:hyperlink w:tooltip="Elsewhere"'));
    return link !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file, /^(?!.*office:title=)/s));
    if (link) file.replace(link, link.match[0].replace("<text:a", '<text:a office:title="Elsewhere"'));
    return link !== undefined;
  },
};
