import type { Mutation } from "./mutation.ts";
import { odtNotes } from "./opened/text-links.ts";

/** The mark leads to nothing. */
export const noteDropped: Mutation = {
  name: "a note dropped",
  markdown(file, pick) {
    const note = pick(file.find([file.pathOf(/\.md$/)!], /^\[\^([^\]]+)\]: .*$/m));
    if (note) file.replace(note, "");
    return note !== undefined;
  },
  docx(file, pick) {
    const path = file.pathOf(/word\/footnotes\.xml$/);
    const note =
      path === undefined
        ? undefined
        : pick(file.find([path], /<w:footnote w:id="([1-9]\d*)">.*?<\/w:footnote>/s));
    if (note) file.replace(note, "");
    return note !== undefined;
  },
  odt(file, pick) {
    const note = pick(odtNotes(file));
    if (note) file.replace(note, "");
    return note !== undefined;
  },
};
