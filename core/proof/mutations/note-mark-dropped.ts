import type { Mutation } from "./mutation.ts";
import { noteMarks } from "./opened/pdf-notes.ts";

/** The mark leads nowhere. */
export const noteMarkDropped: Mutation = {
  name: "a note’s mark without its link",
  pages(file, pick) {
    const mark = pick(file.links(/role="doc-noteref"/));
    if (mark) file.replace(mark, mark.inner);
    return mark !== undefined;
  },
  pdf(file, pick) {
    const mark = pick(noteMarks(file));
    if (!mark) return false;
    file.setAnnotations(
      mark.page,
      file.annotationsOf(mark.page).filter(({ number }) => number !== mark.ref.number),
    );
    return true;
  },
  markdown(file, pick) {
    const mark = pick(file.find([file.pathOf(/\.md$/)!], /\[\^([^\]]+)\](?!:)/));
    if (mark) file.replace(mark, "");
    return mark !== undefined;
  },
  docx(file, pick) {
    const mark = pick(
      file.find([file.pathOf(/word\/document\.xml$/)!], /<w:footnoteReference w:id="\d+"\s*\/>/),
    );
    if (mark) file.replace(mark, "");
    return mark !== undefined;
  },
  odt(file, pick) {
    const path = file.pathOf(/content\.xml$/)!;
    const mark = pick(file.find([path], /<text:note-ref\b.*?<\/text:note-ref>/s));
    if (mark) file.replace(mark, "");
    return mark !== undefined;
  },
};
