import type { Mutation } from "./mutation.ts";
import { docxLinks, odtLinks } from "./opened/text-links.ts";

/** The link is not there for who reads. */
export const wordsHidden: Mutation = {
  name: "a link’s words hidden",
  docx(file, pick) {
    const link = pick(docxLinks(file).filter(({ match }) => /<w:r>|<w:rPr>/.test(match[2]!)));
    if (!link) return false;
    const hidden = link.match[0].includes("<w:rPr>")
      ? link.match[0].replaceAll("<w:rPr>", "<w:rPr><w:vanish/>")
      : link.match[0].replaceAll("<w:r>", "<w:r><w:rPr><w:vanish/></w:rPr>");
    file.replace(link, hidden);
    return true;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file));
    if (link) file.replace(link, `<text:span text:display="none">${link.match[0]}</text:span>`);
    return link !== undefined;
  },
};
