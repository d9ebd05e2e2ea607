import type { Element, ElementContent, Root } from "hast";
import { Fragment, type Node } from "prosemirror-model";
import type { LeftOut } from "../left-out.ts";
import { allElements } from "../hast-nodes.ts";
import { withoutComments } from "../html/comments.ts";
import { listsByIndent } from "../html/lists-by-indent.ts";
import { listedParagraphs } from "../html/listed-paragraphs.ts";
import { breaksAsShown } from "../html/line-breaks.ts";
import { bytesOfData } from "../html/pictures-inside.ts";
import { withoutOthersNames } from "../hast-to-manuscript/carried.ts";
import { hastToManuscript } from "../hast-to-manuscript/hast-to-manuscript.ts";
import { notesOfTree } from "../notes-of-tree.ts";
import { outOfInlines } from "../hast-to-manuscript/out-of-inlines.ts";
import { looseIntoItems } from "../hast-to-manuscript/loose-in-lists.ts";
import { stylesInside } from "../style-sheets.ts";
import { anchorsByIds } from "../hast-to-manuscript/places-by-id.ts";

/** What was pasted, as it goes into a chapter. */
export interface Pasted {
  content: Fragment;
  /** The notes that are called in it, for the end of the chapter. */
  notes: Node[];
  /** What could not be taken over as it was. */
  leftOut: LeftOut[];
  /** The pictures inside it, each with the id by which the content calls it until the book has it. */
  pictures: { file: string; mediaType: string; bytes: Uint8Array }[];
}

/**
 * Makes text of a chapter of what another program or page put on the clipboard, by the same tree as manuscripts that come
 * in: links with their descriptions, also to places within it and relative ones, styles that are emphasis, tables.
 */
export function pasted(tree: Root): Pasted {
  stylesInside(tree).applyTo(tree);
  const base = allElements(tree).find(({ tagName }) => tagName === "base")?.properties["href"];
  const pictures: Pasted["pictures"] = [];
  const leftOut = withoutComments(tree);
  withoutHead(tree, (picture) => {
    const { src, alt } = picture.properties;
    const bytes = typeof src === "string" ? bytesOfData(src) : null;
    if (bytes) {
      const file = crypto.randomUUID();
      pictures.push({ file, mediaType: /^data:([^;,]*)/i.exec(String(src))![1]!, bytes });
      picture.properties["src"] = file;
    } else
      leftOut.push({
        where: null,
        sort: "Pictures",
        what: `The picture ${typeof alt === "string" && alt !== "" ? `“${alt}”` : "without words"}`,
        why: "Its file was not on the clipboard. Save it, and drop it on the text.",
      });
    return bytes !== null;
  });
  withoutOthersNames(tree, false);
  listsByIndent(tree);
  listedParagraphs(tree);
  breaksAsShown(tree);
  notesOfTree(tree);
  outOfInlines(tree);
  // Within a chapter its title is the one heading of the first level.
  for (const one of allElements(tree)) if (one.tagName === "h1") one.tagName = "h2";
  anchorsByIds(tree);
  looseIntoItems(tree);
  const made = hastToManuscript(tree, {
    fallbackTitle: "Pasted",
    baseAddress: typeof base === "string" && /^https?:/i.test(base) ? base : null,
    pictureFor: (source) => (pictures.some(({ file }) => file === source) ? source : null),
    pictureSize: () => null,
    companionFor: () => null,
    whereOf: () => null,
  });
  const [chapter] = made.chapters;
  const notes = chapter!.children.filter(({ type }) => type.name === "note");
  const blocks = chapter!.children.filter(({ type }) => type.name !== "title" && type.name !== "note");
  const told = made.leftOut.map((one) =>
    one.sort === "Links to files that were not brought along"
      ? { ...one, why: "It is kept. Bring the file, or change the link to a web address." }
      : one,
  );
  return { content: Fragment.from(blocks), notes, leftOut: [...leftOut, ...told], pictures };
}

/**
 * Takes out what programs put before text, and pictures that are not there.
 * @param hasPicture whether the clipboard has a picture
 */
function withoutHead(parent: Root | Element, hasPicture: (picture: Element) => boolean): void {
  parent.children = (parent.children as ElementContent[]).filter((child) => {
    if (child.type !== "element") return true;
    if (child.tagName === "img") return hasPicture(child);
    withoutHead(child, hasPicture);
    return !["style", "script", "meta", "link", "base", "title", "xml"].includes(child.tagName);
  });
}
