import type { Element, Nodes, Root } from "hast";
import { namesIn, unpacked } from "../containers.ts";
import { ImportError } from "../errors.ts";
import { allElements } from "../hast-nodes.ts";
import { withoutWhatIsMade } from "../hast-to-manuscript/carried.ts";
import { readPage } from "../html/html.ts";
import { textOfPage } from "../html/page-text.ts";
import { JoinedPages } from "../joined-pages.ts";
import type { BroughtFile, ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";
import { idsOfWords } from "../markdown/heading-ids.ts";
import { markdown } from "../markdown/markdown.ts";
import { notesOfTree } from "../notes-of-tree.ts";
import { raiseHeadings } from "../raise-headings.ts";
import { stylesIn } from "../style-sheets.ts";
import { beginsChapter, namesOfPages, withoutSiteName } from "./beginning-of-page.ts";
import { documentIn, type DocumentInFolder } from "./document-in-folder.ts";
import { inReadingOrder, isMarkdown, pagesIn } from "./pages-of-folder.ts";
import { linksOfFolder } from "./second-reading.ts";

/**
 * A packed folder of web pages or of texts in Markdown, with their pictures and what they link to; or of one text document
 * with its files.
 * @param documents the readers of formats that are one file
 */
export function folderWith(documents: readonly ManuscriptReader[]): ManuscriptReader {
  const inside = (bytes: Uint8Array): DocumentInFolder | null => {
    const names = namesIn(bytes);
    return names.length === 0 || pagesIn(names).length > 0 ? null : documentIn(bytes, names, documents);
  };
  return {
    accepts: ({ bytes }) => pagesIn(namesIn(bytes)).length > 0 || inside(bytes) !== null,
    read: ({ bytes }) => {
      const document = inside(bytes);
      return document ? readDocumentIn(unpacked(bytes), document) : readFolder(unpacked(bytes));
    },
    linksOf: ({ bytes }) => {
      const document = inside(bytes);
      const files = unpacked(bytes);
      return document
        ? document.reader.linksOf({ name: document.path, bytes: files[document.path]! })
        : linksOfFolder(files);
    },
  };
}

/** Of a node: the number of its page, which stands where its column was. */
const numbered = (node: Element, page: number): void => {
  for (const one of [node, ...allElements(node)])
    if (one.position) {
      const { line, offset = 0 } = one.position.start;
      // The order of the whole is that of pages, then that in each.
      const start = { line, column: page, offset: page * 1e9 + offset };
      one.position = { start, end: start };
    }
};

async function readFolder(files: Record<string, Uint8Array>): Promise<ReadManuscript> {
  const read = new Map<string, ReadManuscript>();
  const stylesOf = stylesIn(files);
  for (const path of pagesIn(Object.keys(files))) {
    const file: BroughtFile = { name: path, bytes: files[path]! };
    if (isMarkdown(path) && !markdown.accepts(file))
      throw new ImportError(
        "format",
        `“${path}” is not a text. Take it out of the folder, or save it as one.`,
      );
    read.set(
      path,
      isMarkdown(path)
        ? await markdown.read(file)
        : readPage(textOfPage(file), (page) => stylesOf(path, page)),
    );
  }
  const hrefsOf = (path: string): string[] =>
    allElements(read.get(path)!.tree).flatMap(({ properties: { href } }) =>
      typeof href === "string" ? [href] : [],
    );
  const pages = inReadingOrder([...read.keys()], hrefsOf);
  const joined = new JoinedPages(files, pages);
  const ofOthers = [...read.values()].filter(({ about }) => !about?.conventions);
  withoutSiteName(ofOthers.map(({ tree }) => tree));
  const nameOf = namesOfPages(
    new Map(pages.map((path) => [path, isMarkdown(path) ? null : (read.get(path)!.about?.title ?? null)])),
  );
  const children = pages.map((path, i) => {
    const { tree, about } = read.get(path)!;
    if (isMarkdown(path)) idsOfWords(tree);
    notesOfPage(tree, i + 1);
    picturesOfPage(read.get(path)!, i + 1);
    withoutWhatIsMade(tree);
    if (about?.conventions) raiseHeadings(tree);
    else beginsChapter(tree, nameOf(path));
    // What names the page's top does so for its chapter, whatever that begins with.
    const isTop = (node: Nodes): boolean => node.type === "element" && node.properties["dataTop"] === true;
    const inOrder = [...tree.children.filter(isTop), ...tree.children.filter((node) => !isTop(node))];
    const body: Element = {
      type: "element",
      tagName: "body",
      properties: {},
      children: inOrder as Element[],
    };
    numbered(body, i + 1);
    return joined.page(path, body);
  });
  const tree: Root = { type: "root", children };
  notesOfTree(tree);
  const all = [...read.values()];
  const { about } = read.get(pages[0]!)!;
  return {
    tree,
    ...(about ? { about } : {}),
    pictures: [...joined.pictures.values(), ...all.flatMap(({ pictures }) => pictures)],
    companions: [...joined.companions.values()],
    leftOut: all.flatMap(({ leftOut }) => leftOut),
    whereOf: ({ position }: Nodes) =>
      position ? `${pages[position.start.column - 1] ?? "?"}, line ${position.start.line}` : null,
  };
}

/** A text document, with the files beside it to which it links. */
async function readDocumentIn(
  files: Record<string, Uint8Array>,
  { path, reader }: DocumentInFolder,
): Promise<ReadManuscript> {
  const document = await reader.read({ name: path, bytes: files[path]! });
  const joined = new JoinedPages(files, [path]);
  const children = document.tree.children as Element[];
  const body: Element = { type: "element", tagName: "body", properties: {}, children };
  return {
    ...document,
    tree: { type: "root", children: joined.page(path, body).children },
    companions: [...joined.companions.values()],
  };
}

/** Pages call their notes alike. */
function notesOfPage(tree: Root, page: number): void {
  for (const { properties } of allElements(tree))
    if (properties["dataNote"] !== undefined)
      properties["dataNote"] = `${page}-${String(properties["dataNote"])}`;
}

/** Pages call the pictures inside them alike, too. */
function picturesOfPage({ tree, pictures }: ReadManuscript, page: number): void {
  const named = new Map(pictures.map(({ reference }) => [reference, `${reference}-of-${page}`]));
  for (const { properties } of allElements(tree))
    if (named.has(String(properties["src"]))) properties["src"] = named.get(String(properties["src"]))!;
  for (const picture of pictures) picture.reference = named.get(picture.reference)!;
}
