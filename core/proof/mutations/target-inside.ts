import type { Mutation } from "./mutation.ts";
import { odtLinks } from "./opened/text-links.ts";

/** The program looks for it within the document. */
export const targetInside: Mutation = {
  name: "an outside address taken for a part of the file",
  docx(file, pick) {
    const target = pick(
      file.find([file.pathOf(/document\.xml\.rels$/)!], /(Target="https?:[^"]*") TargetMode="External"/),
    );
    if (target) file.replace(target, target.match[1]!);
    return target !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file, /xlink:href="https?:/));
    if (link) file.replace(link, link.match[0].replace(/xlink:href="https?:\/\//, 'xlink:href="'));
    return link !== undefined;
  },
};
