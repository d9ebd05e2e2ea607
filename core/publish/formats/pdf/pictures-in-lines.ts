import type { SetInline, SetPicture } from "./set-data.ts";

/** What else stands on the line of a picture. */
interface Line {
  hasPicture: boolean;
  hasWords: boolean;
}

/**
 * Tells of each picture among some words whether it stands alone on its line, between ends of lines or of the words. In a
 * line of a cell, as wide as the typesetter makes it, there is no width of which a picture could be a part.
 * @param room how wide a line is, in sizes of the text's letters; null in a cell
 */
export function withPicturesInLines(words: SetInline[], room: number | null): SetInline[] {
  const lines: Line[] = [{ hasPicture: false, hasWords: false }];
  const lineOf = new Map<SetInline, Line>();
  const read = (item: SetInline): void => {
    const line = lines.at(-1)!;
    if (item.kind === "link") item.content.forEach(read);
    else if (item.kind === "break") lines.push({ hasPicture: false, hasWords: false });
    else if (item.kind === "picture") {
      lineOf.set(item, line);
      line.hasPicture = true;
    } else if (isShown(item)) line.hasWords = true;
  };
  words.forEach(read);
  if (lineOf.size === 0) return words;
  const placed = (item: SetInline, isAmong: boolean): SetInline => {
    if (item.kind === "link") {
      const among = item.content.length > 1;
      return { ...item, content: item.content.map((one) => placed(one, among)) };
    }
    if (item.kind !== "picture") return item;
    // The area of a link with more in it is to lie on the picture alone, and not on the rest of its line.
    const alone = !isAmong && !lineOf.get(item)!.hasWords;
    return { ...item, alone, room, percent: alone || room !== null ? item.percent : null };
  };
  return words.map((item) => placed(item, false));
}

/**
 * Pictures that are all there is in a paragraph, each in one of its own: the first two and the last two lines of one are
 * never on two pages, and left most of a page empty where they are pictures.
 */
export function inParagraphs(words: SetInline[]): SetInline[][] {
  const pictures = words.filter((item) => pictureAt(item)?.alone);
  const others = words.filter((item) => !pictures.includes(item));
  const isAll = others.every((item) => item.kind === "break" || (item.kind === "text" && !isShown(item)));
  return pictures.length > 1 && isAll ? pictures.map((picture) => [picture]) : [words];
}

/** Whether it takes room on a line; a note's mark does so behind what it belongs to. */
function isShown(item: SetInline): boolean {
  if (item.kind === "text") return item.words.trim() !== "";
  return !["anchor", "may-break", "note", "note-again", "raised-link"].includes(item.kind);
}

/** The picture with which some words begin, in whatever link it stands; null where it is something else. */
export function pictureAt(item: SetInline | undefined): SetPicture | null {
  if (item?.kind === "link") return pictureAt(item.content[0]);
  return item?.kind === "picture" ? item : null;
}
