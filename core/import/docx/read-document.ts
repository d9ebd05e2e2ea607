import type { Element, ElementContent, Nodes, Root } from "hast";
import { toString } from "hast-util-to-string";
import type { PageLayout } from "../../manuscript/page-layout.ts";
import type { LeftOut } from "../left-out.ts";
import type { AboutManuscript, ReadManuscript } from "../manuscript-reader.ts";
import { BlocksOfDocument } from "./blocks-of-document.ts";
import { DocumentParts } from "./document-parts.ts";
import { allElements, becomeSign, element } from "../hast-nodes.ts";
import { captionsOfTree } from "../captions-of-tree.ts";
import { conventionsOf } from "../hast-to-manuscript/carried.ts";
import { listsOfContents, toldList } from "../lists-of-contents.ts";
import { layoutOfPages } from "../layout-of-pages.ts";
import { raiseHeadings } from "../raise-headings.ts";
import { endedFields } from "./fields.ts";
import { Numbering } from "./numbering.ts";
import { PicturesOfDocument } from "./pictures-of-document.ts";
import { Styles } from "./styles.ts";
import { WordsOfDocument, type DocumentReading } from "./words-of-document.ts";
import { languageOfText } from "../other-language.ts";
import { childOf, elements, shownWords, textOf, type XmlElement } from "../xml-tree.ts";

/**
 * The text of a document as a tree of HTML: its text, footnotes and endnotes.
 * @throws ImportError `format` where the container or a part of it cannot be read
 */
export function readDocument(bytes: Uint8Array): ReadManuscript {
  const parts = new DocumentParts(bytes);
  const treeOf = (type: string): XmlElement | null => {
    const path = parts.partOf(parts.text, type);
    return path === null ? null : parts.tree(path);
  };
  const numbering = new Numbering(treeOf("numbering"));
  const leftOut: LeftOut[] = [];
  const styles = treeOf("styles");
  const body = childOf(parts.tree(parts.text) ?? undefined, "body");
  const reading: DocumentReading = {
    parts,
    styles: new Styles(styles),
    pictures: new PicturesOfDocument(parts),
    leftOut,
    language: languageOf(styles, body),
    kept: parts.kept(),
    paragraph: 0,
    notesAt: new Map(),
    linkNames: new Map(),
  };
  const blocksOf = (path: string, parent: XmlElement): ElementContent[] => {
    const words = new WordsOfDocument(reading, parts.relationships(path), endedFields(parent));
    return new BlocksOfDocument(reading, words, numbering).blocks(parent);
  };
  const children = body ? blocksOf(parts.text, body) : [];
  for (const kind of ["footnote", "endnote"]) {
    const path = parts.partOf(parts.text, `${kind}s`);
    const tree = path === null ? null : parts.tree(path);
    for (const note of elements(tree ?? undefined)) {
      // Lines between text and notes are notes too, of a type.
      if (note.name !== kind || (note.attributes["type"] ?? "normal") !== "normal") continue;
      const id = `${kind.slice(0, 1)}${note.attributes["id"] ?? ""}`;
      children.push(element("note-body", { dataNote: id }, blocksOf(path!, note), reading.paragraph));
    }
  }
  tellComments(treeOf("comments"), leftOut);
  for (const type of ["header", "footer"])
    for (const path of parts.partsOf(parts.text, type)) tellRunning(parts, path, leftOut);
  const tree: Root = { type: "root", children };
  const titleLine = allElements(tree).find(({ tagName }) => tagName === "title-line");
  raiseHeadings(tree);
  signsAgain(tree, reading.notesAt);
  captionsOfTree(tree);
  tidyPlaces(tree);
  const whereOf = ({ position }: Nodes): string | null =>
    position ? `paragraph ${position.start.line}` : null;
  leftOut.push(...listsOfContents(tree).map((list) => toldList(whereOf(list))));
  return {
    tree,
    about: { ...withTitle(aboutDocument(parts, reading), titleLine), layout: layoutOfSections(body) },
    pictures: [...reading.pictures.enclosed.values()],
    companions: [],
    leftOut,
    whereOf,
  };
}

/** What the document says of itself (ECMA-376, part 2, 11). */
function aboutDocument(parts: DocumentParts, { kept, language }: DocumentReading): AboutManuscript {
  const core = parts.tree("docProps/core.xml") ?? undefined;
  const said = (name: string): string | null => {
    const one = childOf(core, name);
    return one ? textOf(one).trim() || null : null;
  };
  const conventions = conventionsOf(kept.get("vennet-counts"));
  return {
    title: said("title"),
    author: said("creator"),
    language: said("language") ?? language,
    conventions,
  };
}

