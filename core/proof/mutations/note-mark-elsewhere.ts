import type { Mutation } from "./mutation.ts";
import { odtNotes } from "./opened/text-links.ts";
import { withHref } from "./opened/open-pages.ts";
import { noteMarks } from "./opened/pdf-notes.ts";

/** The mark shows another note. */
export const noteMarkElsewhere: Mutation = {
  name: "a note’s mark led to another note",
  pages(file, pick) {
    const marks = file.links(/role="doc-noteref"/);
    const mark = pick(marks);
    const other = pick(marks.filter(({ href, path }) => href !== mark?.href && path === mark?.path));
    if (!mark || !other) return false;
    file.relink(mark, { tag: withHref(mark.tag, other.href) });
    return true;
  },
  pdf(file, pick) {
    const marks = noteMarks(file);
    const mark = pick(marks);
    const other = pick(
      marks.filter((one) => mark && file.leadsTo(one.dictionary) !== file.leadsTo(mark.dictionary)),
    );
    if (!mark || !other) return false;
    file.set(mark, "Dest", other.dictionary.get("Dest")!);
    return true;
  },
  markdown(file, pick) {
    const marks = file.find([file.pathOf(/\.md$/)!], /\[\^([^\]]+)\](?!:)/);
    const mark = pick(marks);
    const other = pick(marks.filter(({ match }) => match[1] !== mark?.match[1]));
    if (!mark || !other) return false;
    file.replace(mark, other.match[0]);
    return true;
  },
  docx(file, pick) {
    const marks = file.find([file.pathOf(/word\/document\.xml$/)!], /<w:footnoteReference w:id="(\d+)"/);
    const mark = pick(marks);
    const other = pick(marks.filter(({ match }) => match[1] !== mark?.match[1]));
    if (!mark || !other) return false;
    file.replace(mark, other.match[0]);
    return true;
  },
  odt(file, pick) {
    const path = file.pathOf(/content\.xml$/)!;
    const mark = pick(file.find([path], /<text:note-ref\b[^>]*text:ref-name="([^"]*)"/));
    const other = pick(odtNotes(file).filter(({ match }) => match[1] !== mark?.match[1]));
    if (!mark || !other) return false;
    file.replace(
      mark,
      mark.match[0].replace(mark.match[1]!, () => other.match[1]!),
    );
    return true;
  },
};
