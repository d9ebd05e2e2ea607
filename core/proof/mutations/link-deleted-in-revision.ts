import type { Mutation } from "./mutation.ts";
import { docxLinks } from "./opened/text-links.ts";

/** It goes when the changes are taken over. */
export const linkDeletedInRevision: Mutation = {
  name: "a link marked as deleted",
  docx(file, pick) {
    const link = pick(docxLinks(file));
    if (link) file.replace(link, `<w:del w:id="7001" w:author="x">${link.match[0]}</w:del>`);
    return link !== undefined;
  },
};