/** How most pages of the document are laid out: those of its longest section (ECMA-376, 17.6.13 and 17.6.11). */
function layoutOfSections(body: XmlElement | undefined): PageLayout | null {
  let longest = -1;
  let length = 0;
  let found: XmlElement | undefined;
  for (const child of elements(body)) {
    length++;
    const section = child.name === "sectPr" ? child : childOf(childOf(child, "pPr"), "sectPr");
    if (!section) continue;
    if (length > longest) [longest, found] = [length, section];
    length = 0;
  }
  const size = childOf(found, "pgSz")?.attributes;
  const margins = childOf(found, "pgMar")?.attributes;
  if (!size || !margins) return null;
  const inMm = (twips: string | undefined): number => (Math.abs(Number(twips ?? NaN)) / 1440) * 25.4;
  return layoutOfPages({
    width: inMm(size["w"]),
    height: inMm(size["h"]),
    left: inMm(margins["left"]) + (inMm(margins["gutter"]) || 0),
    right: inMm(margins["right"]),
    top: inMm(margins["top"]),
    bottom: inMm(margins["bottom"]),
  });
}

/** A document that does not say what it is called is called as it calls itself. */
function withTitle(about: AboutManuscript, line: Element | undefined): AboutManuscript {
  const words = line && toString(line).replace(/\s+/g, " ").trim();
  return { ...about, title: about.title ?? (words || null) };
}

/** The language of all words for which no other is told (ECMA-376, 17.7.5.1); null where there is none. */
function languageOf(styles: XmlElement | null, body: XmlElement | undefined): string | null {
  const defaults = childOf(styles ?? undefined, "docDefaults");
  const said = childOf(childOf(childOf(defaults, "rPrDefault"), "rPr"), "lang")?.attributes ?? {};
  return languageOfText([said["val"], said["eastAsia"], said["bidi"]], body ? textOf(body) : "");
}

/** A field that tells a note's number again is the sign of that note once more. */
function signsAgain(tree: Root, notesAt: ReadonlyMap<string, string>): void {
  for (const one of allElements(tree)) {
    if (one.properties["dataReference"] !== "note") continue;
    const note = notesAt.get(String(one.properties["href"]).slice(1).toLowerCase());
    if (note !== undefined) becomeSign(one, note);
  }
}

function tellComments(comments: XmlElement | null, leftOut: LeftOut[]): void {
  for (const comment of elements(comments ?? undefined)) {
    const words = shownWords(comment).slice(0, 200);
    const author = comment.attributes["author"];
    leftOut.push({
      where: null,
      sort: "Comments",
      what: `A comment${author ? ` of ${author}` : ""}: “${words}”`,
      why: "Comments have no place in a book.",
    });
  }
}

/** What stands at the head and foot of every page. */
function tellRunning(parts: DocumentParts, path: string, leftOut: LeftOut[]): void {
  const tree = parts.tree(path);
  const words = shownWords(tree);
  const links = [...parts.relationships(path).values()].filter(({ type }) => type === "hyperlink");
  const sort = "Heads and feet of pages";
  const why = "An export has heads of its own.";
  for (const { target } of links)
    leftOut.push({
      where: null,
      sort,
      what: `A link in the head or foot of pages, to ${target}`,
      why,
      href: target,
    });
  if (words !== "" && links.length === 0)
    leftOut.push({ where: null, sort, what: `The head or foot of pages: “${words.slice(0, 100)}”`, why });
}

/**
 * Leaves out bookmarks that programs made for themselves and that nothing leads to, and calls each place as the
 * document does, since links may name it in other letters (ECMA-376, 17.13.6.2).
 */
function tidyPlaces(tree: Root): void {
  const all = allElements(tree);
  const names = new Map<string, string>();
  for (const { properties } of all) {
    const name = properties["id"];
    if (typeof name === "string" && !names.has(name.toLowerCase())) names.set(name.toLowerCase(), name);
  }
  const wanted = new Set<string>();
  for (const { tagName, properties } of all) {
    const href = properties["href"];
    if (tagName !== "a" || typeof href !== "string" || !href.startsWith("#")) continue;
    const name = names.get(href.slice(1).toLowerCase()) ?? href.slice(1);
    properties["href"] = `#${name}`;
    wanted.add(name);
  }
  const isIdle = (child: ElementContent): boolean =>
    child.type === "element" &&
    child.tagName === "a" &&
    child.properties["href"] === undefined &&
    String(child.properties["id"]).startsWith("_") &&
    !wanted.has(String(child.properties["id"]));
  for (const one of all) one.children = one.children.filter((child) => !isIdle(child));
  tree.children = tree.children.filter(
    (child) =>
      child.type !== "element" ||
      child.tagName !== "p" ||
      child.children.length > 0 ||
      toString(child) !== "",
  );
}
