import type { Mutation } from "./mutation.ts";
import { odtNotes } from "./opened/text-links.ts";

/** Each mark shows the other’s note. */
export const noteTextsSwapped: Mutation = {
  name: "the texts of two notes swapped",
  markdown(file, pick) {
    const notes = file.find([file.pathOf(/\.md$/)!], /^\[\^([^\]]+)\]: (.+)$/m);
    const one = pick(notes);
    const other = pick(notes.filter(({ match }) => match[2] !== one?.match[2]));
    if (!one || !other) return false;
    file.swap(one, other, ({ match }, from) => `[^${match[1]}]: ${from.match[2]}`);
    return true;
  },
  docx(file, pick) {
    const path = file.pathOf(/word\/footnotes\.xml$/);
    if (path === undefined) return false;
    const notes = file.find([path], /<w:footnote w:id="([1-9]\d*)">(.*?)<\/w:footnote>/s);
    const one = pick(notes);
    const other = pick(notes.filter(({ match }) => match[2] !== one?.match[2]));
    if (!one || !other) return false;
    file.swap(
      one,
      other,
      ({ match }, from) => `<w:footnote w:id="${match[1]}">${from.match[2]}</w:footnote>`,
    );
    return true;
  },
  odt(file, pick) {
    const notes = odtNotes(file);
    const one = pick(notes);
    const other = pick(notes.filter(({ match }) => match[2] !== one?.match[2]));
    if (!one || !other) return false;
    file.swap(one, other, ({ match }, from) => match[0].replace(match[2]!, () => from.match[2]!));
    return true;
  },
};
