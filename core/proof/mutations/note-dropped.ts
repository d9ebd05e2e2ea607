import type { Mutation } from "./mutation.ts";

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
};
